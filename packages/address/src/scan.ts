import { unprotect } from './travel.ts';

/** Longest address that is read, in UTF-16 code units. */
export const longestAddress = 65_536;

/** The address that was scanned last, in the form path, query, fragment of the WHATWG URL parser. */
export let address = '';
/** Where its path ends: at “?”, at “#”, or at the end; and where its query ends. */
export let pathEnd = 0;
export let queryEnd = 0;
/** How much of the prefix was found at its beginning: all of it, or nothing. */
export let scanned = 0;

const dotSegment = /\/\.{1,2}(?:\/|$)/;

/**
 * Brings an address into the form path, query, fragment. One that begins with a single “/” and holds only printable
 * ASCII, and no backslash or dot segment in its path, is in that form already.
 * @param prefix a beginning of paths that is in that form, and need not be looked at again
 * @returns false for what is no address of the web, is too long, or is not well-formed Unicode
 */
export function scan(given: string, prefix = ''): boolean {
  if (given.length > longestAddress) return false;
  scanned = given.startsWith(prefix) ? prefix.length : 0;
  if (scanned > 0 || (given.charCodeAt(0) === 47 && given.charCodeAt(1) !== 47)) {
    if (scanPlain(given, scanned)) return true;
    scanned = 0;
  }
  const text = given.trim();
  if (!/^(https?:|[/?#]|$)/i.test(text) || !text.isWellFormed()) return false;
  try {
    const url = new URL(text, 'http://a/');
    // A path of the parser may begin with “//”, which names no host there.
    return scanPlain(url.pathname + url.search + url.hash, 0);
  } catch {
    return false;
  }
}

/** As `scan`, for a text that begins with “/”. @returns false where the parser has to be asked */
export function scanPlain(given: string, from: number): boolean {
  const text = unprotect(given);
  const { length } = text;
  let dots = false;
  let code: number;
  let path = from;
  for (; path < length && (code = text.charCodeAt(path)) !== 63 && code !== 35; path++) {
    if (code < 33 || code > 126 || code === 92) return false;
    // A point after “/” may be a segment that leads up.
    if (code === 46 && text.charCodeAt(path - 1) === 47) dots = true;
  }
  if (dots && dotSegment.test(text.slice(0, path))) return false;
  let end = length;
  for (let i = length; i > path;) {
    code = text.charCodeAt(--i);
    if (code < 33 || code > 126) return false;
    if (code === 35) end = i;
  }
  address = text;
  pathEnd = path;
  queryEnd = end;
  return true;
}
