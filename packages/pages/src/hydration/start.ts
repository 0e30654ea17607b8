import type { PageMaterial } from '@pallmist/app/view';
import { hydrate } from 'svelte';
import Page from '../Page.svelte';
import { followLinks } from './links.ts';
import { HydratedPage } from './hydrated-page.svelte.ts';
import { toolsFor } from './tools.ts';

const material = JSON.parse(document.getElementById('material')?.textContent ?? 'null') as PageMaterial | null;
const target = document.getElementById('page');
if (material !== null && target !== null) {
  const live = new HydratedPage(material, await toolsFor(material));
  hydrate(Page, { target, props: { live } });
  live.begin();
  followLinks(target, live);
}
