import { fieldReader, type AppDefinition, type PlainRecord, type Problem } from '@pallmist/core';
import { parse } from 'csv-parse/sync';

const mostProblems = 50;

/**
 * Reads the CSV text (RFC 4180, first row with the names of the fields) of a collection.
 * @returns the records, and every problem with the line it is in; records of a text with errors must not be kept
 */
export function readCsv(definition: AppDefinition, name: string, text: string): { records: PlainRecord[]; problems: Problem[] } {
  const collection = definition.collections?.[name];
  const problems: Problem[] = [];
  const fail = (code: string, message: string, line?: number) => {
    if (problems.length < mostProblems)
      problems.push({
        code,
        severity: 'error',
        message: `${name}.csv: ${message}`,
        pointer: `/data/${name}`,
        ...(line === undefined ? {} : { line }),
      });
  };
  if (!collection) {
    fail('unknown-collection', `the app has no collection “${name}”.`);
    return { records: [], problems };
  }
  let rows: { info: { lines: number }; record: Record<string, string> }[];
  try {
    rows = parse(text, { columns: true, bom: true, info: true, skip_empty_lines: true, relax_column_count: false });
  } catch (error) {
    fail('csv-syntax', error instanceof Error ? error.message : 'it is not well-formed CSV.');
    return { records: [], problems };
  }
  const strange = Object.keys(rows[0]?.record ?? {}).filter((field) => !Object.hasOwn(collection.fields, field));
  for (const field of strange) fail('unknown-field', `the collection has no field “${field}”.`, 1);
  const read = new Map(Object.entries(collection.fields).map(([field, declared]) => [field, fieldReader(definition, declared)]));
  const keys = new Set<string>();
  const records = rows.map(({ info, record }) => {
    const kept: PlainRecord = {};
    for (const [field, { required }] of Object.entries(collection.fields)) {
      const given = record[field] ?? '';
      if (given === '') {
        if (required === true || field === collection.key) fail('missing', `line ${String(info.lines)} has no “${field}”.`, info.lines);
        continue;
      }
      const value = read.get(field)?.(given);
      if (typeof value === 'object' || value === undefined)
        fail('wrong-value', `line ${String(info.lines)}: “${given.slice(0, 60)}” does not fit the field “${field}”.`, info.lines);
      else kept[field] = value;
    }
    const key = String(kept[collection.key]);
    if (keys.has(key)) fail('repeated-key', `line ${String(info.lines)}: there is another record “${key}”.`, info.lines);
    keys.add(key);
    return kept;
  });
  return { records, problems };
}
