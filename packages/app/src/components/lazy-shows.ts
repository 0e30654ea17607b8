import { show as barChart } from './bar-chart/show.ts';
import { show as block } from './block/show.ts';
import { show as columns } from './columns/show.ts';
import { show as drawing } from './drawing/show.ts';
import { show as input } from './input/show.ts';
import { show as language } from './language/show.ts';
import { show as leadOn } from './lead-on/show.ts';
import { show as list } from './list/show.ts';
import { show as share } from './share/show.ts';

/** How the components are shown that stand on few pages: a part by itself. */
export const lazyShows = {
  'bar-chart': barChart,
  block,
  columns,
  drawing,
  input,
  language,
  'lead-on': leadOn,
  list,
  share,
};
