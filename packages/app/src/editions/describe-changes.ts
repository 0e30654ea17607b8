import { formerTemplate, toPointer, type ParameterDeclaration } from '@pallmist/address/declare';
import type { AppDefinition, PageDefinition } from '../definition/app-definition.ts';
import { partNames } from '../definition/part-names.ts';
import { pageTitle } from '../editing/describe-place.ts';

/** One thing that differs between two states of an app, as visitors and builders would say it. */
export interface Change {
  kind: 'new' | 'changed' | 'gone';
  about: 'address' | 'page' | 'parameter' | 'data' | 'people' | 'app';
  words: string;
  /** JSON Pointer into the later state, or, for what is gone, into the earlier. */
  pointer: string;
  /** Addresses that were shared lead nowhere, or to something else, after this change. */
  breaks?: true;
}

/** Says what has changed from one state of an app to another: addresses first, by comparing declarations. */
export function describeChanges(before: AppDefinition | undefined, after: AppDefinition): Change[] {
  if (before === undefined)
    return Object.entries(after.pages).map(([name, page]) => ({
      kind: 'new',
      about: 'address',
      words: `${whole(after, page.address)} is the address of “${pageTitle(page.title, name)}”.`,
      pointer: toPointer(['pages', name]),
    }));
  const changes: Change[] = [];
  const pairs = pairPages(before, after);
  for (const [name, page] of Object.entries(after.pages)) {
    const former = pairs.get(name);
    if (former === undefined) changes.push(newPage(after, name, page));
    else changes.push(...pageChanges(before, former, name, page));
  }
  const kept = new Set(pairs.values());
  for (const [name, page] of Object.entries(before.pages)) if (!kept.has(name)) changes.push(pageGone(after, name, page));
  changes.push(...partChanges(before, after));
  const order = ['address', 'page', 'parameter', 'data', 'people', 'app'];
  return changes.sort((one, other) => order.indexOf(one.about) - order.indexOf(other.about));
}

/** For each page of the later state its name in the earlier one. */
function pairPages(before: AppDefinition, after: AppDefinition): Map<string, string> {
  const pairs = new Map<string, string>();
  for (const [name, { formerNames = [] }] of Object.entries(after.pages)) {
    const former = [name, ...[...formerNames].reverse()].find(
      (one) => Object.hasOwn(before.pages, one) && (one === name || !Object.hasOwn(after.pages, one)),
    );
    if (former !== undefined) pairs.set(name, former);
  }
  return pairs;
}

const pathOf = (template: string) => template.replace(/\{\?[^{}]*\}$/, '');

