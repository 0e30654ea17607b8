/** The prime of 64-bit FNV is 2 to the power of 40, and this. */
const rest = 0x1b3;

/**
 * A short mark of a text (FNV-1a, 64 bits, in hexadecimal): equal texts have equal marks. It keeps nothing secret.
 * The hash is kept as two halves of 32 bits: BigInt would be many times slower.
 */
export function shortMark(text: string): string {
  let high = 0xcbf29ce4 | 0;
  let low = 0x84222325 | 0;
  const bytes = new TextEncoder().encode(text);
  for (let index = 0; index < bytes.length; index++) {
    low ^= bytes[index] ?? 0;
    // What a multiplication of the low half carries into the high one, in parts of 16 bits.
    const carry = ((low >>> 16) * rest + (((low & 0xffff) * rest) >>> 16)) >>> 16;
    high = (Math.imul(high, rest) + carry + (low << 8)) | 0;
    low = Math.imul(low, rest);
  }
  return [high, low].map((part) => (part >>> 0).toString(16).padStart(8, '0')).join('');
}
