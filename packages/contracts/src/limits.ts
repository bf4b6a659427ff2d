/** Sizes that client and server agree on. */
export const MAX_BODY = '256kb';
export const MAX_EVENTS_PER_ORDER = 5000;
export const PAGE_SIZE = 50;

/** A picture as it is sent; the phone reduces it well below. */
export const MAX_PHOTO_BYTES = 3 * 1024 * 1024;
export const MAX_PHOTO_PX = 6000;
