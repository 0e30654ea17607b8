/** Longest mail address, in characters (RFC 5321, 4.5.3.1). */
const longest = 254;
const longestLocal = 64;

/** One part of a local part or a domain: anything but what parts addresses, names, comments and lines from one another. */
const part = /^[^\s\p{Cc}\p{Cf}@<>()[\],;:"\\.]+$/u;

/**
 * A text as exactly one mail address (RFC 5321; letters beyond ASCII as in RFC 6531): no name beside it, no list, no line break.
 * @returns the address; undefined for anything else
 */
export function mailAddress(text: string): string | undefined {
  const address = text.trim();
  const at = address.indexOf('@');
  const [local, domain] = [address.slice(0, at), address.slice(at + 1)];
  if (at < 1 || at > longestLocal || address.length > longest) return undefined;
  const labels = domain.split('.');
  const right = local.split('.').every((one) => part.test(one)) && labels.length > 1 && labels.every((one) => part.test(one));
  return right ? address : undefined;
}
