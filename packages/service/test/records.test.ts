import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { PlainRecord, PlannedCondition, PlannedRead } from '@pallmist/app';
import { openStore } from '../src/store/open-store.ts';
import type { Collections } from '../src/store/records.ts';
import type { Store } from '../src/store/store.ts';

const collections: Collections = {
  houses: { keyField: 'code', titleField: 'name', fields: { code: { type: 'text' }, name: { type: 'text' } } },
  plants: {
    keyField: 'code',
    fields: {
      code: { type: 'text', serial: 'P-000' },
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
async function replace(collection: string, records: PlainRecord[]): Promise<void> {
  const staged = await store.records.stage('x', collections, collection);
  expect(await staged.add(records)).toEqual([]);
  await store.records.take(staged, false);
}
beforeAll(async () => {
  store = await openStore(data);
  await store.records.prepare('x', collections);
  await replace('houses', [{ code: 'fern', name: 'Fern House' }]);
  await replace('plants', [
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
const found = async (...where: PlannedCondition[]) => (await read(where)).rows.map(({ code }) => code);

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
  ])('%j finds %j', async (condition, codes) => {
    expect(await found(condition)).toEqual(codes);
  });

  it('is joined with the others, and none is asked when nothing is to be read', async () => {
    expect(await found({ field: 'name', operator: 'contains', value: 'e' }, { field: 'alive', operator: 'equals', value: true })).toEqual([
      'a',
      'c',
    ]);
    expect(await read([], { nothing: true })).toEqual({ rows: [], total: 0, page: 1, size: 10, unasked: true });
  });
});

it('sorts as people do, what is empty last, and turns pages', async () => {
  const codes = async (sort: PlannedRead['sort'], more = {}) => (await read([], { sort, ...more })).rows.map(({ code }) => code);
  expect(await codes([{ field: 'name', descending: false }])).toEqual(['a', 'b', 'c', 'd']);
  expect(await codes([{ field: 'height', descending: true }])).toEqual(['c', 'b', 'a', 'd']);
  expect(await codes([{ field: 'height', descending: true }], { size: 3, page: 2 })).toEqual(['d']);
  expect((await read([], { size: 3, page: 2 })).total).toBe(4);
});

it('puts the record that is referred to in the place of its key, and keeps a key that leads nowhere', async () => {
  const [a, b, c] = (await read([])).rows;
  expect(a?.house).toEqual({ code: 'fern', name: 'Fern House' });
  expect(b?.house).toEqual({ code: 'gone' });
  expect(c).not.toHaveProperty('house');
  expect(await store.records.byKey('x', collections, 'plants', 'nothing')).toBeUndefined();
});

it('counts the rows of all pages by a field, under the same conditions', async () => {
  const where: PlannedCondition[] = [{ field: 'alive', operator: 'equals', value: true }];
  const read: PlannedRead = { from: 'plants', where, sort: [], page: 9, size: 1, nothing: false };
  const { rows, counts } = await store.records.read('x', collections, read, { house: { code: {}, name: {} } }, ['house', 'alive']);
  expect(rows).toEqual([]);
  expect(counts).toEqual({
    house: [{ count: 1 }, { value: { code: 'fern', name: 'Fern House' }, count: 1 }],
    alive: [{ value: true, count: 2 }],
  });
});

describe('what is read', () => {
  it('has the fields that are wanted, by path, and the key, and no others', async () => {
    const first = { from: 'plants', where: [], sort: [], page: 1, size: 2, nothing: false };
    expect((await store.records.read('x', collections, first, { height: {}, house: {} })).rows).toEqual([
      { code: 'a', height: 1, house: { code: 'fern' } },
      { code: 'b', height: 2.5, house: { code: 'gone' } },
    ]);
    // The name of the house is not wanted where the name of the plant is.
    expect(await store.records.byKey('x', collections, 'plants', 'a', { fields: { name: {}, house: {} } })).toEqual({
      code: 'a',
      name: 'Éclair',
      house: { code: 'fern' },
    });
    expect(await store.records.byKey('x', collections, 'plants', 'a', { fields: { house: { name: {} } } })).toEqual({
      code: 'a',
      house: { code: 'fern', name: 'Fern House' },
    });
  });

  it('is never from before a change: neither what is referred to, nor what there is to choose from', async () => {
    const house = async () => (await store.records.byKey('x', collections, 'plants', 'a'))?.['house'];
    const change = (name: string) =>
      store.records.save('x', collections, { action: 'change', collection: 'houses', key: 'fern', values: { name } });
    expect(await house()).toEqual({ code: 'fern', name: 'Fern House' });
    expect(await store.records.options('x', collections, 'houses')).toEqual([{ key: 'fern', title: 'Fern House' }]);
    await change('House of ferns');
    expect(await house()).toEqual({ code: 'fern', name: 'House of ferns' });
    expect(await store.records.options('x', collections, 'houses')).toEqual([{ key: 'fern', title: 'House of ferns' }]);
    await change('Fern House');
    expect(await house()).toEqual({ code: 'fern', name: 'Fern House' });
  });
});

it('turns to any page of a long list, whatever was read before, what has no value and what is equal included', async () => {
  const long: PlainRecord[] = Array.from({ length: 3000 }, (_, index) => ({
    code: `L-${String(index).padStart(4, '0')}`,
    ...(index % 5 === 0 ? {} : { name: `n${String((index * 37) % 60)}` }),
    ...(index % 7 === 0 ? {} : { height: (index * 13) % 40 }),
    alive: index % 3 === 0,
  }));
  await store.records.prepare('long', collections);
  const staged = await store.records.stage('long', collections, 'plants');
  await staged.add(long);
  await store.records.take(staged, false);
  const up = { field: 'name', descending: false };
  const down = { field: 'height', descending: true };
  for (const sort of [[], [up], [down], [{ ...up, descending: true }], [up, down]]) {
    const read = (page: number, size: number): PlannedRead => ({ from: 'plants', where: [], sort, page, size, nothing: false });
    const codesOf = async (page: number, size: number) =>
      (await store.records.read('long', collections, read(page, size), { code: {} })).rows.map(({ code }) => code);
    const all = (await Promise.all([1, 2, 3, 4, 5, 6].map((page) => codesOf(page, 500)))).flat();
    expect(new Set(all).size).toBe(3000);
    for (const page of [100, 30, 101, 99, 100, 119, 120, 95, 29, 121, 60])
      expect(await codesOf(page, 25), `page ${String(page)} of ${JSON.stringify(sort)}`).toEqual(all.slice((page - 1) * 25, page * 25));
  }
});
