/** One text of words that an app file has in one language or in several: the first. */
export const pick = (words: unknown): string | undefined =>
  typeof words === 'string' ? words : typeof words === 'object' && words !== null ? pick(Object.values(words)[0]) : undefined;
