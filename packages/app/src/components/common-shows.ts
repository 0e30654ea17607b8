import { show as back } from './back/show.ts';
import { show as checkboxes } from './checkboxes/show.ts';
import { show as details } from './details/show.ts';
import { show as dialog } from './dialog/show.ts';
import { show as heading } from './heading/show.ts';
import { show as image } from './image/show.ts';
import { show as link } from './link/show.ts';
import { show as navigation } from './navigation/show.ts';
import { show as notice } from './notice/show.ts';
import { show as pager } from './pager/show.ts';
import { show as panel } from './panel/show.ts';
import { show as radio } from './radio/show.ts';
import { show as search } from './search/show.ts';
import { show as select } from './select/show.ts';
import { show as siteLink } from './site-link/show.ts';
import { show as table } from './table/show.ts';
import { show as tabs } from './tabs/show.ts';
import { show as text } from './text/show.ts';
import { show as toggle } from './toggle/show.ts';
import { show as views } from './views/show.ts';

/** How the components are shown that every page may have at once. */
export const commonShows = {
  back,
  checkboxes,
  details,
  dialog,
  heading,
  image,
  link,
  navigation,
  notice,
  pager,
  panel,
  radio,
  search,
  select,
  'site-link': siteLink,
  table,
  tabs,
  text,
  toggle,
  views,
};
