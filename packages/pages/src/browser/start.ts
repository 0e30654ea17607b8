import type { EvaluateCel, PageMaterial } from '@pallmist/core/view';
import { hydrate } from 'svelte';
import Page from '../Page.svelte';
import { TakenPage } from './taken-page.svelte.ts';

const material = JSON.parse(document.getElementById('material')?.textContent ?? 'null') as PageMaterial | null;
const target = document.getElementById('page');
if (material !== null && target !== null) {
  // Expressions that only follow fields need no engine; the others fetch it before the page is taken over.
  const cel: EvaluateCel = material.cel ? (await import('@pallmist/core/cel')).evaluateCel : () => undefined;
  const live = new TakenPage(material, cel);
  hydrate(Page, { target, props: { live } });
  live.take();
}
