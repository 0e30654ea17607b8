// An address that begins with one “/” and holds only printable ASCII, no backslash and no dot segment is already
// what the WHATWG URL parser would make of it, as far as reading is concerned.
const tidy = /^\/(?!\/)[!-[\]-~]*$/;
const dotSegment = /(?:^|\/)(?:\.|%2e){1,2}(?:[/?#]|$)/i;
const webAddress = /^(?:https?:|\/|$|\?|#)/i;

/**
 * Brings an address into the form path, query, fragment, as the WHATWG URL parser has it.
 * @returns undefined for what is no web address, or is not well-formed Unicode
 */
export function tidyAddress(address: string): string | undefined {
  if (tidy.test(address) && !dotSegment.test(address)) return address;
  const text = address.trim();
  if (!webAddress.test(text) || !text.isWellFormed()) return undefined;
  try {
    const url = new URL(text, 'http://app.invalid/');
    return url.pathname + url.search + url.hash;
  } catch {
    return undefined;
  }
}
