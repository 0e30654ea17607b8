import { toPointer, withArticle } from '@pallmist/address/declare';
import { computedScopeTypes } from '../../records/computed.ts';
import type { CollectionDefinition, FieldDefinition } from '../app-definition.ts';
import { report, type CheckContext, type Place } from './context.ts';
import { ScopeCheck } from './expressions.ts';

/** The CEL types that a computed field of each type takes. */
const fitting: Partial<Record<FieldDefinition['type'], readonly string[]>> = {
  text: ['string', 'dyn'],
  date: ['string', 'dyn'],
  integer: ['int', 'dyn'],
  number: ['double', 'int', 'dyn'],
  boolean: ['bool', 'dyn'],
};

/** Attributes that are about what people fill in. */
const ofInput = ['required', 'unique', 'serial', 'pattern', 'maxLength', 'min', 'max', 'autocomplete'] as const;

/** Computed fields: an expression of the field's type, of the record's own fields, that nothing sensitive leaks through. */
export function checkComputed(context: CheckContext, place: Place, { fields, keyField }: CollectionDefinition): void {
  let scope: ScopeCheck | undefined;
  for (const [name, field] of Object.entries(fields)) {
    const { computed, type } = field;
    if (computed === undefined) continue;
    const at = [...place, 'fields', name];
    const wanted = fitting[type];
    if (wanted === undefined) {
      report(context, [...at, 'type'], {
        code: 'computed-type',
        message: `The field “${name}” is computed, and cannot be ${withArticle(type)}.`,
        hint: `A computed field is one of ${Object.keys(fitting).join(', ')}.`,
      });
    }
    if (name === keyField) {
      report(context, [...at, 'computed'], {
        code: 'computed-key',
        message: `The key “${name}” is computed, so it would change with other fields, and addresses with it.`,
        hint: 'Choose a field that people fill in, or a serial field, as the key.',
      });
    }
    for (const attribute of ofInput) {
      if (field[attribute] === undefined) continue;
      report(context, [...at, attribute], {
        code: 'attribute-without-effect',
        message: `“${attribute}” says nothing about a computed field.`,
        hint: 'Remove it.',
        fix: [{ op: 'remove', path: toPointer([...at, attribute]) }],
      });
    }
    scope ??= new ScopeCheck(context, computedScopeTypes(fields));
    const given = scope.expression([...at, 'computed'], computed);
    if (given !== undefined && wanted !== undefined && !wanted.includes(given)) {
      report(context, [...at, 'computed'], {
        code: 'computed-other-type',
        message: `“${name}” is ${withArticle(type)}, and its expression gives ${withArticle(given)}.`,
        hint: 'Change the type, or convert the result: int(…), double(…) or string(…).',
      });
    }
    checkSecret(context, at, computed, fields);
  }
}

/** What is computed from a sensitive field is sensitive too. */
function checkSecret(context: CheckContext, at: Place, computed: string, fields: CollectionDefinition['fields']): void {
  const name = String(at.at(-1));
  if (fields[name]?.sensitive === true) return;
  const [, secret] = [...computed.matchAll(/\brow\.\??([A-Za-z_]\w*)/g)].find(([, of = '']) => fields[of]?.sensitive === true) ?? [];
  if (secret === undefined) return;
  report(context, [...at, 'computed'], {
    code: 'computed-sensitive',
    message: `“${name}” is computed from “${secret}”, which is sensitive.`,
    hint: `Add “sensitive: true” to “${name}”, or compute it from other fields.`,
    fix: [{ op: 'add', path: toPointer([...at, 'sensitive']), value: true }],
  });
}
