/** A limit, or another value, as it stands in a sentence. */
export const shown = (data: unknown): string => (typeof data === 'string' ? data : JSON.stringify(data));