/** An address as visitors see it, with the mount. */
const whole = ({ mount }: AppDefinition, address: string) =>
  mount === '/' ? address : mount + (address === '/' ? '' : address.replace(/^\/(?=\{\?)/, ''));

const newPage = (after: AppDefinition, name: string, page: PageDefinition): Change => ({
  kind: 'new',
  about: 'address',
  words: `${whole(after, page.address)} is new: the page “${pageTitle(page.title, name)}”.`,
  pointer: toPointer(['pages', name]),
});

function pageGone(after: AppDefinition, name: string, page: PageDefinition): Change {
  const heir = Object.entries(after.pages).find(([, { formerAddresses }]) =>
    formerAddresses?.some((one) => pathOf(formerTemplate(one)) === pathOf(page.address)),
  );
  return {
    kind: 'gone',
    about: 'address',
    words:
      heir === undefined
        ? `${whole(after, pathOf(page.address))} will no longer work: the page “${pageTitle(page.title, name)}” is removed.`
        : `${whole(after, pathOf(page.address))} leads to “${pageTitle(heir[1].title, heir[0])}” from now on.`,
    pointer: toPointer(['pages', name]),
    ...(heir === undefined ? { breaks: true as const } : {}),
  };
}

function pageChanges(before: AppDefinition, formerName: string, name: string, page: PageDefinition): Change[] {
  const former = before.pages[formerName];
  if (former === undefined || JSON.stringify(former) === JSON.stringify(page)) return [];
  const title = pageTitle(page.title, name);
  const at = ['pages', name];
  const changes: Change[] = [];
  const add = (change: Omit<Change, 'pointer'>, ...below: string[]) => changes.push({ ...change, pointer: toPointer([...at, ...below]) });
  if (pathOf(former.address) !== pathOf(page.address)) {
    const keeps = page.formerAddresses?.some((one) => pathOf(formerTemplate(one)) === pathOf(former.address)) ?? false;
    const end = keeps ? 'The old address still works.' : 'The old address leads nowhere.';
    add(
      {
        kind: 'changed',
        about: 'address',
        words: `“${title}” moves from ${whole(before, pathOf(former.address))} to ${whole(before, pathOf(page.address))}. ${end}`,
        ...(keeps ? {} : { breaks: true as const }),
      },
      'address',
    );
  }
  if (formerName !== name) add({ kind: 'changed', about: 'page', words: `The page “${formerName}” is named “${name}”.` });
  changes.push(...parameterChanges(former, name, page, title));
  if (former.title !== page.title)
    add({ kind: 'changed', about: 'page', words: `The title of “${title}” was “${former.title}”.` }, 'title');
  if (JSON.stringify(former.admit) !== JSON.stringify(page.admit))
    add({ kind: 'changed', about: 'people', words: `“${title}” admits others than before.` }, 'admit');
  for (const [part, words] of [
    ['content', 'shows something else'],
    ['rows', 'reads other rows'],
    ['arrival', 'does something else at arrival'],
  ] as const)
    if (JSON.stringify(former[part]) !== JSON.stringify(page[part]))
      add({ kind: 'changed', about: 'page', words: `“${title}” ${words}.` }, part);
  return changes;
}

function parameterChanges(former: PageDefinition, name: string, page: PageDefinition, title: string): Change[] {
  const changes: Change[] = [];
  const paired = new Set<string>();
  const add = (change: Omit<Change, 'pointer' | 'about'>, parameter: string) =>
    changes.push({ ...change, about: 'parameter', pointer: toPointer(['pages', name, 'parameters', parameter]) });
  for (const [parameter, declaration] of Object.entries(page.parameters ?? {})) {
    const then = [parameter, ...(declaration.formerNames ?? [])].find((one) => former.parameters?.[one] !== undefined);
    const was = former.parameters?.[then ?? ''];
    if (then === undefined || was === undefined) {
      const required = declaration.required === true;
      add(
        {
          kind: 'new',
          words: `“${title}” takes “${parameter}”${required ? ', and shows nothing without it' : ''}.`,
          ...(required ? { breaks: true as const } : {}),
        },
        parameter,
      );
      continue;
    }
    paired.add(then);
    if (then !== parameter)
      add({ kind: 'changed', words: `“${then}” of “${title}” is named “${parameter}”; the old name still works.` }, parameter);
    const words = differences(was, declaration);
    if (words.length > 0)
      add(
        {
          kind: 'changed',
          words: `“${parameter}” of “${title}”: ${words.join('; ')}.`,
          ...(was.type === declaration.type && was.of === declaration.of ? {} : { breaks: true as const }),
        },
        parameter,
      );
  }
  for (const parameter of Object.keys(former.parameters ?? {}))
    if (!paired.has(parameter))
      add({ kind: 'gone', words: `“${title}” takes no “${parameter}” any more; addresses that have it still work without it.` }, parameter);
  return changes;
}

function differences(was: ParameterDeclaration, is: ParameterDeclaration): string[] {
  const of = ({ type, of: list }: ParameterDeclaration) => (list === undefined ? type : `${type} of ${list}`);
  const words = of(was) === of(is) ? [] : [`was ${of(was)} and is ${of(is)}`];
  const said = new Set(['type', 'of', 'formerNames', 'sample', 'label', 'help']);
  for (const key of new Set([...Object.keys(was), ...Object.keys(is)]) as Set<keyof ParameterDeclaration>) {
    if (said.has(key) || JSON.stringify(was[key]) === JSON.stringify(is[key])) continue;
    words.push(is[key] === undefined ? `no “${key}” any more` : `“${key}” is ${JSON.stringify(is[key])}`);
  }
  return words;
}

const aboutOfPart = {
  collections: 'data',
  choices: 'data',
  gates: 'people',
  signIn: 'people',
  mails: 'app',
  words: 'app',
  sites: 'app',
} as const;
function partChanges(before: AppDefinition, after: AppDefinition): Change[] {
  const changes: Change[] = [];
  for (const [part, about] of Object.entries(aboutOfPart) as [keyof typeof aboutOfPart, Change['about']][]) {
    const [was, is] = [before[part] ?? {}, after[part] ?? {}] as [Record<string, unknown>, Record<string, unknown>];
    for (const name of new Set([...Object.keys(was), ...Object.keys(is)])) {
      if (JSON.stringify(was[name]) === JSON.stringify(is[name])) continue;
      const kind = was[name] === undefined ? 'new' : is[name] === undefined ? 'gone' : 'changed';
      changes.push({ kind, about, words: `The ${partNames[part]} “${name}” is ${kind}.`, pointer: toPointer([part, name]) });
    }
  }
  if (before.mount !== after.mount) {
    const keeps = after.formerMounts?.includes(before.mount) === true;
    const end = keeps ? 'Addresses at the old place still work.' : 'Addresses at the old place lead nowhere.';
    changes.push({
      kind: 'changed',
      about: 'address',
      words: `The app moves from ${before.mount} to ${after.mount}. ${end}`,
      pointer: '/mount',
      ...(keeps ? {} : { breaks: true as const }),
    });
  }
  for (const [part, words] of [
    ['title', `The app’s title is “${after.title}”.`],
    ['navigation', 'The navigation is changed.'],
    ['parameters', 'The app’s own parameters are changed.'],
    ['look', 'The look is changed.'],
    ['language', 'The parameter of the language is changed.'],
    ['timeZone', `The time zone is ${after.timeZone ?? 'UTC'}.`],
  ] as const)
    if (JSON.stringify(before[part]) !== JSON.stringify(after[part]))
      changes.push({ kind: 'changed', about: 'app', words, pointer: toPointer([part]) });
  return changes;
}
