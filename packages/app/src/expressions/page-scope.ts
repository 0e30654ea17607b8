import { own } from '../own.ts';
import type { AppDefinition, FieldDefinition, FigureDefinition, PageDefinition } from '../definition/app-definition.ts';
import type { ParameterDeclaration } from '@pallmist/address/declare';
import { figureOf } from '../definition/figures.ts';
import type { ScopeTypes } from './evaluator.ts';
import type { ScopeType } from './scope-types.ts';

type Fields = Record<string, ScopeType>;

const plainTypes: Partial<Record<ParameterDeclaration['type'], ScopeType>> = {
  integer: 'int',
  number: 'double',
  boolean: 'bool',
  sort: { list: { fields: { field: 'string', descending: 'bool' } } },
  packed: 'dyn',
};

/** The type of a parameter's value in an expression. */
export function parameterScopeType({ type, of, items }: ParameterDeclaration): ScopeType {
  if (type === 'list') return { list: (items && own(plainTypes, items.type)) ?? 'string' };
  if (type === 'range') {
    const end = own(plainTypes, of as ParameterDeclaration['type']) ?? 'string';
    return { fields: { from: end, to: end } };
  }
  return own(plainTypes, type) ?? 'string';
}

/** What an expression may name anywhere in an app, outside a page too. */
export const appScopeTypes: ScopeTypes = {
  today: 'string',
  person: { fields: { login: 'string', name: 'string', roles: { list: 'string' } } },
  app: { fields: { title: 'string', mount: 'string', language: 'string', timeZone: 'string' } },
};

/** The collections of an app, as far as types need them. */
export type CollectionsPart = Pick<AppDefinition, 'collections' | 'parameters' | 'words'>;

type PagePart = Pick<PageDefinition, 'parameters' | 'rows'>;
const known = new WeakMap<PagePart, WeakMap<CollectionsPart, ScopeTypes>>();

/** What the expressions of a page may name, with the type of each. Definitions do not change, so it is settled once. */
export function pageScopeTypes(app: CollectionsPart, page: PagePart): ScopeTypes {
  const ofPage = known.get(page) ?? new WeakMap<CollectionsPart, ScopeTypes>();
  known.set(page, ofPage);
  const types = ofPage.get(app) ?? settleTypes(app, page);
  ofPage.set(app, types);
  return types;
}

function settleTypes(app: CollectionsPart, page: PagePart): ScopeTypes {
  const param: Fields = {};
  const visit: Fields = {};
  const record: Fields = {};
  for (const [name, declaration] of Object.entries({ ...app.parameters, ...page.parameters })) {
    (declaration.reach === 'visit' ? visit : param)[name] = parameterScopeType(declaration);
    if (declaration.type === 'record' && declaration.of !== undefined) record[name] = recordType(app, declaration.of);
  }
  const label: Fields = {};
  for (const [name, { type, items }] of Object.entries({ ...app.parameters, ...page.parameters })) {
    if (type === 'choice' || type === 'record') label[name] = 'string';
    if (items?.type === 'choice' || items?.type === 'record') label[name] = { list: 'string' };
  }
  const rows: Fields = {};
  const total: Fields = {};
  const figures: Fields = {};
  for (const [name, read] of Object.entries(page.rows ?? {})) {
    rows[name] = { list: recordType(app, read.from) };
    total[name] = 'int';
    figures[name] = {
      fields: Object.fromEntries(Object.entries(read.figures ?? {}).map(([figure, of]) => [figure, figureType(app, read.from, of)])),
    };
  }
  return {
    param: { fields: param },
    visit: { fields: visit },
    record: { fields: record },
    label: { fields: label },
    word: { fields: Object.fromEntries(Object.keys(app.words ?? {}).map((name) => [name, 'string'])) },
    previous: { fields: { page: 'string', address: 'string' } },
    rows: { fields: rows },
    total: { fields: total },
    figures: { fields: figures },
    ...appScopeTypes,
  };
}

/** The type of a collection's records. A field that refers to a record holds that record, whose own references are keys. */
export const recordType = (app: CollectionsPart, collection: string, depth = 1): ScopeType =>
  fieldsType(app.collections?.[collection]?.fields ?? {}, (of) => (depth > 0 ? recordType(app, of, depth - 1) : 'string'));

/** The type of a record with these fields. @param referred the type of what a reference holds; its key when left out */
export function fieldsType(
  declared: Readonly<Record<string, Pick<FieldDefinition, 'type' | 'of'>>>,
  referred: (of: string) => ScopeType = () => 'string',
): ScopeType {
  const fields: Fields = {};
  for (const [name, field] of Object.entries(declared)) {
    if (field.type === 'record') fields[name] = field.of === undefined ? 'string' : referred(field.of);
    else if (field.type === 'integer') fields[name] = 'int';
    else if (field.type === 'number') fields[name] = 'double';
    else if (field.type === 'boolean') fields[name] = 'bool';
    else fields[name] = 'string';
  }
  return { fields };
}

function figureType({ collections }: CollectionsPart, from: string, figure: FigureDefinition): ScopeType {
  const { of, field } = figureOf(figure);
  const type = collections?.[from]?.fields[field]?.type;
  if (of === 'distinct') return 'int';
  if (of === 'average') return 'double';
  return type === 'integer' ? 'int' : type === 'number' ? 'double' : 'string';
}
