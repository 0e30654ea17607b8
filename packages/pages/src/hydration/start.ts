import type { PagePayload } from '@pallmist/app/view';
import { hydrate } from 'svelte';
import Page from '../Page.svelte';
import { followLinks } from './links.ts';
import { HydratedPage } from './hydrated-page.svelte.ts';
import { toolsFor } from './tools.ts';

const payload = JSON.parse(document.getElementById('payload')?.textContent ?? 'null') as PagePayload | null;
const target = document.getElementById('page');
if (payload !== null && target !== null) {
  const live = new HydratedPage(payload, await toolsFor(payload));
  hydrate(Page, { target, props: { live } });
  live.begin();
  followLinks(target, live);
  if (payload.draft)
    void (window.parent === window
      ? import('./follow-draft.ts').then(({ followDraft }) => {
          followDraft(live);
        })
      : import('./in-console.ts').then(({ connectWithConsole }) => {
          connectWithConsole(live);
        }));
}
