import { z } from 'zod';
import { name, text, value } from '../../definition/schema-parts.ts';

/** A form’s name, which tells the service which of a page’s forms was sent. */
export const formName = name.describe('Name of the form, unlike any other on the page');

/** Fields that nobody types: settled by the service when the form is sent. */
export const setValues = z.record(name, value).optional().describe('Fields that are not typed but set, by name');

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

/** What to say when a form is saved. */
export const done = text.optional().describe('What to say when it is saved, “Saved.” when left out; an empty text says nothing');
