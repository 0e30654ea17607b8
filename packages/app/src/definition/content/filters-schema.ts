import { z } from 'zod';
import { name, text } from '../schema-parts.ts';
import { when } from './when.ts';

export const search = z.strictObject({
  show: z.literal('search'),
  bind: name.describe('The text parameter that holds what is searched for'),
  label: text,
  placeholder: text.optional().describe('An example, shown while the box is empty'),
  when,
});

const oneOfSeveral = {
  bind: name.describe('A choice or record parameter'),
  label: text,
  anyLabel: text.optional().describe('What stands for no choice; “Any” when left out'),
  when,
};

export const select = z.strictObject({ show: z.literal('select'), ...oneOfSeveral });

export const radio = z.strictObject({ show: z.literal('radio'), ...oneOfSeveral });

export const checkboxes = z.strictObject({
  show: z.literal('checkboxes'),
  bind: name.describe('A list of a choice or of a record'),
  label: text,
  when,
});

export const toggle = z.strictObject({ show: z.literal('toggle'), bind: name.describe('A boolean parameter'), label: text, when });

export const input = z.strictObject({
  show: z.literal('input'),
  bind: name.describe('A text, date, integer or number, a range (two boxes), or a list of them (a box for each item)'),
  label: text,
  when,
});
