import { fromPointer, toPointer } from '@pallmist/app/address';
import { describePlace, pagesWithBlock, type AppDefinition } from '@pallmist/app/editing';
import { place, type ConsolePage } from '../service/place.svelte.ts';

/** A link to the place in the console where something of the app file is changed. */
export interface PlaceLink {
  words: string;
  href: string;
  follow: (event: MouseEvent & { currentTarget: HTMLAnchorElement }) => void;
}

/** Where in the console a place of the app file is changed. */
export function placeLink(app: string, definition: AppDefinition, pointer: string): PlaceLink {
  const [root = '', name = '', part, second] = fromPointer(pointer);
  const described = describePlace(definition, pointer);
  const link = (page: ConsolePage, values: Record<string, string> = {}): PlaceLink => ({
    words: described.words,
    href: place.href(page, { app, ...values }),
    follow: (event) => {
      place.follow(event);
    },
  });
  if (root === 'pages' && name !== '') {
    if (described.component !== undefined) return link('pages', { page: name, part: partOf(described.component) });
    if (part === 'parameters' && second !== undefined) return link('pages', { page: name, parameter: second });
    if (part === 'rows' && second !== undefined) return link('pages', { page: name, rows: second });
    return link('pages', { page: name });
  }
  if (root === 'blocks') {
    const [page] = pagesWithBlock(definition, name);
    const component = pointer.split('/').slice(0, 5).join('/');
    if (page !== undefined && part === 'content') return link('pages', { page, part: partOf(component) });
  }
  if (root === 'collections') return link('data', { collection: name, part: 'fields' });
  if (root === 'choices') return link('data', { part: 'fields' });
  if (root === 'mails') return link('mails', { mail: name });
  if (root === 'words') return link('words');
  if (root === 'gates' || root === 'signIn') return link('people');
  if (['sites', 'look', 'navigation', 'parameters', 'title', 'mount', 'language', 'timeZone'].includes(root)) return link('settings');
  return link('file');
}

/** A component’s place in its page, as the console’s address holds it. */
export const partOf = (pointer: string): string =>
  pointer.startsWith('/blocks/') ? `~${pointer.slice(1)}` : fromPointer(pointer).slice(2).join('/');

/** The component that a part of a page’s address names: one of the page, or one in a block. */
export const pointerOf = (page: string, part: string): string =>
  part.startsWith('~') ? `/${part.slice(1)}` : `${toPointer(['pages', page])}/${part}`;
