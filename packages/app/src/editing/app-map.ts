import { toPointer } from '@pallmist/address/declare';
import type { AppDefinition } from '../definition/app-definition.ts';
import { expandBlocks } from '../definition/blocks/expand-blocks.ts';
import { waysIn } from '../definition/rename/places.ts';
import { pageTitle } from './describe-place.ts';

/** A page on the map. */
export interface MapPage {
  name: string;
  title: string;
  address: string;
  group: string | undefined;
  /** Who can open it, where that is not everyone. */
  gate: string | undefined;
  /** Nothing leads to it. */
  unlinked: boolean;
}

/** All links from one page to another, or from the navigation, which stands on every page. */
export interface MapLink {
  from: string;
  to: string;
  /** The parameters that they send. */
  sends: string[];
  /** Places of the links, as JSON Pointers. */
  pointers: string[];
}

/** The pages of an app and the links between them. */
export interface AppMap {
  pages: MapPage[];
  links: MapLink[];
}

/** What links come from that stand on every page. */
export const everyPage = 'every page';

/** Draws up the map of an app from its definition. */
export function mapApp(definition: AppDefinition): AppMap {
  const links = new Map<string, MapLink>();
  for (const { place, page: to, values, boxes } of waysIn(expandBlocks(definition).data as AppDefinition)) {
    const [root, name] = place;
    const from =
      root === 'pages'
        ? String(name)
        : root === 'navigation'
          ? everyPage
          : root === 'signIn'
            ? (definition.signIn?.page ?? '')
            : `mail ${String(name)}`;
    const link = links.get(`${from}\n${to}`) ?? { from, to, sends: [], pointers: [] };
    links.set(`${from}\n${to}`, link);
    link.pointers.push(toPointer(place));
    for (const parameter of [...Object.keys(values ?? {}), ...(boxes ?? [])])
      if (!link.sends.includes(parameter)) link.sends.push(parameter);
  }
  const reached = new Set([...links.values()].filter(({ from, to }) => from !== to).map(({ to }) => to));
  const home = Object.keys(definition.pages).find((name) => /^\/(?:\{\?[^}]*\})?$/.test(definition.pages[name]?.address ?? ''));
  const pages = Object.entries(definition.pages).map(([name, { title, address, group, admit }]): MapPage => ({
    name,
    title: pageTitle(title, name),
    address,
    group,
    gate:
      admit === undefined || admit === 'everyone'
        ? undefined
        : typeof admit === 'string'
          ? admit
          : (admit.roles?.join(', ') ?? 'a condition'),
    unlinked: !reached.has(name) && name !== home && name !== definition.signIn?.page,
  }));
  return { pages, links: [...links.values()] };
}
