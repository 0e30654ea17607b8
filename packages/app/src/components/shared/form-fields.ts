import type { FormFieldDefinition, SetValues } from '../../definition/app-definition.ts';
import type { Path, References } from '../references.ts';

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
