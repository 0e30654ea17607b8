import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AppDefinition, PlannedCondition, PlannedRead } from '@pallmist/core';
import { openStore, type Store } from '../src/store/open-store.ts';

const collections: NonNullable<AppDefinition['collections']> = {
  houses: { key: 'code', title: 'name', fields: { code: { type: 'text' }, name: { type: 'text' } } },
  plants: {
    key: 'code',
    fields: {
      code: { type: 'text' },
      name: { type: 'text' },
      height: { type: 'number' },
      planted: { type: 'date' },
      alive: { type: 'boolean' },
      house: { type: 'record', of: 'houses' },
    },
  },
};
let store: Store;
const data = mkdtempSync(join(tmpdir(), 'pallmist-records-'));
beforeAll(async () => {
  store = await openStore(data);
  store.writer.prepare('x', collections);
  const { houses, plants } = collections;
  if (!houses || !plants) return;
  store.writer.replaceAll('x', 'houses', houses, [{ code: 'fern', name: 'Fern House' }]);
  store.writer.replaceAll('x', 'plants', plants, [
    { code: 'a', name: 'Éclair', height: 1, planted: '2020-01-01', alive: true, house: 'fern' },
    { code: 'b', name: 'eclipse 100%', height: 2.5, planted: '2021-01-01', alive: false, house: 'gone' },
    { code: 'c', name: 'Straße_1', height: 10, planted: '2022-01-01', alive: true },
    { code: 'd' },
  ]);
});
afterAll(async () => {
  await store.close();
  rmSync(data, { recursive: true });
});

const read = (where: PlannedCondition[], more: Partial<PlannedRead> = {}) =>
  store.records.read('x', collections, { from: 'plants', where, sort: [], page: 1, size: 10, nothing: false, ...more });
const found = (...where: PlannedCondition[]) => read(where).rows.map(({ code }) => code);

describe('a condition', () => {
  it.each<[PlannedCondition, string[]]>([
    [{ field: 'name', operator: 'equals', value: 'Éclair' }, ['a']],
    [{ field: 'alive', operator: 'equals', value: false }, ['b']],
    [{ field: 'name', operator: 'contains', value: 'ECL' }, ['a', 'b']],
    [{ field: 'name', operator: 'contains', value: '%' }, ['b']],
    [{ field: 'name', operator: 'contains', value: '_' }, ['c']],
    [{ field: 'name', operator: 'contains', value: 'strasse' }, ['c']],
    [{ field: 'name', operator: 'startsWith', value: 'ecl' }, ['a', 'b']],
    [{ field: 'name', operator: 'startsWith', value: 'clair' }, []],
    [{ field: 'code', operator: 'oneOf', value: ['c', 'a', 'z'] }, ['a', 'c']],
    [{ field: 'height', operator: 'within', value: { from: 2.5, to: 10 } }, ['b', 'c']],
    [{ field: 'height', operator: 'within', value: { to: 2 } }, ['a']],
    [{ field: 'planted', operator: 'before', value: '2021-01-01' }, ['a']],
    [{ field: 'planted', operator: 'after', value: '2021-01-01' }, ['c']],
    [{ field: 'house', operator: 'empty', value: true }, ['c', 'd']],
    [{ field: 'house', operator: 'empty', value: false }, ['a', 'b']],
    [{ field: "x'; DROP TABLE draft; --", operator: 'equals', value: 1 }, []],
    [{ field: 'name', operator: 'equals', value: "' OR 1=1 --" }, []],
  ])('%j finds %j', (condition, codes) => {
    expect(found(condition)).toEqual(codes);
  });

  it('is joined with the others, and none is asked when nothing is to be read', () => {
    expect(found({ field: 'name', operator: 'contains', value: 'e' }, { field: 'alive', operator: 'equals', value: true })).toEqual([
      'a',
      'c',
    ]);
    expect(read([], { nothing: true })).toEqual({ rows: [], total: 0, page: 1, size: 10, unasked: true });
  });
});

it('sorts as people do, what is empty last, and turns pages', () => {
  const codes = (sort: PlannedRead['sort'], more = {}) => read([], { sort, ...more }).rows.map(({ code }) => code);
  expect(codes([{ field: 'name', descending: false }])).toEqual(['a', 'b', 'c', 'd']);
  expect(codes([{ field: 'height', descending: true }])).toEqual(['c', 'b', 'a', 'd']);
  expect(codes([{ field: 'height', descending: true }], { size: 3, page: 2 })).toEqual(['d']);
  expect(read([], { size: 3, page: 2 }).total).toBe(4);
});

it('puts the record that is referred to in the place of its key, and keeps a key that leads nowhere', () => {
  const [a, b, c] = read([]).rows;
  expect(a?.house).toEqual({ code: 'fern', name: 'Fern House' });
  expect(b?.house).toEqual({ code: 'gone' });
  expect(c).not.toHaveProperty('house');
  expect(store.records.byKey('x', collections, 'plants', 'nothing')).toBeUndefined();
});

describe('what is read', () => {
  it('has the fields that are wanted, and the key, and no others', () => {
    const rows = store.records.read(
      'x',
      collections,
      { from: 'plants', where: [], sort: [], page: 1, size: 2, nothing: false },
      new Set(['height', 'house']),
    ).rows;
    expect(rows).toEqual([
      { code: 'a', height: 1, house: { code: 'fern' } },
      { code: 'b', height: 2.5, house: { code: 'gone' } },
    ]);
    expect(store.records.byKey('x', collections, 'plants', 'a', undefined, new Set(['name', 'house']))).toEqual({
      code: 'a',
      name: 'Éclair',
      house: { code: 'fern', name: 'Fern House' },
    });
  });

  it('is never from before a change: neither what is referred to, nor what there is to choose from', () => {
    const house = () => store.records.byKey('x', collections, 'plants', 'a')?.['house'];
    const change = (name: string) =>
      store.writer.save('x', collections, { action: 'change', collection: 'houses', key: 'fern', values: { name } });
    expect(house()).toEqual({ code: 'fern', name: 'Fern House' });
    expect(store.records.options('x', collections, 'houses')).toEqual([{ key: 'fern', title: 'Fern House' }]);
    change('House of ferns');
    expect(house()).toEqual({ code: 'fern', name: 'House of ferns' });
    expect(store.records.options('x', collections, 'houses')).toEqual([{ key: 'fern', title: 'House of ferns' }]);
    change('Fern House');
    expect(house()).toEqual({ code: 'fern', name: 'Fern House' });
  });
});
