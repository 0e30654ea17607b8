import type { PageMaterial } from '@pallmist/app/view';
import { hydrate } from 'svelte';
import Page from '../Page.svelte';
import { takeLinks } from './links.ts';
import { TakenPage } from './taken-page.svelte.ts';
import { toolsFor } from './tools.ts';

const material = JSON.parse(document.getElementById('material')?.textContent ?? 'null') as PageMaterial | null;
const target = document.getElementById('page');
if (material !== null && target !== null) {
  const live = new TakenPage(material, await toolsFor(material));
  hydrate(Page, { target, props: { live } });
  live.take();
  takeLinks(target, live);
}
