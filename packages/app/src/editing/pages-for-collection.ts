import { type ParameterDeclaration, type PatchOperation, toPointer, withArticle } from '@pallmist/address/declare';
import type { AppDefinition, CollectionDefinition, Component, PageDefinition, ReadDefinition } from '../definition/app-definition.ts';
import { singular } from './available-values.ts';
import { freeName, identifierOf, slugOf } from './names.ts';
import { freeAddress } from './page-edits.ts';

/** The names of the pages that were made. */
export interface CollectionPages {
  patch: PatchOperation[];
  list: string;
  record: string;
  add: string;
  change: string;
}

/** Most filters of a list, and most columns, that are made unasked. */
const mostFilters = 4;
const mostColumns = 6;
const rowsOnPage = 25;

/**
 * The JSON Patch that makes pages for a collection: a list that can be searched, filtered, sorted and paged, all in its
 * address; a page for one record; a form to add one and one to change one; each linked with the others.
 * @param listAt where the list stands; at an address made of the collection’s name when left out
 * @param sample the key of a record to see the pages with while they are built
 */
export function pagesForCollection(
  definition: AppDefinition,
  name: string,
  { listAt, sample }: { listAt?: string; sample?: string | undefined } = {},
): CollectionPages {
  const collection = definition.collections?.[name];
  const taken = Object.keys(definition.pages);
  const one = singular(slugOf(name));
  const list = freeName(listAt === '/' && !taken.includes('home') ? 'home' : slugOf(name), taken, '-');
  const record = freeName(one === list ? `${one}-page` : one, [...taken, list], '-');
  const add = freeName(`add-${one}`, taken, '-');
  const change = freeName(`change-${one}`, taken, '-');
  const names = { list, record, add, change };
  if (collection === undefined) return { patch: [], ...names };
  const context: Context = {
    definition,
    name,
    collection,
    ...names,
    parameter: identifierOf(one, 'record'),
    one,
    sample: sample === undefined ? {} : { sample },
  };
  const base = freeAddress(definition, `/${slugOf(name)}`);
  const pages: [string, PageDefinition][] = [
    [list, listPage(context, listAt ?? base)],
    [record, recordPage(context, base)],
    [add, formPage(context, base, 'create')],
    [change, formPage(context, base, 'change')],
  ];
  return { patch: pages.map(([page, value]): PatchOperation => ({ op: 'add', path: toPointer(['pages', page]), value })), ...names };
}

interface Context {
  definition: AppDefinition;
  name: string;
  collection: CollectionDefinition;
  list: string;
  record: string;
  add: string;
  change: string;
  /** The record parameter. */
  parameter: string;
  /** What one record is called. */
  one: string;
  /** Of the record parameter. */
  sample: { sample?: string };
}

const titleFieldOf = ({ titleField, keyField }: CollectionDefinition) => titleField ?? keyField;
const capital = (text: string) => text.slice(0, 1).toUpperCase() + text.slice(1).replaceAll('-', ' ');
const openFields = ({ fields }: CollectionDefinition) => Object.entries(fields).filter(([, { sensitive }]) => sensitive !== true);

