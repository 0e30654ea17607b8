import { shortMark } from '../short-mark.ts';
import { fieldText } from './field-value.ts';

/**
 * A short mark of some fields of a record: two marks differ where a field does. A form carries it, so that the service
 * notices when another person has changed the record meanwhile.
 */
export function markOf(record: Record<string, unknown>, fields: readonly string[], keyOf: (field: string) => string | undefined): string {
  const texts = fields.map((field) => {
    const key = keyOf(field);
    return `${field}\u0000${fieldText(record[field], key === undefined ? undefined : { keyField: key })}\u0000`;
  });
  return shortMark(texts.join(''));
}
