/**
 * Version of what client and server say to each other; raised when one of another version would misunderstand. A page that
 * is older or newer than its server says so.
 */
export const API_VERSION = '2';
export const API_VERSION_HEADER = 'X-Zealous-Version';

/** Sizes that client and server agree on. */
export const MAX_BODY = '256kb';
export const MAX_EVENTS_PER_ORDER = 5000;
export const PAGE_SIZE = 50;

/** A picture as it is sent; the phone reduces it well below. */
export const MAX_PHOTO_BYTES = 3 * 1024 * 1024;
export const MAX_PHOTO_PX = 6000;
