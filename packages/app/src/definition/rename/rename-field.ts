import { conditionsOf } from '../operators.ts';
import { type PatchOperation, toPointer } from '@pallmist/address/declare';
import { formOf, walkContent } from '../../components/walk-content.ts';
import type { References } from '../../components/references.ts';
import { throughBlocks } from '../blocks/through-blocks.ts';
import type { AppDefinition, CollectionDefinition, PageDefinition } from '../app-definition.ts';
import { keepFormer } from './keep-former.ts';
import { mayHoldExpressions, textsIn, type Place } from './places.ts';

interface Renaming {
  definition: AppDefinition;
  collection: string;
  from: string;
  to: string;
}

/**
 * The JSON Patch that renames a field of a collection everywhere: in the collection, in parameters, reads, components and
 * expressions. Its values stay, and addresses that sort by it work, by the old name that is kept.
 * @returns an empty patch when there is no such field or the new name is taken
 */
export const renameField = throughBlocks((definition: AppDefinition, collection: string, from: string, to: string): PatchOperation[] => {
  const present = definition.collections?.[collection];
  const field = present?.fields[from];
  if (present === undefined || field === undefined || from === to || Object.hasOwn(present.fields, to)) return [];
  const renaming = { definition, collection, from, to };
  const at = ['collections', collection];
  const patch: PatchOperation[] = [
    { op: 'move', from: toPointer([...at, 'fields', from]), path: toPointer([...at, 'fields', to]) },
    ...keepFormer([...at, 'fields', to, 'formerNames'], field.formerNames, from, to),
  ];
  const moves: PatchOperation[] = [];
  const replace: Replace = (place, value) => {
    if (typeof value === 'string') patch.push({ op: 'replace', path: toPointer(place), value });
    // Keys are renamed last: what stands below them is named as it is until then.
    else moves.push({ op: 'move', from: toPointer(place), path: toPointer([...place.slice(0, -1), value.renamed]) });
  };
  for (const key of ['keyField', 'titleField'] as const) if (present[key] === from) replace([...at, key], to);
  inParameters(renaming, ['parameters'], definition.parameters, replace);
  for (const [index, former] of (present.formerKeys ?? []).entries()) if (former === from) replace([...at, 'formerKeys', index], to);
  inComputed([...at, 'fields'], present.fields, from, to, replace);
  for (const [name, page] of Object.entries(definition.pages)) {
    inParameters(renaming, ['pages', name, 'parameters'], page.parameters, replace);
    inReads(renaming, ['pages', name, 'rows'], page.rows, replace);
    inComponents(renaming, ['pages', name], page, replace);
    inExpressions(renaming, ['pages', name], page, page, replace);
  }
  for (const [name, mail] of Object.entries(definition.mails ?? {})) {
    const sender = Object.values(definition.pages).find(({ content }) =>
      [...walkContent(content)].some(({ references }) => references.mails.includes(name)),
    );
    if (sender) inExpressions(renaming, ['mails', name], mail, sender, replace, savedBy(definition, sender, name));
  }
  return [...patch, ...moves];
});

/** Computed fields name other fields of their record. */
function inComputed(at: Place, fields: CollectionDefinition['fields'], from: string, to: string, replace: Replace): void {
  const named = new RegExp(`\\brow\\.(\\??)${from}\\b`, 'g');
  for (const [name, { computed }] of Object.entries(fields)) {
    const renamed = computed?.replaceAll(named, `row.$1${to}`);
    if (renamed !== undefined && renamed !== computed) replace([...at, name === from ? to : name, 'computed'], renamed);
  }
}

/** Notes another text for a place, or another name for a key. */
type Replace = (place: Place, value: string | { renamed: string }) => void;

const inSort = ({ from, to }: Renaming, sort: string) =>
  sort
    .split(',')
    .map((key) => (key.trim().replace(/^-/, '') === from ? key.replace(from, to) : key))
    .join(',');

function inParameters(renaming: Renaming, at: Place, parameters: AppDefinition['parameters'], replace: Replace): void {
  const { collection, from, to } = renaming;
  for (const [name, declared] of Object.entries(parameters ?? {})) {
    if (declared.of !== collection) continue;
    if (declared.type === 'record' && declared.by === from) replace([...at, name, 'by'], to);
    if (declared.tied !== undefined && Object.hasOwn(declared.tied, from)) replace([...at, name, 'tied', from], { renamed: to });
    if (declared.type !== 'sort') continue;
    const index = declared.fields?.indexOf(from) ?? -1;
    if (index >= 0) replace([...at, name, 'fields', index], to);
    for (const key of ['default', 'sample'] as const) {
      const given = declared[key];
      if (typeof given === 'string' && inSort(renaming, given) !== given) replace([...at, name, key], inSort(renaming, given));
    }
  }
}

function inReads(renaming: Renaming, at: Place, reads: PageDefinition['rows'], replace: Replace): void {
  for (const [name, read] of Object.entries(reads ?? {})) {
    for (const { key, index, condition } of conditionsOf(read)) {
      const field = renamedPath(renaming, read.from, condition.field);
      if (field !== condition.field) replace([...at, name, key, index, 'field'], field);
    }
    if (read.from !== renaming.collection) continue;
    for (const [figure, given] of Object.entries(read.figures ?? {}))
      for (const [of, field] of Object.entries(given))
        if (field === renaming.from) replace([...at, name, 'figures', figure, of], renaming.to);
    if (typeof read.sort === 'string' && !read.sort.includes('{') && inSort(renaming, read.sort) !== read.sort)
      replace([...at, name, 'sort'], inSort(renaming, read.sort));
  }
}

