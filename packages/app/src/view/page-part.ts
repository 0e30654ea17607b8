import type { AppDefinition, PageDefinition } from '../definition/app-definition.ts';
import type { Programs } from '../expressions/program.ts';
import { appPartFor, usesPacked, usesSealed } from './app-part.ts';
import { countedFields } from './counted-fields.ts';
import { cutRecord } from './field-tree.ts';
import type { AppPart, PageData } from './page-payload.ts';
import { fieldsOn, type PageFields } from './page-fields.ts';
import { programsFor } from './page-programs.ts';
import { mentionedWords } from './words.ts';
import { pageToSend } from './settle-page.ts';

/** What showing one page needs of its app, once its conditions are settled: what a browser gets, and what the service keeps. */
export interface PagePart {
  /** The page and the parts of the app that are sent. */
  page: PageDefinition;
  app: AppPart;
  programs: Programs;
  cel: boolean;
  packed: boolean;
  /** Whether its addresses hold sealed values. */
  sealed: boolean;
  /** The fields of records that are sent. */
  fields: PageFields;
  /** What the service reads, too: for forms, their mails, and where they lead. */
  service: { page: PageDefinition; app: AppPart };
}

/** @param settled the page without what is hidden @param held which of its rules for arrivals held, by number */
export function pagePart(definition: AppDefinition, name: string, settled: PageDefinition, held: readonly number[]): PagePart {
  const page = pageToSend(settled, held);
  const { words, ...rest } = appPartFor({ ...definition, mails: {} }, name, page);
  const app = words === undefined ? rest : { ...rest, words: mentionedWords(words, [rest, page]) };
  const whole = appPartFor(definition, name, settled);
  return {
    page,
    app,
    ...programsFor(definition, page),
    packed: usesPacked(whole),
    sealed: usesSealed(whole),
    fields: fieldsOn(definition, page, 'sent'),
    service: { page: settled, app: whole },
  };
}

/** The data of a page with the fields that are sent, and nothing else. */
export function dataToSend({ records, rows, options, titles }: PageData, { fields, page }: Pick<PagePart, 'fields' | 'page'>): PageData {
  const counted = countedFields(page);
  const cut = <Value>(all: Record<string, Value>, named: Record<string, unknown>, change: (name: string, value: Value) => Value) =>
    Object.fromEntries(Object.entries(all).flatMap(([name, value]) => (Object.hasOwn(named, name) ? [[name, change(name, value)]] : [])));
  return {
    records: cut(records, fields.records, (name, record) => cutRecord(record, fields.records[name] ?? {})),
    rows: cut(rows, fields.rows, (name, { counts, ...read }) => ({
      ...read,
      rows: read.rows.map((row) => cutRecord(row, fields.rows[name] ?? {})),
      ...(counts === undefined ? {} : { counts: pick(counts, counted[name] ?? []) }),
    })),
    options,
    ...(titles === undefined ? {} : { titles }),
  };
}

const pick = <Value>(from: Record<string, Value>, names: readonly string[]): Record<string, Value> =>
  Object.fromEntries(Object.entries(from).filter(([name]) => names.includes(name)));
