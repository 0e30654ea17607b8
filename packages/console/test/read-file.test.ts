import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { asCsv, readDataFile, readPasted } from '../src/start/read-file.ts';

describe('a file of data', () => {
  it('gives back any rows that were written as CSV', () => {
    const cell = fc.string({ maxLength: 8, unit: fc.constantFrom('a', 'ß', '"', ',', ';', '\t', '\n', ' ', '日') });
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.constant('x').chain((x) => cell.map((text) => x + text)),
            cell,
          ),
          { minLength: 1 },
        ),
        (rows) => {
          const read = readDataFile('plants.csv', asCsv([['code', 'name'], ...rows]));
          expect(read.header).toEqual(['code', 'name']);
          expect(read.rows.map(({ cells }) => cells)).toEqual(rows);
          expect(read.problems).toEqual([]);
        },
      ),
    );
  });

  it.each([
    ['commas', 'code,name\nA1,Fern\n'],
    ['semicolons', 'code;name\nA1;Fern\n'],
    ['tabs', 'code\tname\nA1\tFern\n'],
    ['a byte order mark and CRLF', '\uFEFFcode,name\r\nA1,Fern\r\n'],
    ['a list of JSON records', '[{"code":"A1","name":"Fern"}]'],
    ['a JSON object that holds the list', '{"plants":[{"code":"A1","name":"Fern"}]}'],
    ['a JSON record a line', '{"code":"A1"}\n{"code":"A2","name":"Fern"}'],
  ])('is read with %s', (_, text) => {
    const { header, rows } = readDataFile('plants', text);
    expect(header).toEqual(['code', 'name']);
    expect(rows.at(-1)?.cells.at(-1)).toBe('Fern');
  });

  it('names a column without a heading, fills short rows and reports long ones with their line', () => {
    const { header, rows, problems } = readDataFile('plants.csv', 'code,\nA1\nA2,Fern,too,much\nA3,Moss\n');
    expect(header).toEqual(['code', 'Column 2']);
    expect(rows).toEqual([
      { line: 2, cells: ['A1', ''] },
      { line: 4, cells: ['A3', 'Moss'] },
    ]);
    expect(problems).toEqual([{ line: 3, text: 'A2,Fern,too,much', problem: 'It has 4 cells, and the heading 2.' }]);
  });

  it.each([
    ['', 'The file is empty.'],
    ['code,name\n', 'The file has a heading and no rows.'],
    ['code,name\n"A1,Fern\n', 'The file is not well-formed CSV'],
    ['{"a":1}\n{"a":', 'Line 2 is not JSON.'],
    ['{"a":1}', 'The file holds no list of records.'],
    ['[]', 'The file holds no list of records.'],
  ])('%j is refused with a sentence', (text, sentence) => {
    expect(() => readDataFile('plants', text)).toThrow(sentence);
  });
});

it('reads what a spreadsheet copies, with quotes and line breaks in cells', () => {
  expect(readPasted('A1\tFern\nA2\t"two\nlines"\n')).toEqual([
    ['A1', 'Fern'],
    ['A2', 'two\nlines'],
  ]);
});
