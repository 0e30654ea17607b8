import { own } from '../own.ts';
import { fromPointer } from '@pallmist/address/declare';
import { kindOf } from '../components/kinds.ts';
import type { AppDefinition, Component } from '../definition/app-definition.ts';
import { partNames } from '../definition/part-names.ts';
import { valueAt } from './patch-data.ts';

/** A place of the app file, as people speak of it. */
export interface DescribedPlace {
  /** “Specimen, table Care log, link”. */
  words: string;
  /** The page that it is on. */
  page?: string;
  /** JSON Pointer of the component that it is in. */
  component?: string;
  parameter?: string;
}

/** Says in words what stands at a place, from the outside in. */
export function describePlace(definition: Pick<AppDefinition, 'pages'>, pointer: string): DescribedPlace {
  const [root = '', name = '', ...rest] = fromPointer(pointer);
  if (root !== 'pages' || name === '')
    return { words: [own(parts, root) ?? root, ...(name === '' ? [] : [name]), ...rest.slice(0, 2)].join(', ') };
  const page = definition.pages[name];
  const place: DescribedPlace = { words: page === undefined ? name : pageTitle(page.title, name), page: name };
  const words = [place.words];
  const [part, second, ...further] = rest;
  if (part === 'parameters' && second !== undefined)
    return { ...place, parameter: second, words: [...words, `parameter ${second}`, ...further.slice(0, 1)].join(', ') };
  if (part === 'content') {
    let at = `/pages/${name.replaceAll('~', '~0').replaceAll('/', '~1')}`;
    let key: string[] = [];
    for (const step of rest) {
      at += `/${step.replaceAll('~', '~0').replaceAll('/', '~1')}`;
      const value = valueAt(definition, at);
      key.push(step);
      if (!isComponent(value)) continue;
      place.component = at;
      words.push(describeComponent(value));
      key = [];
    }
    const own = key.filter((step) => step !== 'content' && step !== 'panes');
    if (own.length > 0) words.push(own.join(' '));
    return { ...place, words: words.join(', ') };
  }
  if (part !== undefined) words.push(own(pageParts, part) ?? part);
  if (second !== undefined) words.push(second);
  return { ...place, words: words.join(', ') };
}

/** A component as people know it: its kind and what it says. */
export function describeComponent(component: Component): string {
  const kind = kindOf(component)?.label ?? component.show;
  const keys = component.show === 'block' ? ['of'] : ['label', 'text', 'title', 'bind', 'rows'];
  const says = keys.map((key) => component[key]).find((value) => typeof value === 'string');
  return says === undefined ? kind.toLowerCase() : `${kind.toLowerCase()} “${short(says)}”`;
}

/** A page’s title as a name: what it computes is left out, and where nothing is left its key stands. */
export function pageTitle(title: string, name: string): string {
  const plain = title
    .replaceAll('{{', '\u0001')
    .replaceAll(/[{][^{}]*[}]/g, '')
    .replaceAll('\u0001', '{')
    .replaceAll('}}', '}')
    .trim();
  return /[\p{L}\p{N}]/u.test(plain) && !title.includes('{') ? plain : name;
}

const short = (text: string) => (text.length > 40 ? `${text.slice(0, 39)}…` : text);

const isComponent = (value: unknown): value is Component => typeof value === 'object' && value !== null && 'show' in value;

const parts: Record<string, string> = {
  ...partNames,
  pages: 'pages',
  parameters: 'the app’s parameter',
  navigation: 'navigation',
  look: 'look',
  mount: 'mount',
  title: 'title',
};
const pageParts: Record<string, string> = {
  address: 'address',
  title: 'title',
  rows: 'rows',
  admit: 'gate',
  arrival: 'arrival',
  formerAddresses: 'former addresses',
  formerNames: 'former names',
  sampleSets: 'sample sets',
};
