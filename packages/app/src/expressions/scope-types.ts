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

/** Converts a result of CEL back to plain values. */
export function fromCel(value: unknown): unknown {
  if (typeof value === 'bigint') return Number(value);
  if (Array.isArray(value)) return value.map(fromCel);
  return value;
}
