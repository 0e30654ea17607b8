import { checkAppFile } from '@pallmist/app';
import { badCells, guessFields, proposeKey, proposeTitle, singular, slugOf, type DataRow } from '@pallmist/app/editing';
import { appFileText, appFromCollection, collectionFrom, nameNewApp } from '@pallmist/app/new-app';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { often } from '../../../../test/support/often.ts';

const rowsOf = (columns: string[][]): DataRow[] => columns.map((cells, index) => ({ line: index + 2, cells }));

it('guesses types, keys and titles, and lists each cell that does not fit with its line', () => {
  const rows = rowsOf(
    Array.from({ length: 50 }, (_, index) => [
      `P-${String(index)}`,
      `Plant ${String(index)}`,
      ['shade', 'sun'][index % 2] ?? '',
      index === 30 ? 'tall' : String(index / 2),
      index % 3 === 0 ? 'yes' : 'no',
      '2026-02-28',
    ]),
  );
  const fields = guessFields(['Plant no.', 'Name', 'Light', 'Height', 'Hardy', 'Sown'], rows);
  expect(fields.map(({ name, field }) => `${name} ${field.type}`)).toEqual([
    'plantNo text',
    'name text',
    'light choice',
    'height number',
    'hardy boolean',
    'sown date',
  ]);
  expect(proposeKey(fields)).toBe('plantNo');
  expect(proposeTitle(fields, 'plantNo')).toBe('name');
  expect(badCells(fields, rows, 'plantNo')).toEqual([
    { line: 32, row: 30, column: 3, text: 'tall', problem: 'It is not a number; write it as in 12.5.' },
  ]);
  const twice = [...rows, { line: 99, cells: ['P-3', 'Again', 'sun', '1', 'yes', '2026-02-30'] }];
  expect(
    badCells(fields, twice, 'plantNo')
      .filter(({ line }) => line === 99)
      .map(({ problem }) => problem),
  ).toEqual(['Line 5 has the same key.', 'The calendar has no such day.']);
});

it('makes an app that passes the check of any table, whatever its columns are called', () => {
  const header = fc.array(
    fc.oneof(fc.string({ maxLength: 12 }), fc.constantFrom('id', 'page', 'q', 'sort', '{x}', 'Größe', '日本', 'a b')),
    {
      minLength: 1,
      maxLength: 6,
    },
  );
  const cell = fc.oneof(fc.string({ maxLength: 8 }), fc.constantFrom('1', '2.5', 'true', '2026-01-01', 'red', ''));
  fc.assert(
    fc.property(
      header,
      fc.array(fc.array(cell, { minLength: 6, maxLength: 6 }), { minLength: 1, maxLength: 12 }),
      fc.string({ maxLength: 20 }),
      (names, lines, title) => {
        const rows = rowsOf(lines.map((line) => line.slice(0, names.length)));
        const fields = guessFields(names, rows);
        const key = proposeKey(fields);
        const made = collectionFrom(title, fields, key, proposeTitle(fields, key));
        const app = { ...nameNewApp(title, []), title: title.trim() === '' ? 'App' : title.trim() };
        const { problems } = checkAppFile(appFileText(appFromCollection(app, made)));
        expect(problems.filter(({ severity }) => severity !== 'note')).toEqual([]);
      },
    ),
    { numRuns: often(150) },
  );
});

it('names of columns that differ only by capitals get numbers', () => {
  const fields = guessFields(['a b', 'Ab', 'id'], rowsOf([['1', '2', '3']]));
  expect(fields.map(({ name }) => name)).toEqual(['aB', 'ab2', 'id']);
});

it('names things as people would', () => {
  expect(['Garden tools', 'Größe (cm)', '{record.x.name} of all', '日本'].map((text) => slugOf(text))).toEqual([
    'garden-tools',
    'grosse-cm',
    'of-all',
    'new',
  ]);
  expect(['plants', 'berries', 'boxes', 'glass', 'bus', 'care'].map(singular)).toEqual(['plant', 'berry', 'box', 'glass', 'bus', 'care']);
  expect(nameNewApp('Garden tools', [{ app: 'garden-tools', mount: '/garden-tools' }])).toMatchObject({
    app: 'garden-tools-2',
    mount: '/garden-tools-2',
  });
});
