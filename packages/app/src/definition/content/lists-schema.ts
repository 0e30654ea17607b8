import { z } from 'zod';
import { link, name, path, text } from '../schema-parts.ts';
import { formField, formName, setValues } from './forms-schema.ts';
import { when } from './when.ts';

const column = z.strictObject({
  field: path.optional().describe('A field of the collection, or of a record that it refers to: house.name'),
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
  submit: text.optional().describe('What the button says; “Save” when left out'),
});

export const table = z.strictObject({
  show: z.literal('table'),
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
  edit: editInPlace.optional().describe('Edits one row in its place'),
  empty: text.optional().describe('What to say when there is nothing'),
  beforeSearch: text.optional().describe('What to say while nothing is searched for'),
  when,
});

export const list = z.strictObject({
  show: z.literal('list'),
  rows: name.describe('The rows of the page that are shown'),
  label: text.describe('What is listed'),
  text: text.describe('What each entry says first'),
  detail: text.optional().describe('What it says below'),
  image: text.optional().describe('Name of a file in the folder “images” beside the app file'),
  link: link.optional().describe('Where an entry leads'),
  empty: text.optional().describe('What to say when there is nothing'),
  beforeSearch: text.optional().describe('What to say while nothing is searched for'),
  when,
});

export const pager = z.strictObject({
  show: z.literal('pager'),
  rows: name.describe('The rows of the page that it pages through'),
  bind: name.describe('The integer parameter that holds the page’s number, from 1'),
  size: name.optional().describe('The integer parameter that holds how many records a page has'),
  sizes: z.array(z.number().int().min(1).max(500)).min(2).optional().describe('The sizes to choose from'),
  when,
});

export const details = z.strictObject({
  show: z.literal('details'),
  bind: name.describe('The record parameter whose record is shown'),
  fields: z.array(z.union([path, z.strictObject({ label: text, text, to: link.optional() })])).min(1),
  when,
});
