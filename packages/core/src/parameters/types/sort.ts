import { suggest } from '../../near.ts';
import { Corrected, DeclarationError, Refusal, type ParameterType } from '../codec.ts';
import type { SortKey } from '../declaration.ts';

/** Most fields that one sort order may name. */
const mostKeys = 8;

/** A sort order: fields joined with commas, the most important first, `-` before a field for descending. */
export const sort: ParameterType = {
  attributes: ['of', 'fields'],
  prepare({ of, fields }, { collections }) {
    const collection = of === undefined ? undefined : collections[of];
    if (of !== undefined && collection === undefined) {
      throw new DeclarationError('of', 'unknown-collection', `There is no collection “${of}”.`, suggest(of, Object.keys(collections)));
    }
    if (collection === undefined && fields === undefined) {
      throw new DeclarationError(
        'fields',
        'fields-missing',
        'A sort order needs fields.',
        'Name a collection with “of”, or list “fields”.',
      );
    }
    const stranger = collection && fields?.find((field) => !Object.hasOwn(collection.fields, field));
    if (stranger !== undefined) {
      const there = suggest(stranger, Object.keys(collection?.fields ?? {}));
      throw new DeclarationError('fields', 'unknown-field', `The collection has no field “${stranger}”.`, there);
    }
    const allowed = new Set(fields ?? Object.keys(collection?.fields ?? {}));

    const refuse = (keys: readonly SortKey[]) => {
      if (keys.length === 0) return new Refusal('empty-sort', 'It names no field to sort by.');
      if (keys.length > mostKeys) return new Refusal('too-many', `It sorts by more than ${String(mostKeys)} fields.`);
      const seen = new Set<string>();
      for (const { field } of keys) {
        if (!allowed.has(field)) return new Refusal('unknown-sort-field', 'It sorts by a field that cannot be sorted by.');
        if (seen.has(field)) return new Refusal('repeated-sort-field', 'It names a field twice.');
        seen.add(field);
      }
      return undefined;
    };

    const readTexts = (texts: readonly string[]) => {
      if (texts.length > 200) return new Refusal('too-many', 'The sort order is too long.');
      const tidy = texts.flatMap((text) => text.split(',')).map((text) => text.trim());
      const named = tidy.filter((text) => text !== '');
      const keys = named.map(readKey);
      const asWritten = named.length === texts.length && named.every((text, index) => text === texts[index]);
      return refuse(keys) ?? (asWritten ? keys : new Corrected(keys));
    };
    const writeTexts = (value: unknown) => {
      if (!Array.isArray(value) || !value.every(isSortKey)) return new Refusal('not-a-sort', 'It is not a sort order.');
      return refuse(value) ?? value.map(({ field, descending }) => (descending ? '-' : '') + field);
    };
    return {
      several: { joins: true, read: readTexts, write: writeTexts },
      read: (text) => readTexts(text.split(',')),
      write(value) {
        const texts = writeTexts(value);
        return texts instanceof Refusal ? texts : texts.join(',');
      },
    };
  },
};

function readKey(text: string): SortKey {
  const descending = text.startsWith('-');
  return { field: descending ? text.slice(1) : text, descending };
}

function isSortKey(value: unknown): value is SortKey {
  return (
    typeof value === 'object' &&
    value !== null &&
    'field' in value &&
    typeof value.field === 'string' &&
    'descending' in value &&
    typeof value.descending === 'boolean'
  );
}
