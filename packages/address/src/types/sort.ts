import { DeclarationError, type DeclaredType } from '../declare/declared-type.ts';
import { suggest } from '../explain/near.ts';
import { joinItems } from '../joins.ts';
import { refuse } from '../outcome.ts';
import { parameter, type CommonOptions, type Exactly, type Made } from '../parameter.ts';
import { encode } from '../percent.ts';
import type { SortKey } from '../values.ts';
import { oneOf } from './one-of.ts';
import { readItems, remember } from './separated.ts';

/** Most fields that one sort order may name. */
const mostKeys = 8;

/** A sort order: fields joined with commas, the most important first, `-` before a field for descending. */
export function sort<const Field extends string, const Options extends CommonOptions<readonly SortKey<Field>[]> = object>(
  fields: readonly Field[],
  options?: Exactly<Options, CommonOptions<readonly SortKey<Field>[]>>,
  former: readonly (readonly [string, Field])[] = [],
): Made<readonly SortKey<Field>[], Options> {
  const keys = new Map<string | undefined, SortKey<Field>>();
  // What a field was called in the past is read as what it is called now.
  for (const [name, field] of [...former, ...fields.map((field) => [field, field] as const)])
    keys.set(name, { field, descending: false }).set('-' + name, { field, descending: true });
  const { read } = oneOf([...keys.keys()] as string[], []);
  const key = (source: string, from: number, to: number) => {
    const name = read(source, from, to);
    return name === undefined ? refuse('unknown-sort-field') : keys.get(name);
  };
  const checked = (sorted: readonly SortKey<Field>[]) => {
    if (sorted.length === 0) return refuse('empty-sort');
    if (sorted.length > mostKeys) return refuse('too-many', mostKeys);
    for (let i = 1; i < sorted.length; i++)
      for (let j = 0; j < i; j++) if (sorted[i]?.field === sorted[j]?.field) return refuse('repeated-sort-field');
    return sorted;
  };
  return parameter<readonly SortKey<Field>[], never, never>(
    'sort',
    options,
    remember((source, from, to) => {
      const sorted = readItems(key, source, from, to, true, mostKeys, true);
      return sorted === undefined ? undefined : checked(sorted);
    }),
    (value) => {
      if (!Array.isArray(value)) return refuse('not-a-sort');
      let result = '';
      for (const sorted of value as (Partial<SortKey> | null)[]) {
        const { field, descending } = sorted ?? {};
        if (typeof field !== 'string' || typeof descending !== 'boolean') return refuse('not-a-sort');
        if (!fields.includes(field as Field)) return refuse('unknown-sort-field');
        result += (result === '' ? '' : ',') + (descending ? '-' : '') + encode(field);
      }
      return checked(value as SortKey<Field>[]) === undefined ? undefined : result;
    },
    { joins: joinItems, of: fields },
  );
}

/** `type: sort` in an app file: the fields that are listed, or those of a collection. */
export const declaredSort: DeclaredType = {
  attributes: ['of', 'fields'],
  inLists: false,
  make(declaration, { collections }) {
    const { of, fields } = declaration;
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
    const known = Object.keys(collection?.fields ?? {});
    const stranger = collection && fields?.find((field) => !known.includes(field));
    if (stranger !== undefined)
      throw new DeclarationError('fields', 'unknown-field', `The collection has no field “${stranger}”.`, suggest(stranger, known));
    const own = fields ?? known;
    const former = own.flatMap((field) => (collection?.fields[field]?.formerNames ?? []).map((name) => [name, field] as const));
    return sort(own, declaration as CommonOptions<readonly SortKey[]>, former);
  },
};
