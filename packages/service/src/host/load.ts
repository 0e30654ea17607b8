import { optionsName, type AppDefinition, type LoadPlan, type PageData } from '@pallmist/core';
import type { Store } from '../store/open-store.ts';
import type { RecordStore } from '../store/records.ts';
import type { HostedApp } from './hosted-app.ts';

/** A record that the address names and that there is not. */
export interface MissingRecord {
  parameter: string;
  key: string;
}

/**
 * Loads the records that a page's parameters name.
 * @param app the name under which they are kept
 * @param wanted names of the fields that are needed; all of them when left out
 */
export function loadRecords(
  store: RecordStore,
  app: string,
  { collections = {} }: AppDefinition,
  plan: LoadPlan,
  wanted?: ReadonlySet<string>,
): { records: PageData['records']; missing: MissingRecord[] } {
  const records: PageData['records'] = {};
  const missing: MissingRecord[] = [];
  for (const [parameter, { from, key, by }] of Object.entries(plan.records)) {
    const record = store.byKey(app, collections, from, key, by, wanted);
    if (record) records[parameter] = record;
    else missing.push({ parameter, key });
  }
  return { records, missing };
}

/**
 * Carries out a page's reads, and lists what there is to choose from.
 * @param app the name under which the records are kept
 */
export function loadLists(
  store: RecordStore,
  app: string,
  { collections = {} }: AppDefinition,
  plan: LoadPlan,
  wanted: ReadonlySet<string>,
): Pick<PageData, 'reads' | 'options'> {
  const reads = Object.entries(plan.reads).map(([name, read]) => [name, store.read(app, collections, read, wanted)] as const);
  const options = plan.options.map((source) => [optionsName(source), store.options(app, collections, source.from, source.by)] as const);
  return { reads: Object.fromEntries(reads), options: Object.fromEntries(options) };
}

/** The name under which the records of an app are kept: a draft may have a copy, to be tried out. */
export const recordsOf = ({ trials }: Pick<Store, 'trials'>, { draft, definition: { app } }: HostedApp): string =>
  draft ? trials.nameFor(app) : app;
