import { toPointer } from '@pallmist/address/declare';
import { report } from '../../definition/check/context.ts';
import type { ComponentPlace } from '../kind.ts';
import { checkFieldPath } from '../shared/check-field-path.ts';
import { checkFormFields, takeFormName } from '../shared/check-form-fields.ts';
import { rowForm } from './row-form.ts';

interface Table {
  rows: string;
  columns: readonly { field?: string | undefined; text?: string | undefined }[];
  bind?: { tick?: string | undefined } | undefined;
  edit?: Parameters<typeof rowForm>[0] | undefined;
}

/** Columns show something that is there, ticked rows go into a list of their records, and the edited row is one of them. */
export function checkTable({ rows, columns, bind, edit }: Table, place: ComponentPlace): void {
  const { context, at, page } = place;
  const from = page.rows?.[rows]?.from;
  const ticked = page.parameters?.[bind?.tick ?? '']?.items;
  if (ticked && from !== undefined && (ticked.type !== 'record' || ticked.of !== from)) {
    const value = { type: 'record', of: from };
    report(context, [...at, 'bind', 'tick'], {
      code: 'binding-wrong-type',
      message: `“${bind?.tick ?? ''}” is no list of records of “${from}”.`,
      hint: `Make its items { type: record, of: ${from} }.`,
      fix: [{ op: 'replace', path: toPointer([...at.slice(0, 2), 'parameters', bind?.tick ?? '', 'items']), value }],
    });
  }
  for (const [index, { field, text }] of columns.entries()) {
    if (field !== undefined) checkFieldPath(context, [...at, 'columns', index, 'field'], field, from);
    else if (text === undefined)
      report(context, [...at, 'columns', index], {
        code: 'empty-column',
        message: 'The column shows nothing.',
        hint: 'Give it a field or a text.',
      });
  }
  if (edit) checkRowForm(edit, from, place);
}

function checkRowForm(edit: NonNullable<Table['edit']>, from: string | undefined, place: ComponentPlace): void {
  const { context, page } = place;
  const at = [...place.at, 'edit'];
  takeFormName(place, [...at, 'name'], edit.name);
  checkFormFields(context, at, rowForm(edit, from));
  const of = page.parameters?.[edit.bind]?.of;
  if (from === undefined || of === undefined || of === from) return;
  report(context, [...at, 'bind'], {
    code: 'binding-wrong-type',
    message: `“${edit.bind}” is a record of “${of}”, and the rows are of “${from}”.`,
    hint: `Make it a record of “${from}”.`,
  });
}
