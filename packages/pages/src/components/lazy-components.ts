import BarChart from './BarChart.svelte';
import Block from './Block.svelte';
import Columns from './Columns.svelte';
import Drawing from './Drawing.svelte';
import Input from './Input.svelte';
import Language from './Language.svelte';
import LeadOn from './LeadOn.svelte';
import List from './List.svelte';
import { renderers } from './renderers.ts';
import Share from './Share.svelte';

export { lazyShows } from '@pallmist/app/lazy-shows';

/** What stands on few pages. */
export const lazyRenderers = {
  'bar-chart': BarChart,
  block: Block,
  columns: Columns,
  drawing: Drawing,
  input: Input,
  language: Language,
  'lead-on': LeadOn,
  list: List,
  share: Share,
};

Object.assign(renderers, lazyRenderers);
