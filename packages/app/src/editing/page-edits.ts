import { plainText } from '../expressions/template-text.ts';
import { formatTemplate, formerTemplate, parseTemplate, type PatchOperation, toPointer, withTemplate } from '@pallmist/address/declare';
import type { FormerAddress } from '@pallmist/address/pages';
import type { AppDefinition, PageDefinition } from '../definition/app-definition.ts';
import { changeAddress } from '../definition/rename/change-address.ts';
import { waysIn } from '../definition/rename/places.ts';
import { freeName, slugOf } from './names.ts';

/** A patch, and the name of what it has made. */
export interface Made {
  patch: PatchOperation[];
  name: string;
}

/** The address that a page gets by its title alone. */
export const addressOfTitle = (title: string): string => `/${slugOf(title, 'page')}`;

/** The JSON Patch that adds a page with a heading, at an address that follows its title. */
export function addPage(definition: AppDefinition, title: string, group?: string): Made {
  const name = freeName(slugOf(title, 'page'), Object.keys(definition.pages), '-');
  const page = {
    title: plainText(title),
    ...(group === undefined || group === '' ? {} : { group }),
    address: freeAddress(definition, addressOfTitle(title)),
    content: [{ show: 'heading', text: plainText(title) }],
  };
  return { name, patch: [{ op: 'add', path: toPointer(['pages', name]), value: page }] };
}

/** A path that no page has yet. */
export function freeAddress(definition: AppDefinition, address: string): string {
  const paths = new Set(Object.values(definition.pages).map((page) => pathOf(page.address)));
  return freeName(address, paths, '-');
}

const pathOf = (template: string) => template.replace(/\{\?[^{}]*\}$/, '');

/** The JSON Patch that adds a copy of a page, right after it, at an address of its own. */
export function copyPage(definition: AppDefinition, from: string): Made {
  const page = definition.pages[from];
  const name = freeName(`${from}-copy`, Object.keys(definition.pages), '-');
  if (page === undefined) return { name, patch: [] };
  const { formerAddresses: _, formerNames: __, ...rest } = page;
  const query = /\{\?[^{}]*\}$/.exec(page.address)?.[0] ?? '';
  const [first = '', ...others] = pathOf(page.address).slice(1).split('/');
  const copied = first.startsWith('{') || first === '' ? `/${name}${pathOf(page.address)}` : `/${[`${first}-copy`, ...others].join('/')}`;
  const value = { ...rest, address: freeAddress(definition, copied.replace(/\/$/, '')) + query };
  const names = Object.keys(definition.pages);
  return { name, patch: [{ op: 'add', path: toPointer(['pages', name]), value, before: names[names.indexOf(from) + 1] }] };
}

/**
 * The JSON Patch that gives a page another title. While its address is the one that its title gave it, and nobody has seen
 * it, the address follows.
 * @param published whether an edition has the page, whose address is then kept
 */
export function retitlePage(definition: AppDefinition, name: string, title: string, published: boolean): PatchOperation[] {
  const page = definition.pages[name];
  if (page === undefined || page.title === title) return [];
  const patch: PatchOperation[] = [{ op: 'replace', path: toPointer(['pages', name, 'title']), value: title }];
  const follows = !published && pathOf(page.address) === addressOfTitle(page.title);
  if (follows) {
    const query = /\{\?[^{}]*\}$/.exec(page.address)?.[0] ?? '';
    patch.push(...changeAddress(definition, name, freeAddress(definition, addressOfTitle(title)) + query, false));
  }
  // The first heading says what the title says, until one of them is changed.
  const [first] = page.content;
  if (first?.show === 'heading' && first['text'] === page.title)
    patch.push({ op: 'replace', path: toPointer(['pages', name, 'content', 0, 'text']), value: title });
  return patch;
}

/** The JSON Patch that makes a template one of the former addresses of a page; empty where it is one already. */
export function addFormerAddress(definition: AppDefinition, page: string, template: string): PatchOperation[] {
  const present = definition.pages[page];
  if (present === undefined || present.formerAddresses?.some((one) => formerTemplate(one) === template) === true) return [];
  const path = toPointer(['pages', page, 'formerAddresses']);
  return present.formerAddresses === undefined
    ? [{ op: 'add', path, value: [template] }]
    : [{ op: 'add', path: `${path}/-`, value: template }];
}

/**
 * The JSON Patch that removes a page.
 * @param leadTo the page to which its addresses lead from now on; they lead nowhere when left out
 */
export function removePage(definition: AppDefinition, name: string, leadTo?: string): PatchOperation[] {
  const page = definition.pages[name];
  if (page === undefined) return [];
  const patch: PatchOperation[] = [];
  const heir = leadTo === undefined ? undefined : definition.pages[leadTo];
  if (heir !== undefined && leadTo !== undefined) {
    const former = [page.address, ...(page.formerAddresses ?? [])].map((one) => heirAddress(one, heir));
    const addresses = [...(heir.formerAddresses ?? []), ...former.filter((one) => one !== undefined)];
    const names = [...(heir.formerNames ?? []), name, ...(page.formerNames ?? [])];
    patch.push(
      { op: heir.formerAddresses ? 'replace' : 'add', path: toPointer(['pages', leadTo, 'formerAddresses']), value: addresses },
      { op: heir.formerNames ? 'replace' : 'add', path: toPointer(['pages', leadTo, 'formerNames']), value: names },
    );
  }
  patch.push({ op: 'remove', path: toPointer(['pages', name]) });
  return patch;
}

function heirAddress(former: FormerAddress, heir: PageDefinition): FormerAddress | undefined {
  const template = withParametersOf(formerTemplate(former), heir);
  return template === undefined ? undefined : withTemplate(former, template);
}

/** A template with the parameters that a page has; undefined where its path needs one that the page has not. */
function withParametersOf(address: string, page: PageDefinition): string | undefined {
  const { template } = parseTemplate(address);
  const known = new Set(Object.keys(page.parameters ?? {}));
  if (template.segments.some((segment) => 'parameter' in segment && !known.has(segment.parameter))) return undefined;
  return formatTemplate({ ...template, query: template.query.filter((name) => known.has(name)) });
}

/** Whether the addresses of a page could lead to another: what its path holds, the other has to know. */
export function canLeadTo(definition: AppDefinition, from: string, to: string): boolean {
  const [page, heir] = [definition.pages[from], definition.pages[to]];
  return page !== undefined && heir !== undefined && from !== to && withParametersOf(page.address, heir) !== undefined;
}

/** Places that lead to a page, as JSON Pointers. */
export const placesLeadingTo = (definition: AppDefinition, page: string): string[] =>
  waysIn(definition)
    .filter((way) => way.page === page)
    .map(({ place }) => toPointer(place));
