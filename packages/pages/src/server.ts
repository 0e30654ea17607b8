import { showPage, type PagePayload, type ShowTools } from '@pallmist/app/view';
import { render } from 'svelte/server';
import { allRenderers } from './components/all-components.ts';
import { renderers } from './components/renderers.ts';
import { assembleDocument, type Assets } from './document.ts';
import type { LivePage } from './live-page.ts';
import Message from './Message.svelte';
import type { MessagePage } from './message-page.ts';
import Page from './Page.svelte';

export { readAssets, type Assets } from './document.ts';
export type { MessagePage } from './message-page.ts';

Object.assign(renderers, allRenderers);

/** Draws a page to a whole HTML document, with its payload enclosed for the browser to take over. */
export function renderPage(payload: PagePayload, tools: ShowTools, assets: Assets, base: string): string {
  const shown = showPage(payload, tools);
  const nothing = () => undefined;
  const live: LivePage = {
    shown,
    name: payload.name,
    busy: false,
    failure: undefined,
    hydrated: false,
    saves: 0,
    answers: 0,
    said: payload.said,
    announced: '',
    mayLeave: () => true,
    change: nothing,
    enter: nothing,
    open: nothing,
    send: nothing,
    goBack: () => false,
    retry: nothing,
  };
  const { head, body } = render(Page, { props: { live } });
  return assembleDocument({
    title: `${shown.title} · ${shown.appTitle}`,
    head,
    body,
    assets,
    payload,
    // Search engines and chats take whole addresses only.
    canonical: base + shown.address,
    languages: shown.languages().map(({ tag, href }) => ({ tag, href: base + href })),
    description: shown.description,
    // A draft is nobody's find.
    robots: shown.draft ? 'noindex, nofollow' : shown.robots,
    share: { title: shown.title, site: shown.appTitle },
    language: shown.language,
  });
}

/** Draws a page that says what went wrong. */
export function renderMessage(message: MessagePage, assets: Assets): string {
  const { body } = render(Message, { props: { message } });
  return assembleDocument({ title: `${message.title} · ${message.appTitle}`, body, assets, language: message.language });
}
