import BarChart from './BarChart.svelte';
import Input from './Input.svelte';
import Language from './Language.svelte';
import List from './List.svelte';
import { renderers } from './renderers.ts';
import Share from './Share.svelte';

export { lazyShows } from '@pallmist/app/lazy-shows';

/** What stands on few pages. */
export const lazyRenderers = {
  'bar-chart': BarChart,
  input: Input,
  language: Language,
  list: List,
  share: Share,
};

Object.assign(renderers, lazyRenderers);
