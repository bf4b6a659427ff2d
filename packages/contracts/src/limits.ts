/** Sizes that client and server agree on. */
export const MAX_BODY = '256kb';
export const MAX_EVENTS_PER_ORDER = 5000;
export const PAGE_SIZE = 50;
