import { optionsName, type OptionSource, type AppDefinition, type LoadPlan, type PageData, type PageFields } from '@pallmist/app';
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
    const record = await store.byKey(space, collections, from, key, { by, fields: fields?.records[parameter] });
    if (record) records[parameter] = record;
    else missing.push({ parameter, key, from, by });
  }
  return { records, missing };
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
    rows[name] = await store.read(space, collections, read, fields.rows[name] ?? {}, counted[name]);
  const options: PageData['options'] = {};
  for (const source of sources) options[optionsName(source)] = await store.options(space, collections, source.from, source.by);
  return { rows, options };
}

/** Where the records of an app are: a draft may have a copy, to be tried out. */
export const recordSpace = ({ records }: Pick<Stores, 'records'>, { draft, definition: { app } }: HostedApp): RecordSpace =>
  draft ? records.draftSpace(app) : app;
