import { kindOf, type Component } from '@pallmist/app/editing';
import type { ConsolePage } from '../service/place.svelte.ts';

/** The guide to each screen of an app: a page of `/~/docs`, and a heading on it. */
export const screenGuides: Readonly<Partial<Record<ConsolePage, string>>> = {
  pages: 'console',
  data: 'app-file#collections',
  map: 'console',
  people: 'app-file#who-may-see-a-page',
  mails: 'app-file#mails',
  words: 'app-file#languages',
  settings: 'app-file#look',
  promises: 'links-that-last',
  links: 'links-that-last',
  visits: 'app-file#arrivals',
  webhooks: 'http#webhooks',
  file: 'app-file',
  publish: 'links-that-last',
  problems: 'problems',
};

/** The guide to a component. */
export function componentGuide(component: Component): string {
  const kind = kindOf(component);
  if (kind === undefined) return 'components';
  return `components#${`${kind.label} ${component.show}`.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-')}`;
}

/** The guide to a type of parameters. */
export const typeGuide = (type: string): string => `parameters#${type}`;
