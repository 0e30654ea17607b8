import { Refusal } from '@pallmist/address/pages';
import type { FieldDefinition } from '../definition/app-definition.ts';
import { evaluateCel } from '../expressions/cel.ts';
import { Evaluator, type ScopeTypes } from '../expressions/evaluator.ts';
import { fieldsType } from '../expressions/page-scope.ts';
import { fieldReader, fieldText, type PlainRecord } from './field-value.ts';

/** The fields of a collection, as far as computing needs them. */
export type ComputableFields = Readonly<Record<string, Pick<FieldDefinition, 'type' | 'computed'>>>;

/** What the expression of a computed field may name: `row` with the record's own fields that are not computed; a reference is a key. */
export function computedScopeTypes(fields: ComputableFields): ScopeTypes {
  const plain = Object.fromEntries(Object.entries(fields).filter(([, { computed }]) => computed === undefined));
  return { row: fieldsType(plain) };
}

/**
 * The values of the computed fields of a record. They depend on the record alone, so the service computes them when it saves
 * the record, and sorts and searches by them like by any other field.
 * @returns a value for each computed field; `undefined` where something it needs is missing, or the result is not of its type
 */
export function computeFields(fields: ComputableFields, record: PlainRecord): PlainRecord {
  const computed = Object.entries(fields).filter(([, field]) => field.computed !== undefined);
  if (computed.length === 0) return {};
  const row = Object.fromEntries(Object.entries(record).filter(([name, value]) => value !== undefined && !fields[name]?.computed));
  const evaluator = new Evaluator({ row }, computedScopeTypes(fields), evaluateCel);
  return Object.fromEntries(
    computed.map(([name, { type, computed: expression = '' }]) => {
      const text = fieldText(evaluator.expression(expression));
      const value = text === '' ? undefined : fieldReader({}, { type })(text);
      return [name, value instanceof Refusal ? undefined : value];
    }),
  );
}
