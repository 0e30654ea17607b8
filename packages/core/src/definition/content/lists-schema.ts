import { z } from 'zod';
import { link, name, path, text } from '../schema-parts.ts';
import { formField, formName, setValues } from './forms-schema.ts';
import { when } from './when.ts';

const column = z.strictObject({
  field: path.optional().describe('A field of the read’s collection, or of a record that it refers to: house.name'),
  text: text.optional().describe('What the cell says, instead of the field'),
  to: link.optional().describe('Where the cell leads'),
  label: text.optional(),
  align: z.enum(['start', 'end']).optional(),
});

const editInPlace = z.strictObject({
  bind: name.describe('The record parameter that names the row being edited'),
  name: formName,
  fields: z.array(formField).min(1),
  set: setValues,
  button: text.optional().describe('The rule is “Save”'),
});

export const table = z.strictObject({
  show: z.literal('table'),
  rows: name.describe('The read whose records are shown'),
  label: text.describe('What the table lists'),
  columns: z.array(column).min(1),
  sort: name.optional().describe('The sort parameter that its headings change'),
  link: link.optional().describe('Where a row leads'),
  choose: name.optional().describe('A list of records in which the chosen rows are kept'),
  edit: editInPlace.optional().describe('Edits one row in its place'),
  empty: text.optional().describe('What to say when there is nothing'),
  unasked: text.optional().describe('What to say when nothing was asked for yet'),
  when,
});

export const list = z.strictObject({
  show: z.literal('list'),
  rows: name.describe('The read whose records are shown'),
  label: text.describe('What is listed'),
  text: text.describe('What each entry says first'),
  detail: text.optional().describe('What it says below'),
  picture: text.optional().describe('Name of a file in the folder “files” beside the app file'),
  link: link.optional().describe('Where an entry leads'),
  empty: text.optional().describe('What to say when there is nothing'),
  unasked: text.optional().describe('What to say when nothing was asked for yet'),
  when,
});

export const pager = z.strictObject({
  show: z.literal('pager'),
  rows: name.describe('The read whose pages are turned'),
  bind: name.describe('The integer parameter that holds the page’s number, from 1'),
  size: name.optional().describe('The integer parameter that holds how many records a page has'),
  sizes: z.array(z.number().int().min(1).max(500)).min(2).optional().describe('The sizes to choose from'),
  when,
});

export const details = z.strictObject({
  show: z.literal('details'),
  record: name.describe('The record parameter whose record is shown'),
  fields: z.array(z.union([path, z.strictObject({ label: text, text, to: link.optional() })])).min(1),
  when,
});
