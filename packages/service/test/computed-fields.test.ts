import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import type { AppDefinition, PlannedRead, SavePlan } from '@pallmist/app';
import { openStore } from '../src/store/open-store.ts';
import type { Collections } from '../src/store/records.ts';
import type { Store } from '../src/store/store.ts';

const withArea = (computed?: string): Collections => ({
  beds: {
    keyField: 'code',
    fields: {
      code: { type: 'text' },
      height: { type: 'number' },
      width: { type: 'number' },
      ...(computed === undefined ? {} : { area: { type: 'number', computed } }),
    },
  },
});
const [plain, byProduct, bySum] = [withArea(), withArea('row.height * row.width'), withArea('row.height + row.width')];
const data = mkdtempSync(join(tmpdir(), 'pallmist-computed-'));
let store: Store;
beforeAll(async () => {
  store = await openStore(data);
  await store.records.prepare('garden', plain);
  for (const [code, height, width] of [
    ['a', 2, 3],
    ['b', 1, 10],
    ['c', 4, 1],
  ] as const)
    await save(plain, { action: 'create', values: { code, height, width } });
});
afterAll(async () => {
  await store.close();
  rmSync(data, { recursive: true });
});

const save = (collections: Collections, plan: Omit<SavePlan, 'collection'>) =>
  store.records.save('garden', collections, { ...plan, collection: 'beds' });
const areas = async (more: Partial<PlannedRead> = {}, space = 'garden') => {
  const read = { from: 'beds', where: [], sort: [{ field: 'area', descending: false }], page: 1, size: 10, nothing: false, ...more };
  const { rows } = await store.records.read(space, byProduct, read);
  return rows.map(({ code, area }) => `${String(code)} ${String(area)}`);
};

it('is computed for records that were there before, and sorts and finds them', async () => {
  await store.records.prepare('garden', byProduct);
  expect(await areas()).toEqual(['c 4', 'a 6', 'b 10']);
  expect(await areas({ where: [{ field: 'area', operator: 'moreThan', value: 5 }] })).toEqual(['a 6', 'b 10']);
});

it('follows what is saved, and what is imported', async () => {
  await save(byProduct, { action: 'create', values: { code: 'd', height: 7, width: 1 } });
  await save(byProduct, { action: 'change', key: 'a', values: { width: 100 } });
  await save(byProduct, { action: 'change', key: 'b', values: { width: undefined } });
  expect(await areas()).toEqual(['c 4', 'd 7', 'a 200', 'b undefined']);
  const staged = await store.records.stage('garden', byProduct, 'beds');
  await staged.add([{ code: 'b', height: 5, width: 1 }]);
  await store.records.take(staged, true);
  expect(await areas()).toEqual(['c 4', 'b 5', 'd 7', 'a 200']);
});

it('stays as visitors know it until another expression is published, except where the draft tries records out', async () => {
  await store.records.prepare('garden', bySum);
  const space = await store.records.beginTrial('garden', bySum);
  expect(await areas({}, space)).toEqual(['c 5', 'b 6', 'd 8', 'a 102']);
  await save(bySum, { action: 'change', key: 'c', values: { width: 2 } });
  expect(await areas()).toEqual(['b 5', 'd 7', 'c 8', 'a 200']);
  await store.records.convert('garden', { collections: bySum } as AppDefinition);
  expect(await areas()).toEqual(['b 6', 'c 6', 'd 8', 'a 102']);
  // Where nothing is published, it follows each change.
  await store.records.prepare('garden', byProduct, true);
  expect(await areas()).toEqual(['b 5', 'd 7', 'c 8', 'a 200']);
  await store.records.convert('garden', {
    collections: { beds: { ...plain['beds'], fields: { ...plain['beds']?.fields, area: { type: 'number' } } } },
  } as unknown as AppDefinition);
  await save(plain, { action: 'change', key: 'd', values: { height: 1 } });
  expect(await areas()).toContain('d 7');
});
