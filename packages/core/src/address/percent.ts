/** For each ASCII character what stands for it in an address: itself where RFC 3986 calls it unreserved. */
const encoded = Array.from({ length: 128 }, (_, code) => {
  const sign = String.fromCharCode(code);
  return /[A-Za-z0-9\-._~]/.test(sign) ? sign : '%' + code.toString(16).toUpperCase().padStart(2, '0');
});
const kept = Uint8Array.from(encoded, (text) => (text.length === 1 ? 1 : 0));

/**
 * Percent-encodes a text as UTF-8, leaving only the unreserved characters of RFC 3986, as the simple
 * expansion of RFC 6570 does. The text must be well-formed Unicode.
 */
export function encode(text: string): string {
  const { length } = text;
  let index = 0;
  while (index < length && kept[text.charCodeAt(index)] === 1) index++;
  if (index === length) return text;
  let result = text.slice(0, index);
  for (; index < length; index++) {
    const code = text.charCodeAt(index);
    if (code >= 128) return result + encodeRest(text.slice(index));
    result += encoded[code] ?? '';
  }
  return result;
}

/** As `encode`, for what holds characters beyond ASCII. */
function encodeRest(text: string): string {
  return encodeURIComponent(text).replaceAll(/[!'()*]/g, (sign) => encoded[sign.charCodeAt(0)] ?? '');
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
  return decodeSegment(decodePlus(text));
}

/** The part of `decodeQuery` that is left where there is no `%`. */
export function decodePlus(text: string): string {
  const plus = text.indexOf('+');
  return plus === -1 ? text : withSpaces(text, plus);
}

function withSpaces(text: string, plus: number): string {
  let result = '';
  let from = 0;
  for (let at = plus; at !== -1; at = text.indexOf('+', from)) {
    result += text.slice(from, at) + ' ';
    from = at + 1;
  }
  return result + text.slice(from);
}

/** Decodes as far as it goes, for showing a text that may be malformed. */
export function decodeForShow(text: string): string {
  const decoded = decodeQuery(text);
  return decoded === malformed ? text : decoded;
}