/** Fields that components show or save: under “field”, in lists called “fields”, and as keys of “set”. */
function inComponents(renaming: Renaming, at: Place, page: PageDefinition, replace: Replace): void {
  const { definition, collection, from, to } = renaming;
  for (const { component, path, references } of walkContent(page.content)) {
    const saved = formOf(component, page, definition)?.collection;
    const { content: _, panes: __, ...own } = component;
    for (const { place, text } of textsIn(own, [...at, ...path])) {
      if (place.at(-1) !== 'field' && place.at(-2) !== 'fields') continue;
      const holder = holderOf(definition, page, references, text) ?? saved;
      const renamed = renamedAlong(renaming, holder, text.split('.')).join('.');
      if (renamed !== text) replace(place, renamed);
    }
    if (saved !== collection) continue;
    for (const { place, set } of setsIn(own, [...at, ...path])) if (Object.hasOwn(set, from)) replace([...place, from], { renamed: to });
  }
}

/** The maps called “set” of a component. */
function* setsIn(value: unknown, place: Place): Generator<{ place: Place; set: object }> {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return;
  for (const [key, inner] of Object.entries(value as Record<string, unknown>)) {
    if (key === 'set' && typeof inner === 'object' && inner !== null) yield { place: [...place, key], set: inner };
    else yield* setsIn(inner, [...place, key]);
  }
}

/** The collection whose record a form of a page saves that sends a mail. */
function savedBy(definition: AppDefinition, page: PageDefinition, mail: string): string | undefined {
  const forms = [...walkContent(page.content)].map(({ component }) => formOf(component, page, definition));
  return forms.find((form) => form?.mail === mail)?.collection;
}

/** The collection of the record, or of the rows, whose field a component shows by this path. */
function holderOf(definition: AppDefinition, page: PageDefinition, references: References, path: string): string | undefined {
  const root = references.fields.find((field) => field.path === path)?.root;
  if (root === undefined) return undefined;
  return root.of === 'rows' ? page.rows?.[root.name]?.from : (page.parameters?.[root.name] ?? definition.parameters?.[root.name])?.of;
}

/** Keys that are followed from a record of a collection, with the field’s new name where they come by it. */
function renamedAlong({ definition, collection, from, to }: Renaming, holder: string | undefined, keys: readonly string[]): string[] {
  let present = holder;
  return keys.map((key) => {
    const name = key.replace(/^\?/, '');
    const renamed = present === collection && name === from ? key.replace(name, to) : key;
    present = definition.collections?.[present ?? '']?.fields[name]?.of;
    return renamed;
  });
}

/** @param given what is looked through: the page, or a mail that one of its forms sends */
function inExpressions(renaming: Renaming, at: Place, given: unknown, page: PageDefinition, replace: Replace, saved?: string): void {
  const { definition } = renaming;
  const lists = [...walkContent(page.content)].flatMap(({ path, component }) =>
    typeof component['rows'] === 'string' ? [{ path, from: page.rows?.[component['rows']]?.from }] : [],
  );
  const forms = [...walkContent(page.content)].flatMap(({ path, component }) => {
    const form = formOf(component, page, definition);
    return form === undefined ? [] : [{ path, from: form.collection }];
  });
  const isIn = (path: Place, place: Place) => path.every((key, index) => place[at.length + index] === key);
  const savedAt = (place: Place) => saved ?? forms.findLast(({ path }) => isIn(path, place))?.from;
  const rowAt = (place: Place) => lists.find(({ path }) => isIn(path, place))?.from;
  const followed = (place: Place, path: string): string => {
    const [root = '', ...keys] = path.split('.');
    if (root === 'row') return [root, ...renamedAlong(renaming, rowAt(place), keys)].join('.');
    if (root === 'saved') return [root, ...renamedAlong(renaming, savedAt(place), keys)].join('.');
    const [name = '', ...rest] = keys;
    const plain = name.replace(/^\?/, '');
    const holder = (page.parameters?.[plain] ?? definition.parameters?.[plain])?.of;
    return [root, name, ...renamedAlong(renaming, holder, rest)].join('.');
  };
  for (const found of textsIn(given, at)) {
    if (!mayHoldExpressions(found)) continue;
    const renamed = found.text.replaceAll(/\b(?:record|row|saved)(?:\.\??[A-Za-z_]\w*)+/g, (path) => followed(found.place, path));
    if (renamed !== found.text) replace(found.place, renamed);
  }
}

/** A path such as `house.zone.climate` with the field renamed, wherever on the way it is. */
function renamedPath({ definition, collection, from, to }: Renaming, start: string, path: string): string {
  let at: string | undefined = start;
  const names = path.split('.').map((name) => {
    const renamed = at === collection && name === from ? to : name;
    at = definition.collections?.[at ?? '']?.fields[name]?.of;
    return renamed;
  });
  return names.join('.');
}
