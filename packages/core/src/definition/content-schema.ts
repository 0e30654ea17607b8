import { z } from 'zod';
import { condition, link, name, text } from './schema-parts.ts';

const when = condition.optional().describe('Shown only while this holds');

const heading = z.strictObject({
  show: z.literal('heading'),
  text,
  level: z.number().int().min(1).max(4).optional().describe('1 is the page’s own heading, the rule 2'),
  when,
});

const paragraph = z.strictObject({ show: z.literal('text'), text, when });

const notice = z.strictObject({
  show: z.literal('notice'),
  text,
  tone: z.enum(['plain', 'good', 'warning']).optional(),
  when,
});

const anchor = z.strictObject({ show: z.literal('link'), text, to: link, when });

const navigation = z.strictObject({
  show: z.literal('navigation'),
  label: text.optional().describe('What the links have in common, for those who do not see them'),
  links: z.array(z.strictObject({ text, to: link })).min(1),
  when,
});

const search = z.strictObject({
  show: z.literal('search'),
  bind: name.describe('The text parameter that holds what is searched for'),
  label: text,
  hint: text.optional().describe('An example, shown while the box is empty'),
  when,
});

const select = z.strictObject({
  show: z.literal('select'),
  bind: name.describe('A choice or record parameter'),
  label: text,
  anything: text.optional().describe('What stands for no choice; the rule is “Any”'),
  when,
});

const choices = z.strictObject({
  show: z.literal('choices'),
  bind: name.describe('A list of a choice or of a record'),
  label: text,
  when,
});

const toggle = z.strictObject({ show: z.literal('toggle'), bind: name.describe('A boolean parameter'), label: text, when });

const input = z.strictObject({
  show: z.literal('input'),
  bind: name.describe('A date, integer or number parameter'),
  label: text,
  when,
});

const column = z.strictObject({
  field: name.optional().describe('A field of the read’s collection'),
  text: text.optional().describe('What the cell says, instead of the field'),
  label: text.optional(),
  align: z.enum(['start', 'end']).optional(),
});

const table = z.strictObject({
  show: z.literal('table'),
  rows: name.describe('The read whose records are shown'),
  label: text.describe('What the table lists'),
  columns: z.array(column).min(1),
  sort: name.optional().describe('The sort parameter that its headings change'),
  link: link.optional().describe('Where a row leads'),
  empty: text.optional().describe('What to say when there is nothing'),
  when,
});

const pager = z.strictObject({
  show: z.literal('pager'),
  rows: name.describe('The read whose pages are turned'),
  bind: name.describe('The integer parameter that holds the page’s number, from 1'),
  when,
});

const details = z.strictObject({
  show: z.literal('details'),
  record: name.describe('The record parameter whose record is shown'),
  fields: z.array(z.union([name, z.strictObject({ label: text, text, to: link.optional() })])).min(1),
  when,
});

const signIn = z.strictObject({
  show: z.literal('sign-in'),
  name: text.optional().describe('Label of the field for the name'),
  password: text.optional().describe('Label of the field for the password'),
  button: text.optional(),
  when,
});

const tabs = z.strictObject({
  show: z.literal('tabs'),
  bind: name.describe('A choice parameter with a default'),
  label: text.describe('What the tabs are about, for those who do not see them'),
  get views() {
    return z.record(name, z.array(component)).describe('What is shown for each choice');
  },
  when,
});

const panel = z.strictObject({
  show: z.literal('panel'),
  label: text.optional().describe('Its heading'),
  get content() {
    return z.array(component);
  },
  when,
});

/** One component of a page. A new component is a schema here, a file in `view/`, and a Svelte file in pages. */
export const component = z.discriminatedUnion('show', [
  heading,
  paragraph,
  notice,
  anchor,
  navigation,
  search,
  select,
  choices,
  toggle,
  input,
  panel,
  tabs,
  table,
  pager,
  details,
  signIn,
]);

export type ComponentDefinition = z.infer<typeof component>;
export type ComponentOf<Show extends ComponentDefinition['show']> = Extract<ComponentDefinition, { show: Show }>;
