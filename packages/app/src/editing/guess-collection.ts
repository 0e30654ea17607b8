import { plainText } from '../expressions/template-text.ts';
import type { FieldDefinition } from '../definition/app-definition.ts';
import { fieldReader } from '../records/field-value.ts';
import { Refusal } from '@pallmist/address/pages';
import { freeName, identifierOf } from './names.ts';

/** A row of a file of data: the number of its line, and its cells. */
export interface DataRow {
  line: number;
  cells: readonly string[];
}

/** A column of a file, and the field that it becomes. */
export interface GuessedField {
  /** As the file names it. */
  column: string;
  name: string;
  field: FieldDefinition;
  /** For a choice: its values, in the order in which they come. */
  choices?: string[];
  /** Whether every row has a value, unlike every other: the column can be the key. */
  canBeKey: boolean;
  /** Left out of the collection. */
  skip?: boolean;
}

/** A cell that its field does not take. */
export interface BadCell {
  line: number;
  row: number;
  column: number;
  text: string;
  problem: string;
}

/** Most different values of a column that is taken for a choice. */
const mostChoices = 12;
/** Rows that are looked at to guess; all of them are checked afterwards. */
const sampleSize = 2000;

/** Filled cells from which on an odd one does not change the type of its column, and the share of cells that may be odd. */
const leastForOdd = 5;
const oddShare = 0.05;

const patterns: [FieldDefinition['type'], (text: string) => boolean][] = [
  ['boolean', (text) => /^(?:true|false|yes|no)$/i.test(text)],
  ['integer', (text) => /^-?(?:0|[1-9]\d{0,14})$/.test(text)],
  ['number', (text) => /^-?\d+(?:\.\d+)?$/.test(text) && !/^-?0\d/.test(text)],
  ['date', (text) => /^\d{4}-(?:0[1-9]|1[0-2])-(?:0[1-9]|[12]\d|3[01])$/.test(text)],
];

/** Guesses what each column of a file is: its name, its type, and whether it can be the key. */
export function guessFields(header: readonly string[], rows: readonly DataRow[]): GuessedField[] {
  const names: string[] = [];
  return header.map((column, index) => {
    const name = freeName(identifierOf(column, `column${String(index + 1)}`), names);
    names.push(name);
    const given = rows.slice(0, sampleSize).map(({ cells }) => (cells[index] ?? '').trim());
    const filled = given.filter((text) => text !== '');
    const { type, choices } = guessType(filled);
    const unique = rows.length > 0 && allDifferent(rows, index);
    const complete = rows.length > 0 && rows.every(({ cells }) => (cells[index] ?? '').trim() !== '');
    const label = column.trim() !== '' && column.trim() !== name ? { label: plainText(column.trim().slice(0, 80)) } : {};
    const required = complete && type !== 'boolean' ? { required: true } : {};
    return {
      column,
      name,
      field: { type, ...label, ...required },
      ...(choices === undefined ? {} : { choices }),
      canBeKey: unique && complete && (type === 'text' || type === 'integer'),
    };
  });
}

function guessType(filled: readonly string[]): { type: FieldDefinition['type']; choices?: string[] } {
  if (filled.length === 0) return { type: 'text' };
  // A few odd cells do not make a column of numbers a text: they are listed, to be corrected.
  for (const [type, fits] of patterns) {
    const odd = filled.length - filled.filter(fits).length;
    if (odd <= (filled.length < leastForOdd ? 0 : Math.max(1, filled.length * oddShare))) return { type };
  }
  const different = [...new Set(filled)];
  const short = different.every((text) => text.length <= 40 && !/[\n,]/.test(text));
  if (short && different.length <= mostChoices && filled.length >= different.length * 4) return { type: 'choice', choices: different };
  return { type: 'text' };
}

function allDifferent(rows: readonly DataRow[], index: number): boolean {
  const seen = new Set<string>();
  for (const { cells } of rows) {
    const text = (cells[index] ?? '').trim();
    if (seen.has(text)) return false;
    seen.add(text);
  }
  return true;
}

/** The column that names a record best: one that can be the key, the shortest texts first; undefined where none can be. */
export function proposeKey(fields: readonly GuessedField[]): string | undefined {
  const named = /(?:^|[^a-z])(?:id|key|code|no|nr|number|sku|slug|ref|accession)(?:[^a-z]|$)/i;
  const able = fields.filter(({ canBeKey }) => canBeKey);
  return (able.find(({ column }) => named.test(column)) ?? able[0])?.name;
}

/** The field that names a record to people. */
export function proposeTitle(fields: readonly GuessedField[], key: string | undefined): string | undefined {
  const texts = fields.filter(({ field, name }) => field.type === 'text' && name !== key);
  return (texts.find(({ column }) => /name|title|label|heading/i.test(column)) ?? texts[0])?.name;
}

/** A cell’s text as its field reads it: a choice by its value, yes and no as true and false. */
export function cellText(text: string, { field, choices }: GuessedField, values: ReadonlyMap<string, string>): string {
  const plain = text.trim();
  if (field.type === 'boolean') return /^(?:yes|true)$/i.test(plain) ? 'true' : /^(?:no|false)$/i.test(plain) ? 'false' : plain;
  return choices === undefined ? plain : (values.get(plain) ?? plain);
}

/** Every cell that its field refuses, with the line that it stands in. */
export function badCells(fields: readonly GuessedField[], rows: readonly DataRow[], key: string | undefined): BadCell[] {
  const found: BadCell[] = [];
  const keys = new Map<string, number>();
  const readers = fields.map((guessed) => (guessed.field.type === 'choice' ? undefined : fieldReader({}, guessed.field)));
  for (const [row, { line, cells }] of rows.entries()) {
    for (const [column, guessed] of fields.entries()) {
      if (guessed.skip === true) continue;
      const text = cellText(cells[column] ?? '', guessed, new Map());
      const bad = (problem: string) => found.push({ line, row, column, text, problem });
      if (guessed.name === key) {
        const first = keys.get(text);
        if (text === '') bad('The key is missing.');
        else if (first !== undefined) bad(`Line ${String(first)} has the same key.`);
        keys.set(text, first ?? line);
      }
      if (text === '') {
        if (guessed.field.required === true && guessed.name !== key) bad('This cannot be empty.');
        continue;
      }
      if (guessed.choices !== undefined) {
        if (!guessed.choices.includes(text)) bad('It is not one of the choices.');
        continue;
      }
      const value = readers[column]?.(text);
      if (value instanceof Refusal) bad(value.message);
    }
  }
  return found;
}
