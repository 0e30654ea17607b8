import type { FieldDefinition, FieldValue, PlainValue } from '@pallmist/app';
import { fold } from '../fold.ts';
import type { FieldColumn } from './record-tables.ts';
import type { Bound } from './remembered-queries.ts';

/** What the columns of a field hold for a value. */
export function storedValues({ folded }: Pick<FieldColumn, 'folded'>, value: PlainValue | undefined): Bound[] {
  const stored = value === undefined ? null : typeof value === 'boolean' ? Number(value) : value;
  return folded === undefined ? [stored] : [stored, typeof stored === 'string' ? fold(stored) : stored];
}

/** The value that a column holds, of the type that the field has now. */
export function valueOf({ type }: Pick<FieldDefinition, 'type'>, stored: unknown): (FieldValue & PlainValue) | undefined {
  if (stored === null || stored === undefined) return undefined;
  if (type === 'boolean') return Boolean(stored);
  if (type === 'integer' || type === 'number') {
    const value = Number(stored);
    // A text of a former type that is no number: the check of the draft tells of it.
    return Number.isNaN(value) ? undefined : value;
  }
  return typeof stored === 'string' ? stored : JSON.stringify(stored);
}
