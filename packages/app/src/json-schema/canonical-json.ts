import type { Json } from '@pallmist/address/declare';

/** Deepest nesting of a packed value. */
const deepest = 40;

/**
 * Writes a JSON value in the one form of RFC 8785 (JSON Canonicalization Scheme): names sorted by UTF-16 code units,
 * numbers as ECMA-262 writes them, no white space.
 * @returns undefined for what JSON cannot say: undefined, functions, infinite numbers, half surrogate pairs, circles
 */
export function canonicalJson(value: unknown, depth = 0): string | undefined {
  if (depth > deepest) return undefined;
  if (value === null || typeof value === 'boolean') return String(value);
  if (typeof value === 'number') return Number.isFinite(value) ? String(value + 0) : undefined;
  if (typeof value === 'string') return value.isWellFormed() ? JSON.stringify(value) : undefined;
  if (Array.isArray(value)) {
    const items = value.map((item) => canonicalJson(item, depth + 1));
    return items.includes(undefined) ? undefined : `[${items.join(',')}]`;
  }
  if (typeof value !== 'object' || Object.getPrototypeOf(value) !== Object.prototype) return undefined;
  const parts: string[] = [];
  // The order of RFC 8785 is that of JavaScript’s own comparison of texts.
  for (const name of Object.keys(value).sort()) {
    const text = canonicalJson((value as Record<string, Json>)[name], depth + 1);
    if (text === undefined || !name.isWellFormed()) return undefined;
    parts.push(`${JSON.stringify(name)}:${text}`);
  }
  return `{${parts.join(',')}}`;
}
