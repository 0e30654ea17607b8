import { fieldTypes } from '../app-schema.ts';
import { fieldAttributes } from '../field-attributes.ts';

const attributes = Object.entries(fieldAttributes) as [string, readonly string[]][];

/** For each type of field, by a JSON Schema: the attributes that say nothing about it, and what it needs. */
export const fieldRules: readonly object[] = fieldTypes.map((type) => ({
  if: { properties: { type: { const: type } }, required: ['type'] },
  then: {
    ...(type === 'choice' || type === 'record' ? { required: ['of'] } : {}),
    properties: Object.fromEntries(attributes.flatMap(([name, types]) => (types.includes(type) ? [] : [[name, false]]))),
  },
}));
