import { suggest } from '@pallmist/address/explain';
import { Refusal } from '@pallmist/address/pages';
import { type CheckContext, type Place, report } from '../../definition/check/context.ts';
import { fixName } from '../../definition/check/fix-name.ts';
import { fieldReader } from '../../records/field-value.ts';
import { fieldName } from '../../records/plan-save.ts';
import type { ComponentPlace, SavingForm } from '../kind.ts';

/** Notes a form’s name: the service finds the form that was sent by it. */
export function takeFormName({ context, formNames }: ComponentPlace, at: Place, name: string): void {
  if (formNames.has(name))
    report(context, at, {
      code: 'form-name-taken',
      message: `Another form of the page is called “${name}”.`,
      hint: 'Give each its own name.',
    });
  formNames.add(name);
}

/** The fields that a form shows and sets are there, and can be what they are set to. */
export function checkFormFields(context: CheckContext, at: Place, { collection, fields, set }: SavingForm): void {
  const declared = context.definition.collections?.[collection ?? '']?.fields;
  if (declared === undefined) return;
  const need = (place: Place, name: string) => {
    if (declared[name]?.computed !== undefined)
      report(context, place, {
        code: 'computed-in-form',
        message: `“${name}” is computed, so nobody fills it in.`,
        hint: 'Remove it from the form. A text or a table can show it.',
      });
    if (Object.hasOwn(declared, name)) return true;
    report(context, place, {
      code: 'unknown-field',
      message: `The collection “${collection ?? ''}” has no field “${name}”.`,
      hint: suggest(name, Object.keys(declared)),
      ...fixName(place, name, Object.keys(declared)),
    });
    return false;
  };
  for (const [index, field] of fields.entries())
    need(typeof field === 'string' ? [...at, 'fields', index] : [...at, 'fields', index, 'field'], fieldName(field));
  for (const [name, value] of Object.entries(set ?? {})) {
    const field = declared[name];
    if (!need([...at, 'set', name], name) || field === undefined || (typeof value === 'string' && value.includes('{'))) continue;
    // A field that is wrong itself has its own problem.
    const known = field.type !== 'choice' || Object.hasOwn(context.definition.choices ?? {}, field.of ?? '');
    const read = known && field.type !== 'record' ? fieldReader(context.definition, field)(String(value)) : undefined;
    if (read instanceof Refusal)
      report(context, [...at, 'set', name], {
        code: 'wrong-value',
        message: `“${name}” cannot be ${JSON.stringify(value)}: ${read.message}`,
      });
  }
}
