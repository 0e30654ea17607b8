/** A limit, or another value, as it stands in a sentence. */
export const shown = (data: unknown): string => (typeof data === 'string' ? data : JSON.stringify(data));

/** The least and the greatest value that is accepted, where there is one. */
export type Limits = readonly [min: unknown, max: unknown];

/** Names as a choice between them: “a, b or c”. @param or with its blanks */
export const alternatives = (names: readonly string[], or: string): string =>
  names.length < 2 ? names.join('') : names.slice(0, -1).join(', ') + or + (names.at(-1) ?? '');
