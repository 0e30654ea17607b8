import { parse } from 'csv-parse/browser/esm/sync';
import type { DataRow } from '@pallmist/app/editing';

/** A file of data: its columns, its rows with their lines, and what could not be read. */
export interface ReadFile {
  header: string[];
  rows: DataRow[];
  /** Lines that are no row, each with what is wrong. */
  problems: { line: number; text: string; problem: string }[];
}

/** Most bytes of a file that is read in the browser. */
export const mostBytes = 100_000_000;

/** Reads a CSV file (RFC 4180; commas, semicolons or tabs) or a JSON list of records. @throws Error with a sentence for people */
export function readDataFile(name: string, text: string): ReadFile {
  const plain = text.replace(/^\uFEFF/, '');
  if (/\.(?:json|ndjson|jsonl)$/i.test(name) || /^\s*[[{]/.test(plain)) return readJson(plain);
  return readTable(plain, delimiterOf(plain));
}

/** Reads what was copied from a spreadsheet: cells parted by tabs. */
export const readPasted = (text: string): string[][] =>
  parse(text, { delimiter: '\t', relax_quotes: true, relax_column_count: true, skip_empty_lines: true });

/** The character that parts the cells of the first line. */
function delimiterOf(text: string): string {
  const [first = ''] = text.split(/\r?\n/, 1);
  const count = (character: string) => first.split(character).length;
  return [',', ';', '\t'].reduce((best, character) => (count(character) > count(best) ? character : best));
}

interface WithInfo {
  record: string[];
  info: { lines: number };
}

function readTable(text: string, delimiter: string): ReadFile {
  let parsed: WithInfo[];
  try {
    parsed = parse(text, { delimiter, info: true, relax_column_count: true, skip_empty_lines: true, bom: true }) as unknown as WithInfo[];
  } catch (error) {
    throw new Error(`The file is not well-formed CSV: ${error instanceof Error ? error.message : String(error)}.`, { cause: error });
  }
  const [head, ...body] = parsed;
  if (head === undefined) throw new Error('The file is empty.');
  if (body.length === 0) throw new Error('The file has a heading and no rows.');
  const header = head.record.map((name, index) => name.trim() || `Column ${String(index + 1)}`);
  const rows: DataRow[] = [];
  const problems: ReadFile['problems'] = [];
  for (const { record, info } of body) {
    if (record.length > header.length && record.slice(header.length).some((cell) => cell.trim() !== ''))
      problems.push({
        line: info.lines,
        text: record.join(delimiter),
        problem: `It has ${String(record.length)} cells, and the heading ${String(header.length)}.`,
      });
    else rows.push({ line: info.lines, cells: header.map((_, index) => record[index] ?? '') });
  }
  return { header, rows, problems };
}

function readJson(text: string): ReadFile {
  const lines = text.trim().split('\n');
  let records: unknown;
  try {
    records = JSON.parse(text);
  } catch (error) {
    // A record a line, as programs write many of them.
    records = lines.map((line, index) => {
      try {
        return JSON.parse(line) as unknown;
      } catch {
        throw new Error(`Line ${String(index + 1)} is not JSON.`, { cause: error });
      }
    });
  }
  const list = Array.isArray(records) ? (records as unknown[]) : Object.values(records as object).find(Array.isArray);
  if (!Array.isArray(list) || list.length === 0) throw new Error('The file holds no list of records.');
  const header = [...new Set((list as unknown[]).flatMap((record) => (isRecord(record) ? Object.keys(record) : [])))];
  const rows: DataRow[] = [];
  const problems: ReadFile['problems'] = [];
  for (const [index, record] of (list as unknown[]).entries()) {
    if (isRecord(record)) rows.push({ line: index + 1, cells: header.map((name) => cellOf(record[name])) });
    else problems.push({ line: index + 1, text: JSON.stringify(record), problem: 'It is not a record.' });
  }
  return { header, rows, problems };
}

const isRecord = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value);

function cellOf(value: unknown): string {
  if (value === undefined || value === null) return '';
  return typeof value === 'string' ? value : JSON.stringify(value);
}

/** Writes rows as CSV (RFC 4180). */
export const asCsv = (rows: readonly (readonly string[])[]): string =>
  rows.map((row) => row.map((cell) => (/[",\r\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell)).join(',')).join('\r\n') + '\r\n';
