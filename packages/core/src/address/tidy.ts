/** An address in the form path, query, fragment, with what reading has to know of its characters. */
export interface TidyAddress {
  text: string;
  /** Where the path ends: at “?”, at “#”, or at the end. */
  pathEnd: number;
  /** Where the query ends: at “#”, or at the end. */
  queryEnd: number;
  /** Whether there is a “%” or a “+” anywhere: without them nothing needs to be decoded. */
  percent: boolean;
  plus: boolean;
}

/** Printable ASCII without a backslash, beginning with “/”. */
const plain = /^\/[!-[\]-~]*$/;
const dotSegment = /(?:^|\/)(?:\.|%2e){1,2}(?:[/?#]|$)/i;
const webAddress = /^(?:https?:|\/|$|\?|#)/i;

/**
 * Brings an address into the form path, query, fragment, as the WHATWG URL parser has it. One that begins with a single
 * “/” and holds only printable ASCII, no backslash and no dot segment is in that form already.
 * @returns undefined for what is no web address, or is not well-formed Unicode
 */
export function tidyAddress(address: string): TidyAddress | undefined {
  // “//” at the start names a host, unless the parser has left it there.
  if (address.charCodeAt(1) !== 47) {
    const tidy = scan(address);
    if (tidy !== undefined) return tidy;
  }
  return scan(byTheParser(address) ?? '');
}

/** @returns undefined where the parser has to be asked */
function scan(text: string): TidyAddress | undefined {
  if (!plain.test(text)) return undefined;
  const hash = text.indexOf('#');
  const queryEnd = hash === -1 ? text.length : hash;
  const mark = text.indexOf('?');
  const pathEnd = mark === -1 || mark > queryEnd ? queryEnd : mark;
  const percent = text.includes('%');
  if ((percent || text.includes('/.')) && dotSegment.test(text.slice(0, pathEnd))) return undefined;
  return { text, pathEnd, queryEnd, percent, plus: text.includes('+') };
}

function byTheParser(address: string): string | undefined {
  const text = address.trim();
  if (!webAddress.test(text) || !text.isWellFormed()) return undefined;
  try {
    const url = new URL(text, 'http://app.invalid/');
    return url.pathname + url.search + url.hash;
  } catch {
    return undefined;
  }
}
