import { cellText, type BadCell, type DataRow, type GuessedField } from '@pallmist/app/editing';
import type { NewCollection } from '@pallmist/app/new-app';
import { client, explain } from '../service/calls.ts';
import { asCsv } from './read-file.ts';

/** Rows that are sent at a time, so that progress shows and the import can be stopped. */
const batch = 1000;

/** Brings the rows of a file into a collection, a batch at a time. */
export class RowImport {
  done = $state(0);
  total = $state(0);
  failure: string | undefined = $state();
  #stopped = false;

  stop(): void {
    this.#stopped = true;
  }

  /** @param bad rows with these are left out @returns whether everything else is in */
  async run(
    app: string,
    { name, collection, values }: NewCollection,
    fields: readonly GuessedField[],
    rows: readonly DataRow[],
    bad: readonly BadCell[],
  ): Promise<boolean> {
    const left = new Set(bad.map(({ row }) => row));
    const good = rows.filter((_, index) => !left.has(index));
    const used = fields.flatMap((field, index) => (field.skip === true ? [] : [{ field, index }]));
    const byText = new Map(Object.entries(values).map(([field, texts]) => [field, new Map(Object.entries(texts))]));
    const empty = new Map<string, string>();
    const serial = collection.fields[collection.keyField]?.serial;
    const counts = serial !== undefined && !used.some(({ field }) => field.name === collection.keyField);
    const header = [...(counts ? [collection.keyField] : []), ...used.map(({ field }) => field.name)];
    this.total = good.length;
    this.done = 0;
    this.failure = undefined;
    for (let start = 0; start < good.length && !this.#stopped; start += batch) {
      const lines = good.slice(start, start + batch).map(({ cells }, index) => {
        const number = counts ? [numbered(serial, start + index + 1)] : [];
        return [...number, ...used.map(({ field, index: at }) => cellText(cells[at] ?? '', field, byText.get(field.name) ?? empty))];
      });
      const text = new TextEncoder().encode(asCsv([header, ...lines]));
      try {
        await client.importText(app, name, text);
      } catch (error) {
        this.failure = explain(error);
        return false;
      }
      this.done = Math.min(good.length, start + batch);
    }
    return !this.#stopped;
  }
}

const numbered = (serial: string, number: number) => serial.replace(/0+$/, (zeros) => String(number).padStart(zeros.length, '0'));
