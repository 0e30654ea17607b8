import {
  own,
  fieldReader,
  goneTexts,
  isRelativeDate,
  refusingGone,
  Refusal,
  resolveRelativeDate,
  type AppDefinition,
  type FieldReader,
  type PlainRecord,
  type Problem,
} from '@pallmist/app';
import { parse } from 'csv-parse';
import { pipeline, Readable } from 'node:stream';
import { hearErrors } from '../http/streams.ts';
import { asGiven } from './csv-formulas.ts';
import type { Difference, RecordSpace, StagedRecords } from '../store/records.ts';
import type { Store } from '../store/store.ts';

/** Records of one collection on their way in. */
export interface RecordSource {
  collection: string;
  /** CSV as in RFC 4180 with the fields’ names in its first row, or JSON: an object a line, in a list or not. */
  format: 'csv' | 'json';
  content: AsyncIterable<Uint8Array | string>;
}

const batchSize = 500;
const mostShown = 5;
/** Most characters of one line of JSON. */
const longestLine = 5_000_000;

/** A row as it stands in the source. */
interface Row {
  line: number;
  cells: Record<string, unknown>;
}

/** One fault, however often it is there. */
interface Fault {
  problem: Problem;
  count: number;
  lines: number[];
}

/** Gathers the records of one or several collections in tables of their own, and what is wrong with them, once for each fault. */
export class RecordImport {
  readonly #store: Store;
  readonly #definition: AppDefinition;
  readonly #space: RecordSpace;
  readonly #today: string;
  readonly #faults = new Map<string, Fault>();
  readonly #staged = new Map<string, StagedRecords>();
  #rows = 0;

  /** @param today the day that relative dates start from, YYYY-MM-DD */
  constructor(store: Store, definition: AppDefinition, space: RecordSpace, today: string) {
    this.#store = store;
    this.#definition = definition;
    this.#space = space;
    this.#today = today;
  }

