import { z } from 'zod';
import { link, name, text, value } from '../schema-parts.ts';
import { when } from './when.ts';

/** A form's name, which tells the service which of a page's forms was sent. */
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
export type FormFieldDefinition = z.infer<typeof formField>;

export const form = z.strictObject({
  show: z.literal('form'),
  name: formName,
  label: text.describe('What the form is for'),
  action: z.enum(['create', 'change', 'remove']),
  collection: name.optional().describe('To create: the collection that gets the record'),
  bind: name.optional().describe('To change or remove: the record parameter that names the record'),
  fields: z.array(formField).optional(),
  set: setValues,
  submit: text.optional().describe('What the button says'),
  mail: name.optional().describe('The mail that is sent when the form has been saved'),
  then: link.optional().describe('Where the form leads afterwards; to the same page when left out, without the record if it was removed'),
  when,
});

export const ask = z.strictObject({
  show: z.literal('ask'),
  label: text.describe('What is asked for'),
  page: name.describe('The page that the answers are sent to'),
  boxes: z.array(name).min(1).describe('Parameters of that page, each of which gets a box'),
  values: z.record(name, value).optional().describe('Values for other parameters of that page'),
  submit: text.optional().describe('What the button says'),
  when,
});

export const signUp = z.strictObject({
  show: z.literal('sign-up'),
  loginLabel: text.optional().describe('Label of the field for the name to sign in with'),
  nameLabel: text.optional().describe('Label of the field for the name that others see'),
  password: text.optional().describe('Label of the field for the password'),
  submit: text.optional().describe('What the button says'),
  when,
});

export const signIn = z.strictObject({
  show: z.literal('sign-in'),
  loginLabel: text.optional().describe('Label of the field for the name'),
  password: text.optional().describe('Label of the field for the password'),
  submit: text.optional().describe('What the button says'),
  mail: text.optional().describe('Label of the field for the mail address, where the app lets people come in by mail'),
  mailButton: text.optional().describe('What the button says that asks for such a mail'),
  when,
});
