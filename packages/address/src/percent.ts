import { refuse } from './outcome.ts';
import { escapeOf, mayBreak } from './travel.ts';

const encodeAny = (text: string) => encodeURIComponent(text).replace(/[!'()*]/g, escapeOf);
/** Each ASCII character as an address has it. Looking there takes a fraction of the time of `encodeURIComponent`. */
const ofCode = /* @__PURE__ */ Array.from({ length: 128 }, (_, code) => encodeAny(String.fromCharCode(code)));

/**
 * Percent-encodes a text as UTF-8, leaving only the unreserved characters of RFC 3986, as the simple expansion of
 * RFC 6570 does. The text must be well-formed Unicode.
 */
export function encode(text: string): string {
  let result = '';
  let start = 0;
  let before = 0;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    const encoded = ofCode[code];
    // Two points or two hyphens; where there are other characters, they are not looked for.
    if (encoded === undefined || (code === before && code < 47)) mayBreak();
    if (encoded === undefined) return encodeAny(text);
    before = code;
    if (encoded.length > 1) {
      result += text.slice(start, i) + encoded;
      start = i + 1;
    }
  }
  if (before === 45 || before === 46 || before === 95 || before === 126) mayBreak();
  return result + text.slice(start);
}

/**
 * Decodes a stretch of a query (WHATWG `application/x-www-form-urlencoded`): `+` is a space, `%XX` a byte of UTF-8.
 * @returns undefined for escapes that are not UTF-8; that is refused with `malformed-escape`
 */
export function decode(text: string, from: number, to: number): string | undefined {
  for (let i = from; i < to; i++) {
    const code = text.charCodeAt(i);
    if (code === 37 || code === 43) return decodeOdd(text.slice(from, to));
  }
  return text.slice(from, to);
}

function decodeOdd(text: string): string | undefined {
  try {
    return decodeURIComponent(text.replaceAll('+', ' '));
  } catch {
    return refuse('malformed-escape');
  }
}

/** Decodes a whole text of a query. @returns undefined for escapes that are not UTF-8 */
export const decodeText = (text: string): string | undefined => decode(text, 0, text.length);

/** Decodes a stretch as far as it goes, for showing a text that may be malformed. */
export const decodeForShow = (text: string): string => decode(text, 0, text.length) ?? text;

/** Whether a text stands at a place in another. For the few characters of a name this is quicker than `startsWith`. */
export function standsAt(text: string, at: number, name: string): boolean {
  for (let i = name.length - 1; i >= 0; i--) {
    if (text.charCodeAt(at + i) !== name.charCodeAt(i)) return false;
  }
  return true;
}
