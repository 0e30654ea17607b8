import type { PageMaterial, ShowTools } from '@pallmist/core/view';
import { parameterTypes } from '@pallmist/core/address';
import { hydrate } from 'svelte';
import Page from '../Page.svelte';
import { TakenPage } from './taken-page.svelte.ts';

const material = JSON.parse(document.getElementById('material')?.textContent ?? 'null') as PageMaterial | null;
const target = document.getElementById('page');
if (material !== null && target !== null) {
  // What few pages need is fetched by those only, before the page is taken over.
  const [cel, packed] = await Promise.all([
    material.cel ? import('@pallmist/core/cel') : undefined,
    material.packed ? import('@pallmist/core/packed') : undefined,
  ]);
  const tools: ShowTools = {
    cel: cel?.evaluateCel ?? (() => undefined),
    types: packed ? { ...parameterTypes, packed: packed.packed } : parameterTypes,
  };
  const live = new TakenPage(material, tools);
  hydrate(Page, { target, props: { live } });
  live.take();
}
