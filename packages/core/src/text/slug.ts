/**
 * A short name for files and addresses, from words: small Latin letters and figures with hyphens between.
 *
 * @param otherwise where no letter is left, as of words in another script
 */
export const slugOf = (words: string, otherwise: string, most = 60): string =>
  words
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, most) || otherwise;
