import type { AppDefinition, LoadPlan, PageData } from '@pallmist/core';
import type { RecordStore } from '../store/records.ts';

/** A record that the address names and that there is not. */
export interface MissingRecord {
  parameter: string;
  key: string;
}

/** Carries out a page’s load plan. */
export function loadData(records: RecordStore, definition: AppDefinition, plan: LoadPlan): { data: PageData; missing: MissingRecord[] } {
  const { app, collections = {} } = definition;
  const data: PageData = { records: {}, reads: {}, options: {} };
  const missing: MissingRecord[] = [];
  for (const [parameter, { from, key }] of Object.entries(plan.records)) {
    const record = records.byKey(app, collections, from, key);
    if (record) data.records[parameter] = record;
    else missing.push({ parameter, key });
  }
  for (const [name, read] of Object.entries(plan.reads)) data.reads[name] = records.read(app, collections, read);
  for (const collection of plan.options) data.options[collection] = records.options(app, collections, collection);
  return { data, missing };
}
