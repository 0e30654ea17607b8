import { cellText, type BadCell, type DataRow, type GuessedField } from './guess-collection.ts';
import type { NewCollection } from './new-app.ts';

/** The rows of a file as the columns of a collection: the names of the fields, and lines of texts. */
export interface RowsToSend {
  header: string[];
  lines: string[][];
}

/** Turns rows into what the collection takes. @param bad rows that have one of these cells are left out */
export function rowsToSend(
  { collection, values }: NewCollection,
  fields: readonly GuessedField[],
  rows: readonly DataRow[],
  bad: readonly BadCell[],
): RowsToSend {
  const left = new Set(bad.map(({ row }) => row));
  const used = fields.flatMap((field, index) => (field.skip === true ? [] : [{ field, index }]));
  const byText = new Map(Object.entries(values).map(([field, texts]) => [field, new Map(Object.entries(texts))]));
  const nothing = new Map<string, string>();
  const serial = collection.fields[collection.keyField]?.serial;
  const counts = serial !== undefined && !used.some(({ field }) => field.name === collection.keyField);
  const good = rows.filter((_, index) => !left.has(index));
  return {
    header: [...(counts ? [collection.keyField] : []), ...used.map(({ field }) => field.name)],
    lines: good.map(({ cells }, index) => [
      ...(counts ? [numbered(serial, index + 1)] : []),
      ...used.map(({ field, index: at }) => cellText(cells[at] ?? '', field, byText.get(field.name) ?? nothing)),
    ]),
  };
}

const numbered = (serial: string, number: number) => serial.replace(/0+$/, (zeros) => String(number).padStart(zeros.length, '0'));
