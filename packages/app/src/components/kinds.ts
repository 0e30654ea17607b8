import type { Component } from '../definition/app-definition.ts';
import { ask } from './ask/definition.ts';
import { back } from './back/definition.ts';
import { block } from './block/definition.ts';
import { checkboxes } from './checkboxes/definition.ts';
import { columns } from './columns/definition.ts';
import { details } from './details/definition.ts';
import { dialog } from './dialog/definition.ts';
import { drawing } from './drawing/definition.ts';
import { filters } from './filters/definition.ts';
import { form } from './form/definition.ts';
import { heading } from './heading/definition.ts';
import { image } from './image/definition.ts';
import { input } from './input/definition.ts';
import { barChart } from './bar-chart/definition.ts';
import type { ComponentKind } from './kind.ts';
import { language } from './language/definition.ts';
import { leadOn } from './lead-on/definition.ts';
import { link } from './link/definition.ts';
import { list } from './list/definition.ts';
import { navigation } from './navigation/definition.ts';
import { notice } from './notice/definition.ts';
import { pager } from './pager/definition.ts';
import { panel } from './panel/definition.ts';
import { radio } from './radio/definition.ts';
import { search } from './search/definition.ts';
import { select } from './select/definition.ts';
import { share } from './share/definition.ts';
import { signIn } from './sign-in/definition.ts';
import { signUp } from './sign-up/definition.ts';
import { siteLink } from './site-link/definition.ts';
import { table } from './table/definition.ts';
import { tabs } from './tabs/definition.ts';
import { text } from './text/definition.ts';
import { toggle } from './toggle/definition.ts';
import { views } from './views/definition.ts';

/** Every kind of component, in the order of the guide. */
const all = [
  heading,
  text,
  notice,
  image,
  link,
  siteLink,
  leadOn,
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
  drawing,
  filters,
  panel,
  columns,
  block,
  dialog,
  tabs,
  views,
  table,
  list,
  pager,
  details,
  barChart,
  form,
  ask,
  signIn,
  signUp,
] as const;

/** Names of the kinds of components: what `show` may be. */
export type ComponentName = (typeof all)[number]['name'];

export const componentKinds: readonly ComponentKind[] = all;

const byName = new Map<string, ComponentKind>(componentKinds.map((kind) => [kind.name, kind]));

/** The kind of a component; undefined for one that an older or newer Pallmist has made. */
export const kindOf = ({ show }: Component): ComponentKind | undefined => byName.get(show);
