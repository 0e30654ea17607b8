import { createWriteStream, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { own, fieldText, type AppDefinition, type PlainRecord } from '@pallmist/app';
import { asNoFormula } from './csv-formulas.ts';
import { exportsFolder } from './old-exports.ts';
import { timestamp, type WallClock } from '../clock.ts';
import type { RecordSpace } from '../store/records.ts';
import type { Stores } from '../store/store.ts';

/** Types whose texts are no formulas, whatever they begin with: a negative number stays one. */
const plainTypes = new Set(['integer', 'number', 'boolean', 'date']);

/** A text as a cell of CSV (RFC 4180). */
const cell = (text: string) => (/[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);

/** The records of a collection as a text, a batch at a time: CSV with the fields’ names first, or a list of JSON, a record a line. */
export async function* exportRecords(
  { records }: Pick<Stores, 'records'>,
  { collections = {} }: Pick<AppDefinition, 'collections'>,
  space: RecordSpace,
  collection: string,
  format: 'csv' | 'json',
): AsyncGenerator<string> {
  const declared = own(collections, collection)?.fields ?? {};
  const fields = Object.keys(declared);
  const textOf = (record: PlainRecord, field: string) => {
    const text = fieldText(own(record, field));
    return plainTypes.has(own(declared, field)?.type ?? '') ? text : asNoFormula(text);
  };
  const line = (record: PlainRecord) =>
    format === 'csv' ? fields.map((field) => cell(textOf(record, field))).join(',') : JSON.stringify(record);
  yield format === 'csv' ? `${fields.map(cell).join(',')}\n` : '[\n';
  let first = true;
  for await (const batch of records.all(space, collections, collection)) {
    const before = format === 'json' && !first ? ',\n' : '';
    yield before + batch.map(line).join(format === 'csv' ? '\n' : ',\n') + (format === 'csv' ? '\n' : '');
    first = false;
  }
  if (format === 'json') yield `${first ? '' : '\n'}]\n`;
}

/** Writes the records of a collection into a file beside the database, for the owner of the service alone. @returns its path */
export async function exportBeside(
  stores: Pick<Stores, 'records'>,
  definition: Pick<AppDefinition, 'app' | 'collections'>,
  collection: string,
  directory: string,
  clock: WallClock,
): Promise<string> {
  const folder = join(directory, exportsFolder);
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const name = `${definition.app}-${collection}-${timestamp(clock).replaceAll(/[:.]/g, '-')}.csv`;
  const file = join(folder, name);
  await pipeline(
    Readable.from(exportRecords(stores, definition, definition.app, collection, 'csv')),
    createWriteStream(file, { mode: 0o600 }),
  );
  return file;
}
