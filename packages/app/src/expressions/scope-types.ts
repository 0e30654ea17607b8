import { Optional } from '@marcbachmann/cel-js';

/**
 * The type of a value in an expression, in the few kinds that Pallmist has. Objects list their fields.
 * `int` is a BigInt inside CEL and a number outside; it is converted here and nowhere else.
 */
export type ScopeType = 'string' | 'int' | 'double' | 'bool' | 'dyn' | { list: ScopeType } | { fields: Record<string, ScopeType> };

/** Converts a plain value to what CEL works with. Absent fields stay away, so that `has()` is false for them. */
export function toCel(value: unknown, type: ScopeType | undefined): unknown {
  if (typeof value === 'number') return type === 'int' && Number.isInteger(value) ? BigInt(value) : value;
  if (Array.isArray(value)) {
    const item = typeof type === 'object' && 'list' in type ? type.list : undefined;
    return value.map((entry) => toCel(entry, item));
  }
  if (typeof value !== 'object' || value === null) return value;
  const fields = typeof type === 'object' && 'fields' in type ? type.fields : undefined;
  const converted: Record<string, unknown> = {};
  for (const [key, entry] of Object.entries(value)) {
    if (entry !== undefined && entry !== null) converted[key] = toCel(entry, fields?.[key]);
  }
  return converted;
}

/**
 * Converts a result of CEL back to plain values, such as JSON has. An integer that a number cannot hold exactly (beyond
 * ±(2^53 − 1)), a duration or a type is no such value.
 * @throws RangeError for what is no plain value
 */
export function fromCel(value: unknown): unknown {
  if (typeof value === 'bigint') return exactNumber(value);
  if (typeof value !== 'object' || value === null) return value;
  if (Array.isArray(value)) return value.map(fromCel);
  if (value instanceof Date) return value.toISOString();
  if (value instanceof Optional) return value.hasValue() ? fromCel(value.value()) : undefined;
  if (value instanceof Map) return plainObject([...value].map(([key, entry]): [string, unknown] => [String(key), entry]));
  if (Object.getPrototypeOf(value) === Object.prototype || Object.getPrototypeOf(value) === null) return plainObject(Object.entries(value));
  // CEL’s unsigned integers.
  const primitive: unknown = (value as { valueOf: () => unknown }).valueOf();
  if (typeof primitive === 'bigint') return exactNumber(primitive);
  throw new RangeError('It is no plain value.');
}

const plainObject = (entries: [string, unknown][]) => Object.fromEntries(entries.map(([key, entry]) => [key, fromCel(entry)]));

function exactNumber(value: bigint): number {
  const number = Number(value);
  if (!Number.isSafeInteger(number)) throw new RangeError('The integer is beyond what a number holds exactly.');
  return number;
}
