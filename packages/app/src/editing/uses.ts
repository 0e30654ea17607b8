import { toPointer } from '@pallmist/address/declare';
import { walkContent } from '../components/walk-content.ts';
import type { AppDefinition, PageDefinition } from '../definition/app-definition.ts';
import { placesOfCollection } from '../definition/rename/rename-collection.ts';
import { renameField } from '../definition/rename/rename-field.ts';
import { freeName } from './names.ts';
import { mayHoldExpressions, textsIn, waysIn, type Place } from '../definition/rename/places.ts';
import { pathsIn } from '../expressions/paths.ts';
import { parseText } from '../expressions/template-text.ts';

/** How something is used at a place. */
export type UseKind = 'bound' | 'read' | 'sent' | 'reset' | 'named';

/** One place that uses something, as a JSON Pointer. */
export interface Use {
  how: UseKind;
  pointer: string;
}

/** Where a parameter of a page is used: bound to components, read in expressions, reset by others, sent by links. */
export function usesOfParameter(definition: AppDefinition, pageName: string, name: string): Use[] {
  const page = definition.pages[pageName];
  if (page === undefined) return [];
  const uses: Use[] = [];
  const add = (how: UseKind, place: Place) => uses.push({ how, pointer: toPointer(place) });
  for (const { path, references } of walkContent(page.content))
    for (const bind of references.binds) if (bind.name === name) add('bound', ['pages', pageName, ...path, ...bind.path]);
  const roots = new Set(['param', 'label', 'record', 'visit']);
  for (const place of placesReading(page, pageName, (root, key) => roots.has(root) && key === name)) add('read', place);
  for (const [other, { resets }] of Object.entries(page.parameters ?? {}))
    if (resets?.includes(name)) add('reset', ['pages', pageName, 'parameters', other, 'resets']);
  for (const [index, { set }] of (page.arrival ?? []).entries())
    if (Object.hasOwn(set ?? {}, name)) add('reset', ['pages', pageName, 'arrival', index, 'set', name]);
  for (const way of waysIn(definition)) {
    if (way.page !== pageName) continue;
    if (Object.hasOwn(way.values ?? {}, name)) add('sent', [...way.place, 'values', name]);
    else if (way.boxes?.includes(name) === true) add('sent', way.place);
  }
  return uses;
}

/** Where the rows of a page are used. */
export function usesOfRows(page: PageDefinition, pageName: string, name: string): Use[] {
  const uses: Use[] = [];
  for (const { path, references } of walkContent(page.content))
    for (const rows of references.rows)
      if (rows.name === name) uses.push({ how: 'bound', pointer: toPointer(['pages', pageName, ...path, ...rows.path]) });
  for (const place of placesReading(page, pageName, (root, key) => (root === 'rows' || root === 'total') && key === name))
    uses.push({ how: 'read', pointer: toPointer(place) });
  return uses;
}

/** Where a page is led to, or named. */
export function usesOfPage(definition: AppDefinition, page: string): Use[] {
  const uses: Use[] = waysIn(definition)
    .filter((way) => way.page === page)
    .map(({ place }): Use => ({ how: 'sent', pointer: toPointer(place) }));
  if (definition.signIn?.page === page) uses.push({ how: 'named', pointer: '/signIn/page' });
  return uses;
}

/** Where a collection is used. */
export const usesOfCollection = (definition: AppDefinition, collection: string): Use[] =>
  placesOfCollection(definition, collection).map((place) => ({ how: 'named', pointer: toPointer(place) }));

/** Where a field of a collection is used: what would have to be said otherwise if it had another name. */
export function usesOfField(definition: AppDefinition, collection: string, field: string): Use[] {
  const fields = toPointer(['collections', collection, 'fields']);
  const own = fields + toPointer([field]);
  const renamed = renameField(
    definition,
    collection,
    field,
    freeName(field, Object.keys(definition.collections?.[collection]?.fields ?? {})),
  );
  return renamed
    .map((operation) => ('from' in operation ? operation.from : operation.path))
    .filter((pointer) => !pointer.startsWith(fields) || (pointer.endsWith('/computed') && !pointer.startsWith(`${own}/`)))
    .map((pointer) => ({ how: 'named', pointer }));
}

/** Where a choices list is used. */
export function usesOfChoices(definition: AppDefinition, list: string): Use[] {
  const uses: Use[] = [];
  const look = (
    at: Place,
    declared: Record<string, { type: string; of?: string | undefined; items?: { type: string; of?: string | undefined } | undefined }> = {},
  ) => {
    for (const [name, { type, of, items }] of Object.entries(declared)) {
      const named = (type === 'choice' && of === list) || (items?.type === 'choice' && items.of === list);
      if (named) uses.push({ how: 'named', pointer: toPointer([...at, name]) });
    }
  };
  look(['parameters'], definition.parameters);
  for (const [name, { parameters }] of Object.entries(definition.pages)) look(['pages', name, 'parameters'], parameters);
  for (const [name, { fields }] of Object.entries(definition.collections ?? {})) look(['collections', name, 'fields'], fields);
  return uses;
}

/** Where a gate is used. */
export const usesOfGate = (definition: AppDefinition, gate: string): Use[] =>
  Object.entries(definition.pages)
    .filter(([, { admit }]) => admit === gate)
    .map(([name]) => ({ how: 'named', pointer: toPointer(['pages', name, 'admit']) }));

/** Where a mail is sent from. */
export const usesOfMail = (definition: AppDefinition, mail: string): Use[] =>
  Object.entries(definition.pages).flatMap(([name, page]) =>
    [...walkContent(page.content)].flatMap(({ path, references }) =>
      references.mails.includes(mail) ? [{ how: 'named' as const, pointer: toPointer(['pages', name, ...path]) }] : [],
    ),
  );

/** Places of a page whose expressions read a path that begins with these two names. */
function* placesReading(page: PageDefinition, name: string, wanted: (root: string, key: string | undefined) => boolean): Generator<Place> {
  const { parameters: _, ...rest } = page;
  for (const found of textsIn(rest, ['pages', name])) {
    if (!mayHoldExpressions(found)) continue;
    const expressions = found.place.at(-1) === 'when' ? [found.text] : expressionsOf(found.text);
    if (expressions.some((expression) => pathsIn(expression).some(([root = '', key]) => wanted(root, key)))) yield found.place;
  }
}

function expressionsOf(text: string): string[] {
  try {
    return parseText(text).flatMap((part) => ('expression' in part ? [part.expression] : []));
  } catch {
    return [];
  }
}
