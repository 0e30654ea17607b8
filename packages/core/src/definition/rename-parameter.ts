import { toPointer, type PatchOperation } from '../problem.ts';
import type { AppDefinition } from './app-schema.ts';
import { walkContent } from './component-facets.ts';
import type { LinkDefinition } from './schema-parts.ts';

/**
 * The JSON Patch that renames a parameter everywhere: in the address template, the declaration, the bindings, the
 * expressions of its page, the `resets` of its neighbours, and the links of every page that leads to it.
 * @returns an empty patch when there is no such parameter or the new name is taken
 */
export function renameParameter(definition: AppDefinition, pageName: string, from: string, to: string): PatchOperation[] {
  const page = definition.pages[pageName];
  const parameters = page?.parameters ?? {};
  if (!page || from === to || !Object.hasOwn(parameters, from) || Object.hasOwn(parameters, to)) return [];
  const place = ['pages', pageName];
  const patch: PatchOperation[] = [
    { op: 'replace', path: toPointer([...place, 'address']), value: renameInTemplate(page.address, from, to) },
    { op: 'move', from: toPointer([...place, 'parameters', from]), path: toPointer([...place, 'parameters', to]) },
  ];
  for (const [name, { resets }] of Object.entries(parameters)) {
    const index = resets?.indexOf(from) ?? -1;
    if (index !== -1)
      patch.push({ op: 'replace', path: toPointer([...place, 'parameters', name === from ? to : name, 'resets', index]), value: to });
  }
  for (const { path, facets } of walkContent(page.content)) {
    for (const bind of facets.binds) {
      if (bind.name === from) patch.push({ op: 'replace', path: toPointer([...place, ...path, ...bind.path]), value: to });
    }
    for (const { path: below, link } of facets.links) {
      // What is kept is named as both pages name it: a link to another page sends it by the other's name from now on.
      const index = Array.isArray(link.keep) && link.page === pageName ? link.keep.indexOf(from) : -1;
      if (index !== -1) patch.push({ op: 'replace', path: toPointer([...place, ...path, ...below, 'keep', index]), value: to });
    }
  }
  for (const [index, { set }] of (page.arrival ?? []).entries()) {
    const at = [...place, 'arrival', index, 'set'];
    if (Object.hasOwn(set ?? {}, from)) patch.push({ op: 'move', from: toPointer([...at, from]), path: toPointer([...at, to]) });
  }
  // Expressions last: a place that has moved is named as it is by then.
  for (const key of ['title', 'admit', 'reads', 'arrival', 'content'] as const) {
    for (const found of textsIn(page[key], [...place, key])) renameText(patch, found, from, to);
  }
  for (const { place: at, values, boxes } of wayTo(definition, pageName)) {
    if (Object.hasOwn(values ?? {}, from))
      patch.push({ op: 'move', from: toPointer([...at, 'values', from]), path: toPointer([...at, 'values', to]) });
    const index = boxes?.indexOf(from) ?? -1;
    if (index !== -1) patch.push({ op: 'replace', path: toPointer([...at, 'boxes', index]), value: to });
  }
  return patch;
}

type Place = (string | number)[];

function renameInTemplate(template: string, from: string, to: string): string {
  return template.replaceAll(/\{[^{}]*\}/g, (part) => part.replaceAll(/[A-Za-z][A-Za-z0-9_-]*/g, (name) => (name === from ? to : name)));
}

interface FoundText {
  place: Place;
  text: string;
}

/** Every text below a place. */
function* textsIn(value: unknown, place: Place): Generator<FoundText> {
  if (typeof value === 'string') yield { place, text: value };
  else if (Array.isArray(value)) for (const [index, entry] of value.entries()) yield* textsIn(entry, [...place, index]);
  else if (typeof value === 'object' && value !== null)
    for (const [key, entry] of Object.entries(value)) yield* textsIn(entry, [...place, key]);
}

/** Renames `param.from`, `record.from` and `label.from` where they stand in a condition or in the braces of a text. */
function renameText(patch: PatchOperation[], { place, text }: FoundText, from: string, to: string): void {
  if (place.at(-1) !== 'when' && !text.includes('{')) return;
  const renamed = text.replaceAll(/\b((?:param|record|label)\.\??)([A-Za-z_]\w*)/g, (whole, scope: string, name: string) =>
    name === from ? scope + to : whole,
  );
  if (renamed === text) return;
  // What a rule for arrivals sets has moved before.
  const moved = place.map((part, index) => (part === from && place[index - 1] === 'set' && place[2] === 'arrival' ? to : part));
  patch.push({ op: 'replace', path: toPointer(moved), value: renamed });
}

interface Way {
  place: Place;
  page: string;
  values?: LinkDefinition['values'] | undefined;
  boxes?: readonly string[];
}

/** Every link and every form that leads to a page. */
function wayTo(definition: AppDefinition, pageName: string): Way[] {
  const ways: Way[] = [];
  for (const [name, page] of Object.entries(definition.pages)) {
    for (const { component, path, facets } of walkContent(page.content)) {
      for (const { path: below, link } of facets.links) ways.push({ place: ['pages', name, ...path, ...below], ...link });
      if (component.show === 'ask') ways.push({ place: ['pages', name, ...path], ...component });
    }
  }
  for (const [index, entry] of (definition.navigation ?? []).entries()) ways.push({ place: ['navigation', index, 'to'], ...entry.to });
  for (const key of ['first', 'afterSignOut'] as const) {
    const link = definition.signIn?.[key];
    if (link) ways.push({ place: ['signIn', key], ...link });
  }
  for (const [mail, { links = {} }] of Object.entries(definition.mails ?? {})) {
    for (const [name, { to }] of Object.entries(links)) ways.push({ place: ['mails', mail, 'links', name, 'to'], ...to });
  }
  return ways.filter(({ page }) => page === pageName);
}