  get staged(): StagedRecords[] {
    return [...this.#staged.values()];
  }

  get rows(): number {
    return this.#rows;
  }

  /** Every fault, with how often it is there. */
  get problems(): Problem[] {
    return [...this.#faults.values()].map(({ problem, count, lines }) => ({
      ...problem,
      message:
        count === 1
          ? problem.message
          : `${problem.message} So it is in ${count.toLocaleString('en')} places${lines.length === 0 ? '' : `, first in the lines ${lines.join(', ')}`}.`,
      ...(lines[0] === undefined ? {} : { line: lines[0] }),
    }));
  }

  /** Takes the records of one collection in. Reads as fast as they are kept, and lets others have their turn. */
  async add({ collection: name, format, content }: RecordSource): Promise<void> {
    const { collections = {} } = this.#definition;
    const collection = own(collections, name);
    const file = `${name}.${format}`;
    if (collection === undefined) {
      this.#fault(name, 'unknown-collection', '', `${file}: the app has no collection “${name}”.`);
      return;
    }
    if (this.#staged.has(name)) {
      this.#fault(name, 'repeated-collection', '', `${file}: the collection “${name}” is sent twice.`);
      return;
    }
    const staged = await this.#store.records.stage(this.#space, collections, name);
    this.#staged.set(name, staged);
    const gone = goneTexts(this.#definition, name);
    const readers = new Map(
      Object.entries(collection.fields).map(([field, declared]) => [
        field,
        refusingGone(fieldReader(this.#definition, declared), gone.get(field)),
      ]),
    );
    let batch: { record: PlainRecord; line: number }[] = [];
    const flush = async () => {
      const taken = await staged.add(batch.map(({ record }) => record));
      for (const { position, field } of taken) {
        const { record, line } = batch[position] ?? { record: {}, line: 0 };
        const shown = String(own(record, field) ?? '').slice(0, 60);
        this.#fault(
          name,
          'repeated-value',
          `${field} ${shown}`,
          `${file}: line ${String(line)}: another record has the ${field} “${shown}” already.`,
          line,
        );
      }
      this.#rows += batch.length;
      batch = [];
    };
    const rows = format === 'csv' ? this.#csvRows(name, content) : this.#jsonRows(name, content);
    for await (const { line, cells } of rows) {
      const record = this.#record(name, readers, line, cells);
      if (record !== undefined) batch.push({ record, line });
      if (batch.length >= batchSize) await flush();
    }
    await flush();
  }

  /** Looks for references that lead nowhere, once all records are in. */
  async checkReferences(): Promise<void> {
    const { collections = {} } = this.#definition;
    for (const [name, staged] of this.#staged) {
      for (const [field, { type, of = '' }] of Object.entries(own(collections, name)?.fields ?? {})) {
        if (type !== 'record' || own(collections, of) === undefined) continue;
        const { count, keys } = await staged.strayReferences(field, this.#staged.get(of));
        if (count === 0) continue;
        const places = count === 1 ? '1 record refers' : `${count.toLocaleString('en')} records refer`;
        this.#fault(
          name,
          'unknown-record',
          field,
          `${name}: ${places} by “${field}” to records of “${of}” that there are not: ${listed({ count, keys })}.`,
        );
      }
    }
  }

  /** Drops what was staged. */
  async drop(): Promise<void> {
    for (const staged of this.#staged.values()) await staged.drop();
  }

  #record(name: string, readers: ReadonlyMap<string, FieldReader>, line: number, cells: Row['cells']): PlainRecord | undefined {
    const collection = own(this.#definition.collections, name);
    const record: PlainRecord = {};
    const faults: string[] = [];
    const wrong = (code: string, field: string, sentence: string) => {
      faults.push(field);
      this.#fault(name, code, field, `${name}: line ${String(line)}: ${sentence}`, line);
    };
    for (const field of Object.keys(cells))
      if (!readers.has(field)) wrong('unknown-field', field, `the collection has no field “${field}”.`);
    for (const [field, { required, type, computed }] of Object.entries(collection?.fields ?? {})) {
      // An export has it, and it is computed again.
      if (computed !== undefined) continue;
      const text = textOf(own(cells, field));
      if (text === undefined) {
        wrong('wrong-value', field, `“${field}” is neither a text, a number nor a truth value.`);
        continue;
      }
      if (text === '') {
        if (required === true || field === collection?.keyField) wrong('missing', field, `“${field}” is missing.`);
        continue;
      }
      const value = readers.get(field)?.(type === 'date' && isRelativeDate(text) ? (resolveRelativeDate(text, this.#today) ?? text) : text);
      if (value === undefined || value instanceof Refusal)
        wrong(
          'wrong-value',
          field,
          `“${text.slice(0, 60)}” does not fit the field “${field}”${value === undefined ? '.' : `: ${value.message}`}`,
        );
      else record[field] = value;
    }
    return faults.length === 0 ? record : undefined;
  }

  async *#csvRows(name: string, content: RecordSource['content']): AsyncGenerator<Row> {
    const options = { bom: true, info: true, skip_empty_lines: true, relax_column_count: true };
    // The failure of either reaches the loop below.
    const parser = pipeline(hearErrors(Readable.from(content)), hearErrors(parse(options)), () => undefined);
    let header: string[] | undefined;
    try {
      for await (const { record, info } of parser as AsyncIterable<{ record: string[]; info: { lines: number } }>) {
        if (header === undefined) {
          header = record.map((cell) => cell.trim());
          const twice = header.find((field, index) => header?.indexOf(field) !== index);
          if (twice !== undefined) {
            this.#fault(name, 'repeated-column', twice, `${name}: the first row names “${twice}” twice.`, 1);
            return;
          }
          if (header.length === 1 && /[;\t]/.test(header[0] ?? '')) {
            const sign = header[0]?.includes(';') === true ? ';' : 'the tab';
            this.#fault(
              name,
              'csv-separator',
              '',
              `${name}: the columns are parted by ${sign}; CSV parts them by commas. Export the file again with commas.`,
              1,
            );
            return;
          }
          continue;
        }
        const names = header;
        if (record.length !== names.length) {
          this.#fault(
            name,
            'csv-columns',
            '',
            `${name}: line ${String(info.lines)} has ${String(record.length)} columns, the first row ${String(names.length)}. A text with a comma stands in double quotes.`,
            info.lines,
          );
          continue;
        }
        yield { line: info.lines, cells: Object.fromEntries(names.map((field, index) => [field, asGiven(record[index] ?? '')])) };
      }
    } catch (error) {
      if (error instanceof Error && 'code' in error && String(error.code).startsWith('CSV_')) {
        this.#fault(name, 'csv-syntax', '', `${name}: ${error.message}.`);
        return;
      }
      throw error;
    }
  }

  /** An object a line, as it is or as a line of a list. */
  async *#jsonRows(name: string, content: RecordSource['content']): AsyncGenerator<Row> {
    let line = 0;
    for await (const text of linesOf(content)) {
      line++;
      const bare = text
        .trim()
        .replace(/^\[/, '')
        .replace(/[,\]]+$/, '')
        .trim();
      if (bare === '') continue;
      let cells: unknown;
      try {
        cells = JSON.parse(bare);
      } catch {
        this.#fault(name, 'json-syntax', '', `${name}: line ${String(line)} is not one JSON object. Write a record a line.`, line);
        continue;
      }
      if (typeof cells !== 'object' || cells === null || Array.isArray(cells))
        this.#fault(name, 'json-syntax', '', `${name}: line ${String(line)} is not one JSON object. Write a record a line.`, line);
      else yield { line, cells: cells as Record<string, unknown> };
    }
  }

  /** Notes a fault; one that was noted is counted. */
  #fault(collection: string, code: string, what: string, message: string, line?: number): void {
    const key = `${collection} ${code} ${what}`;
    const present = this.#faults.get(key);
    if (present === undefined) {
      const problem: Problem = { code, severity: 'error', message, pointer: `/data/${collection}` };
      this.#faults.set(key, { problem, count: 1, lines: line === undefined ? [] : [line] });
      return;
    }
    present.count++;
    if (line !== undefined && present.lines.length < mostShown) present.lines.push(line);
  }
}

/** Some keys, and that there are more. */
export const listed = ({ count, keys }: Difference): string => (keys.length < count ? `${keys.join(', ')} and others` : keys.join(', '));

function textOf(cell: unknown): string | undefined {
  if (cell === undefined || cell === null) return '';
  if (typeof cell === 'string') return cell;
  return typeof cell === 'number' || typeof cell === 'boolean' ? String(cell) : undefined;
}

async function* linesOf(content: AsyncIterable<Uint8Array | string>): AsyncGenerator<string> {
  const decoder = new TextDecoder();
  let rest = '';
  for await (const chunk of content) {
    rest += typeof chunk === 'string' ? chunk : decoder.decode(chunk, { stream: true });
    const lines = rest.split('\n');
    rest = lines.pop() ?? '';
    yield* lines;
    if (rest.length > longestLine) throw new RangeError('A line of the file is too long.');
  }
  if (rest !== '') yield rest;
}
