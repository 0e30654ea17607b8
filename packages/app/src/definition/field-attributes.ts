import type { FieldDefinition } from './app-definition.ts';

type FieldType = FieldDefinition['type'];

/** The attributes of fields that say something about some types alone, with these types. */
export const fieldAttributes = {
  of: ['choice', 'record'],
  pattern: ['text'],
  maxLength: ['text'],
  min: ['integer', 'number', 'date'],
  max: ['integer', 'number', 'date'],
  serial: ['text'],
  autocomplete: ['text', 'integer', 'number', 'date', 'choice'],
  accept: ['file'],
  maxKilobytes: ['file'],
} as const satisfies Partial<Record<keyof FieldDefinition, readonly FieldType[]>>;
