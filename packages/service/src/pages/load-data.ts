import {
  own,
  fieldText,
  recordTitle,
  optionsName,
  type AppDefinition,
  type LoadPlan,
  type OptionSource,
  type PageData,
  type PageDefinition,
  type PageFields,
  type Values,
} from '@pallmist/app';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { RecordSpace, RecordStore } from '../store/records.ts';
import type { Stores } from '../store/store.ts';

/** A record that the address names and that there is not. */
export interface MissingRecord {
  parameter: string;
  key: string;
  /** Its collection, and the field that names it where that is not the key. */
  from: string;
  by: string | undefined;
  /** Parameters that it does not belong to, where there is such a record. */
  tiedTo?: readonly string[];
}

/** Loads the records that a page's parameters name. @param fields those that are needed; all of them when left out */
export async function loadRecords(
  store: RecordStore,
  space: RecordSpace,
  { collections = {} }: AppDefinition,
  plan: LoadPlan,
  fields: PageFields | undefined,
): Promise<{ records: PageData['records']; missing: MissingRecord[] }> {
  const records: PageData['records'] = {};
  const missing: MissingRecord[] = [];
  for (const [parameter, { from, key, by }] of Object.entries(plan.records)) {
    const record = await store.byKey(space, collections, from, key, { by, fields: own(fields?.records, parameter) });
    if (record) records[parameter] = record;
    else missing.push({ parameter, key, from, by });
  }
  return { records, missing };
}

/** The records that exist but are not tied to the page’s other values as declared. */
export async function strangers(
  store: RecordStore,
  space: RecordSpace,
  { collections = {} }: AppDefinition,
  page: PageDefinition,
  plan: LoadPlan,
  values: Values,
): Promise<MissingRecord[]> {
  const found: MissingRecord[] = [];
  for (const [parameter, { from, key, by }] of Object.entries(plan.records)) {
    const ties = Object.entries(own(page.parameters, parameter)?.tied ?? {});
    if (ties.length === 0) continue;
    const record = await store.byKey(space, collections, from, key, { by, fields: Object.fromEntries(ties.map(([field]) => [field, {}])) });
    const holds = ([field, other]: [string, string]) => {
      const of = own(own(collections, from)?.fields, field)?.of;
      return fieldText(own(record, field), of === undefined ? undefined : own(collections, of)) === fieldText(own(values, other));
    };
    if (record !== undefined && !ties.every(holds)) found.push({ parameter, key, from, by, tiedTo: ties.map(([, other]) => other) });
  }
  return found;
}

/** What the records are called that lists name, and the keys that no record has. */
export async function loadListed(
  store: RecordStore,
  space: RecordSpace,
  definition: AppDefinition,
  lists: LoadPlan['lists'],
): Promise<{ titles: Record<string, string[]>; unknown: { parameter: string; keys: string[]; kept: string[] }[] }> {
  const titles: Record<string, string[]> = {};
  const unknown: { parameter: string; keys: string[]; kept: string[] }[] = [];
  const { collections = {} } = definition;
  for (const [parameter, { from, keys }] of Object.entries(lists)) {
    const field = own(collections, from)?.keyField ?? '';
    const where = [{ field, operator: 'oneOf' as const, value: [...keys] }];
    const fields = { [field]: {}, [own(collections, from)?.titleField ?? field]: {} };
    const read = { from, where, sort: [], page: 1, size: keys.length, nothing: false };
    const found = new Map((await store.read(space, collections, read, fields)).rows.map((row) => [fieldText(own(row, field)), row]));
    const kept = keys.filter((key) => found.has(key));
    titles[parameter] = kept.map((key) => recordTitle(definition, from, found.get(key) ?? {}));
    if (kept.length < keys.length) unknown.push({ parameter, keys: keys.filter((key) => !found.has(key)), kept });
  }
  return { titles, unknown };
}

/** What is loaded of lists beyond their rows: what there is to choose from, and the fields by which rows are counted. */
export interface ListSources {
  options: readonly OptionSource[];
  counted: Readonly<Record<string, readonly string[]>>;
}

/** Carries out a page's reads, and lists what there is to choose from. */
export async function loadLists(
  store: RecordStore,
  space: RecordSpace,
  { collections = {} }: AppDefinition,
  plan: LoadPlan,
  { options: sources, counted }: ListSources,
  fields: PageFields,
): Promise<Pick<PageData, 'rows' | 'options'>> {
  const rows: PageData['rows'] = {};
  for (const [name, read] of Object.entries(plan.rows))
    rows[name] = await store.read(space, collections, read, own(fields.rows, name) ?? {}, own(counted, name));
  const options: PageData['options'] = {};
  for (const source of sources) options[optionsName(source)] = await store.options(space, collections, source.from, source.by);
  return { rows, options };
}

/** Where the records of an app are: a draft may have a copy, to be tried out. */
export const recordSpace = ({ records }: Pick<Stores, 'records'>, { trial, definition: { app } }: HostedApp): RecordSpace =>
  trial ? records.draftSpace(app) : app;
