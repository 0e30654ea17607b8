import { type PatchOperation, toPointer } from '@pallmist/address/declare';
import { walkContent } from '../../components/walk-content.ts';
import { throughBlocks } from '../blocks/through-blocks.ts';
import type { AppDefinition } from '../app-definition.ts';
import { keepFormer } from './keep-former.ts';

/** The JSON Patch that renames a collection everywhere. Its records stay, by the old name that is kept. */
export const renameCollection = throughBlocks((definition: AppDefinition, from: string, to: string): PatchOperation[] => {
  const present = definition.collections?.[from];
  if (present === undefined || from === to || Object.hasOwn(definition.collections ?? {}, to)) return [];
  const patch: PatchOperation[] = [
    { op: 'move', from: toPointer(['collections', from]), path: toPointer(['collections', to]) },
    ...keepFormer(['collections', to, 'formerNames'], present.formerNames, from, to),
  ];
  const replace = (place: (string | number)[], value: string) => patch.push({ op: 'replace', path: toPointer(place), value });
  for (const place of placesOfCollection(definition, from)) {
    const [root, name] = place;
    replace(root === 'collections' && name === from ? ['collections', to, ...place.slice(2)] : place, to);
  }
  return patch;
});

/** Every place that names a collection: parameters, fields, reads, forms. */
export function placesOfCollection(definition: AppDefinition, collection: string): (string | number)[][] {
  const places: (string | number)[][] = [];
  const inParameters = (at: (string | number)[], parameters: AppDefinition['parameters'] = {}) => {
    for (const [name, { type, of, items }] of Object.entries(parameters)) {
      if ((type === 'record' || type === 'sort') && of === collection) places.push([...at, name, 'of']);
      if (items?.type === 'record' && items.of === collection) places.push([...at, name, 'items', 'of']);
    }
  };
  inParameters(['parameters'], definition.parameters);
  for (const [name, { fields }] of Object.entries(definition.collections ?? {}))
    for (const [field, { type, of }] of Object.entries(fields))
      if (type === 'record' && of === collection) places.push(['collections', name, 'fields', field, 'of']);
  for (const [name, page] of Object.entries(definition.pages)) {
    inParameters(['pages', name, 'parameters'], page.parameters);
    for (const [read, { from }] of Object.entries(page.rows ?? {}))
      if (from === collection) places.push(['pages', name, 'rows', read, 'from']);
    for (const { component, path } of walkContent(page.content))
      if (component['collection'] === collection) places.push(['pages', name, ...path, 'collection']);
  }
  return places;
}
