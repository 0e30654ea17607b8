import { z } from 'zod';
import { checkboxes, input, radio, search, select, toggle } from './content/filters-schema.ts';
import { ask, form, signIn, signUp } from './content/forms-schema.ts';
import { details, list, pager, table } from './content/lists-schema.ts';
import { anchor, back, heading, image, language, navigation, notice, paragraph, share, siteLink } from './content/plain-schema.ts';
import { when } from './content/when.ts';
import { name, text } from './schema-parts.ts';

const tabs = z.strictObject({
  show: z.literal('tabs'),
  bind: name.describe('A choice parameter with a default'),
  label: text.describe('What the tabs are about, for those who do not see them'),
  get panes() {
    return z.record(name, z.array(component)).describe('What is shown for each choice');
  },
  when,
});

const views = z.strictObject({
  show: z.literal('views'),
  bind: name.describe('A choice parameter; a navigation bound to it is the menu'),
  get panes() {
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

const dialog = z.strictObject({
  show: z.literal('dialog'),
  bind: name.describe('The parameter that opens it: a record, or a boolean that is true; closing takes it out of the address'),
  label: text.describe('Its heading'),
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
  image,
  anchor,
  siteLink,
  navigation,
  back,
  share,
  language,
  search,
  select,
  radio,
  checkboxes,
  toggle,
  input,
  panel,
  dialog,
  tabs,
  views,
  table,
  list,
  pager,
  details,
  form,
  ask,
  signIn,
  signUp,
]);

export type ComponentDefinition = z.infer<typeof component>;
export type ComponentOf<Show extends ComponentDefinition['show']> = Extract<ComponentDefinition, { show: Show }>;
