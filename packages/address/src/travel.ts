/**
 * Addresses travel in mails and chats, whose programs make links of plain text: they cut off punctuation at the end
 * (`2020-01-01..`), and stop at some punctuation within. There unreserved characters are percent-encoded, which changes
 * nothing (RFC 3986, section 6.2.2.2).
 */

/** What such a program could take for the end: a mark at the end, a second point before other punctuation, a third hyphen. */
const endings = /[-._~](?:$|(?<=\.\.)(?=\.*(?![a-z\d%/&.]))|(?<=---))/gi;

/**
 * Whether the address at hand may have any of that. Few have: those who write its pieces say so, which takes a fraction of
 * the time of looking through the whole.
 */
export let fragile = false;
export const beginWriting = (template: boolean): void => {
  fragile = template;
};
export const mayBreak = (): void => {
  fragile = true;
};

/** Protects path and query against it. */
export const protect = (address: string): string => address.replace(endings, escapeOf);

/** Undoes it, and any other encoding of these characters. */
export const unprotect = (address: string): string =>
  address.includes('%') ? address.replace(/%(?:2[DE]|5F|7E)/gi, decodeURIComponent) : address;

/** The percent-encoding of an ASCII character. */
export const escapeOf = (sign: string): string => '%' + sign.charCodeAt(0).toString(16).toUpperCase();
