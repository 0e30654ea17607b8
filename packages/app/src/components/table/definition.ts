import { z } from 'zod';
import { link, name, orExpression, path, text } from '../../definition/schema-parts.ts';
import { fieldName } from '../../records/plan-save.ts';
import { componentKind } from '../component-kind.ts';
import { done, formField, formName, setValues } from '../shared/form-field-schemas.ts';
import { referToFormFields } from '../shared/form-fields.ts';
import { checkTable } from './check.ts';
import { rowForm } from './row-form.ts';

const column = z.strictObject({
  field: path.optional().describe('A field of the collection, or of a record that it refers to: house.name'),
  text: text.optional().describe('What the cell says, instead of the field'),
  to: link.optional().describe('Where the cell leads'),
  label: text.optional(),
  align: orExpression(z.enum(['start', 'end']))
    .optional()
    .describe('Where the column’s texts stand; numbers at the end when left out'),
});

const editInPlace = z.strictObject({
  bind: name.describe('The record parameter that names the row being edited'),
  name: formName,
  fields: z.array(formField).min(1),
  set: setValues,
  submit: text.optional().describe('What the button says; “Save” when left out'),
  done,
});

export const table = componentKind({
  name: 'table',
  label: 'Table',
  sentence: 'Lists rows in columns; headings can sort, rows can lead somewhere, be ticked, or be edited in place.',
  example: {
    rows: 'found',
    label: 'Specimens',
    columns: [{ field: 'name' }, { field: 'house.name', label: 'House' }],
    bind: { sort: 'sort' },
    link: { page: 'specimen', values: { specimen: '{row.accession}' } },
    empty: 'No specimen fits.',
  },
  fields: {
    rows: name.describe('The rows of the page that are shown'),
    label: text.describe('What the table lists'),
    columns: z.array(column).min(1),
    bind: z
      .strictObject({
        sort: name.optional().describe('The sort parameter that its headings change'),
        tick: name.optional().describe('A list of records that holds the ticked rows'),
      })
      .optional()
      .describe('What the table keeps in the address'),
    link: link.optional().describe('Where a row leads'),
    narrow: z
      .enum(['scroll', 'cards'])
      .optional()
      .describe('In a narrow window: the table scrolls (the default), or each row becomes a card'),
    edit: editInPlace.optional().describe('Edits one row in its place'),
    empty: text.optional().describe('The text to show when there are no rows'),
    beforeSearch: text.optional().describe('The text to show before a search'),
  },
  refersTo(component, references) {
    const { rows: row, edit, columns } = component;
    references.textsOf(component, ['label', 'empty', 'beforeSearch']);
    references.bind(['bind', 'tick'], component.bind?.tick, ['list']);
    references.bind(['bind', 'sort'], component.bind?.sort, ['sort']);
    if (edit) {
      references.bind(['edit', 'bind'], edit.bind, ['record']);
      references.text(['edit', 'submit'], edit.submit);
      references.text(['edit', 'done'], edit.done, { saved: true, service: true });
      referToFormFields(references, ['edit'], edit.fields, edit.set, row);
      // The edited row is shown even if it is on another page of the list.
      const first = columns[0]?.field;
      references.shown('record', edit.bind, [...edit.fields.map(fieldName), ...(first === undefined ? [] : [first])]);
    }
    references.rowsOf(row);
    references.shown(
      'rows',
      row,
      columns.flatMap(({ field }) => (field === undefined ? [] : [field])),
    );
    references.link(['link'], component.link, { row });
    for (const [index, { text: cell, label, to, align }] of columns.entries()) {
      references.setting(['columns', index, 'align'], align, 'text');
      references.text(['columns', index, 'text'], cell, { row });
      references.text(['columns', index, 'label'], label);
      references.link(['columns', index, 'to'], to, { row });
    }
  },
  check: checkTable,
  form: ({ edit, rows }, page) => edit && rowForm(edit, page.rows?.[rows]?.from),
  toSend({ edit, ...component }) {
    if (edit === undefined) return component;
    const { set: _, done: __, ...sent } = edit;
    return { ...component, edit: sent };
  },
});
