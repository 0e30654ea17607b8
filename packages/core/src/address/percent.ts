const unreserved = /^[A-Za-z0-9\-._~]*$/;

/**
 * Percent-encodes a text as UTF-8, leaving only the unreserved characters of RFC 3986, as the simple
 * expansion of RFC 6570 does. The text must be well-formed Unicode.
 */
export function encode(text: string): string {
  if (unreserved.test(text)) return text;
  return encodeURIComponent(text).replaceAll(/[!'()*]/g, (sign) => '%' + sign.charCodeAt(0).toString(16).toUpperCase());
}

/** What `decodeQuery` and `decodeSegment` give for a text whose escapes are not UTF-8 in percent-encoding. */
export const malformed = Symbol('malformed percent-encoding');

/** Decodes a path segment (WHATWG URL): `%XX` is a byte of UTF-8, `+` is a plus sign. */
export function decodeSegment(text: string): string | typeof malformed {
  if (!text.includes('%')) return text;
  try {
    return decodeURIComponent(text);
  } catch {
    return malformed;
  }
}

/** Decodes a name or a value of the query (WHATWG `application/x-www-form-urlencoded`): `+` is a space. */
export function decodeQuery(text: string): string | typeof malformed {
  return decodeSegment(text.includes('+') ? text.replaceAll('+', ' ') : text);
}

/** Decodes as far as it goes, for showing a text that may be malformed. */
export function decodeForShow(text: string): string {
  const decoded = decodeQuery(text);
  return decoded === malformed ? text : decoded;
}
