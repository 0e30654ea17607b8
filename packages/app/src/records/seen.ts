import { fieldText } from './field-value.ts';

/**
 * A short mark of some fields of a record (FNV-1a, 64 bits, in hexadecimal): two marks differ where a field does.
 * A form carries it, so that the service notices when another person has changed the record meanwhile.
 */
export function markOf(record: Record<string, unknown>, fields: readonly string[], keyOf: (field: string) => string | undefined): string {
  let hash = 0xcbf29ce484222325n;
  for (const field of fields) {
    const key = keyOf(field);
    const text = fieldText(record[field], key === undefined ? undefined : { keyField: key });
    for (const byte of new TextEncoder().encode(`${field}\u0000${text}\u0000`)) {
      hash = BigInt.asUintN(64, (hash ^ BigInt(byte)) * 0x100000001b3n);
    }
  }
  return hash.toString(16).padStart(16, '0');
}