function listPage({ definition, name, collection, record, add, parameter, one }: Context, address: string): PageDefinition {
  const parameters: Record<string, ParameterDeclaration> = {};
  const where: NonNullable<ReadDefinition['where']> = [];
  const controls: Component[] = [];
  const title = titleFieldOf(collection);
  const fields = openFields(collection);
  if (collection.fields[title]?.type === 'text') {
    parameters['q'] = { type: 'text', blank: 'absent', maxLength: 100, resets: ['page'], label: 'Search' };
    where.push({ field: title, contains: '{param.q}' });
    controls.push({ show: 'search', bind: 'q', label: `Search ${capital(name).toLowerCase()}` });
  }
  for (const [field, { type, of = '', label }] of fields) {
    if (Object.keys(parameters).length > mostFilters || (type !== 'choice' && type !== 'record')) continue;
    if (type === 'record' && definition.collections?.[of] === undefined) continue;
    const filter = freeName(field, [...Object.keys(parameters), ...Object.keys(definition.parameters ?? {}), 'sort', 'page', parameter]);
    parameters[filter] = { type, of, resets: ['page'], label: label ?? capital(field) };
    where.push({ field, equals: `{param.${filter}}` });
    controls.push({ show: 'select', bind: filter, label: label ?? capital(field), anyLabel: 'All' });
  }
  const columns = [title, ...fields.map(([field]) => field).filter((field) => field !== title && field !== collection.keyField)];
  const shown = columns.slice(0, mostColumns);
  const sorted = shown.filter((field) => !['file', 'boolean'].includes(collection.fields[field]?.type ?? ''));
  parameters['sort'] = { type: 'sort', of: name, fields: sorted, default: title, resets: ['page'], label: 'Order' };
  parameters['page'] = { type: 'integer', min: 1, default: 1, label: 'Page of the list' };
  const read: ReadDefinition = {
    from: name,
    ...(where.length > 0 ? { where } : {}),
    sort: '{param.sort}',
    page: '{param.page}',
    size: rowsOnPage,
  };
  return {
    title: capital(name),
    address: `${address}{?${Object.keys(parameters).join(',')}}`,
    parameters: parameters as PageDefinition['parameters'],
    rows: { found: read },
    content: [
      { show: 'heading', text: capital(name) },
      { show: 'link', text: `Add ${withArticle(one.replaceAll('-', ' '))}`, to: { page: add }, look: 'button' },
      ...controls,
      { show: 'text', text: '{total.found} found' },
      {
        show: 'table',
        rows: 'found',
        label: capital(name),
        columns: shown.map((field) => ({ field: columnPath(definition, collection, field), ...labelOf(collection, field) })),
        bind: { sort: 'sort' },
        link: { page: record, values: { [parameter]: `{row.${collection.keyField}}` } },
        empty: 'Nothing fits. Choose less, or search for something else.',
      },
      { show: 'pager', rows: 'found', bind: 'page' },
    ],
  };
}

function labelOf(collection: CollectionDefinition, field: string): { label?: string } {
  const { type, label } = collection.fields[field] ?? {};
  return type === 'record' ? { label: label ?? capital(field) } : {};
}

/** A reference is shown by the title of the record that it refers to. */
function columnPath(definition: AppDefinition, { fields }: CollectionDefinition, field: string): string {
  const { type, of = '' } = fields[field] ?? {};
  const target = definition.collections?.[of];
  return type === 'record' && target !== undefined ? `${field}.${titleFieldOf(target)}` : field;
}

function recordPage({ definition, name, collection, list, change, parameter, sample }: Context, base: string): PageDefinition {
  const title = titleFieldOf(collection);
  const shown = openFields(collection).map(([field]) => {
    const path = columnPath(definition, collection, field);
    return path === field ? path : { label: collection.fields[field]?.label ?? capital(field), text: `{record.${parameter}.${path}}` };
  });
  return {
    title: `{record.${parameter}.${title}}`,
    address: `${base}/{${parameter}}`,
    parameters: { [parameter]: { type: 'record', of: name, ...sample } },
    content: [
      { show: 'back', text: `Back to ${capital(name).toLowerCase()}`, to: { page: list } },
      { show: 'heading', text: `{record.${parameter}.${title}}` },
      { show: 'details', bind: parameter, fields: shown },
      { show: 'link', text: 'Change', to: { page: change, values: { [parameter]: `{param.${parameter}}` } }, look: 'button' },
    ],
  };
}

function formPage(context: Context, base: string, action: 'create' | 'change'): PageDefinition {
  const { name, collection, record, list, parameter, one, sample } = context;
  const creates = action === 'create';
  // A sensitive field may be written on an open page, and not shown there.
  const fields = Object.entries(collection.fields).flatMap(([field, { serial, computed, sensitive }]) =>
    serial !== undefined || computed !== undefined || (!creates && (field === collection.keyField || sensitive === true)) ? [] : [field],
  );
  const title = creates ? `Add ${withArticle(one.replaceAll('-', ' '))}` : `Change ${capital(one).toLowerCase()}`;
  const form: Component = {
    show: 'form',
    name: `${action}-${one}`,
    label: title,
    action,
    ...(creates ? { collection: name } : { bind: parameter }),
    fields,
    submit: 'Save',
    then: { page: record, values: { [parameter]: creates ? `{saved.${collection.keyField}}` : `{param.${parameter}}` } },
  };
  return {
    title,
    address: creates ? `${base}/new` : `${base}/{${parameter}}/change`,
    ...(creates ? {} : { parameters: { [parameter]: { type: 'record', of: name, ...sample } } }),
    content: [
      { show: 'back', text: 'Back', to: creates ? { page: list } : { page: record, values: { [parameter]: `{param.${parameter}}` } } },
      { show: 'heading', text: title },
      form,
    ],
  };
}
