import type { SavingForm } from '../kind.ts';
import type { FormFieldDefinition, SetValues } from '../../definition/app-definition.ts';

interface EditInPlace {
  bind: string;
  name: string;
  fields: readonly FormFieldDefinition[];
  set?: SetValues;
  done?: string | undefined;
}

/** The form in which a row is edited. */
export const rowForm = ({ bind, name, fields, set, done }: EditInPlace, collection: string | undefined): SavingForm => ({
  name,
  action: 'change',
  collection,
  parameter: bind,
  fields,
  set,
  inRow: true,
  done,
});
