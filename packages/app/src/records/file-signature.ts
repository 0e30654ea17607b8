/** How files of a media type begin: bytes, at a place. A file that begins otherwise is something else under a wrong name. */
const beginnings = new Map<string, readonly { at: number; bytes: readonly number[] }[]>([
  ['image/png', [{ at: 0, bytes: [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a] }]],
  ['image/jpeg', [{ at: 0, bytes: [0xff, 0xd8, 0xff] }]],
  ['image/gif', [{ at: 0, bytes: [0x47, 0x49, 0x46, 0x38] }]],
  // RIFF, with WEBP after its length.
  ['image/webp', [{ at: 8, bytes: [0x57, 0x45, 0x42, 0x50] }]],
  // A box “ftyp” (ISO/IEC 14496-12).
  ['image/avif', [{ at: 4, bytes: [0x66, 0x74, 0x79, 0x70] }]],
  ['application/pdf', [{ at: 0, bytes: [0x25, 0x50, 0x44, 0x46, 0x2d] }]],
  // With files, or without any.
  ['application/zip', [{ at: 0, bytes: [0x50, 0x4b, 0x03, 0x04] }, { at: 0, bytes: [0x50, 0x4b, 0x05, 0x06] }]],
]); // prettier-ignore

/** Types of texts, in which there is no zero byte. */
const texts = new Set(['text/plain', 'text/csv', 'application/json']);

/** Whether bytes can be a file of a media type; true for a type of which nothing is known. */
export function looksLike(type: string, bytes: Uint8Array): boolean {
  if (texts.has(type)) return !bytes.includes(0);
  if (type === 'image/svg+xml')
    return /^\s*(?:<\?xml|<!--|<!DOCTYPE svg|<svg)/i.test(new TextDecoder().decode(bytes.subarray(0, 200)).replace(/^\ufeff/, ''));
  const known = beginnings.get(type);
  return known === undefined || known.some(({ at, bytes: wanted }) => wanted.every((byte, index) => bytes[at + index] === byte));
}
