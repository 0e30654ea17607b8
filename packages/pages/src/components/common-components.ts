import Back from './Back.svelte';
import Checkboxes from './Checkboxes.svelte';
import Details from './Details.svelte';
import Dialog from './Dialog.svelte';
import Image from './Image.svelte';
import Link from './Link.svelte';
import Navigation from './Navigation.svelte';
import Pager from './Pager.svelte';
import Panel from './Panel.svelte';
import Radio from './Radio.svelte';
import Search from './Search.svelte';
import Select from './Select.svelte';
import SiteLink from './SiteLink.svelte';
import Table from './Table.svelte';
import Tabs from './Tabs.svelte';
import Text from './Text.svelte';
import Toggle from './Toggle.svelte';
import Views from './Views.svelte';

/** What draws the components that every page may have at once. */
export const commonRenderers = {
  back: Back,
  checkboxes: Checkboxes,
  details: Details,
  dialog: Dialog,
  heading: Text,
  image: Image,
  link: Link,
  navigation: Navigation,
  notice: Text,
  pager: Pager,
  panel: Panel,
  radio: Radio,
  search: Search,
  select: Select,
  'site-link': SiteLink,
  table: Table,
  tabs: Tabs,
  text: Text,
  toggle: Toggle,
  views: Views,
};
