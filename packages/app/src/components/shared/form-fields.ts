import { z } from 'zod';
import { name, text, value } from '../../definition/schema-parts.ts';
import type { Path, References } from '../references.ts';

/** A form’s name, which tells the service which of a page’s forms was sent. */
export const formName = name.describe('Name of the form, unlike any other on the page');

/** Fields that nobody types: settled by the service when the form is sent. */
export const setValues = z.record(name, value).optional().describe('Fields that are not typed but set, by name');
export type SetValues = z.infer<typeof setValues>;

/** A field that a form shows. */
export const formField = z.union([
  name,
  z.strictObject({
    field: name,
    label: text.optional(),
    help: text.optional(),
    lines: z.number().int().min(1).max(40).optional().describe('For a long text: how many lines the box has'),
    value: value.optional().describe('What stands in it at first, in a form that creates'),
  }),
]);
export type FormFieldDefinition = z.infer<typeof formField>;

/** What to say when a form is saved. */
export const done = text.optional().describe('What to say when it is saved, “Saved.” when left out; an empty text says nothing');

/** What a form’s fields, and the values that it sets, refer to. */
export function referToFormFields(
  references: References,
  path: Path,
  fields: readonly FormFieldDefinition[] | undefined,
  set: SetValues,
  row?: string,
): void {
  for (const [index, field] of (fields ?? []).entries()) {
    if (typeof field === 'string') continue;
    references.text([...path, 'fields', index, 'label'], field.label);
    references.text([...path, 'fields', index, 'help'], field.help);
    if (field.value !== undefined) references.value([...path, 'fields', index, 'value'], field.value);
  }
  for (const [name, given] of Object.entries(set ?? {})) references.value([...path, 'set', name], given, { row, service: true });
}
