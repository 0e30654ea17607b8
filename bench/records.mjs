// What a read costs on a collection of 100,000 records, by each operator.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openStore } from '../packages/service/dist/store/open-store.js';
import { median } from './measure.mjs';

const collections = {
  plants: {
    key: 'code',
    fields: {
      code: { type: 'text' },
      name: { type: 'text' },
      house: { type: 'text' },
      height: { type: 'number' },
      planted: { type: 'date' },
    },
  },
};
const houses = ['palm', 'fern', 'lily', 'thorn', 'orchid', 'alpine', 'mist', 'moor'];
const names = ['Amber', 'Bell', 'Copper', 'Dusk', 'Éclair', 'Feather', 'Glass', 'Hollow', 'Iron', 'Jackdaw'];
const kinds = ['fern', 'lily', 'palm', 'thorn', 'orchid', 'moss', 'sedge'];

export async function benchRecords(count = 100_000) {
  const folder = mkdtempSync(join(tmpdir(), 'pallmist-records-'));
  const store = await openStore(folder);
  store.writer.prepare('bench', collections);
  const records = Array.from({ length: count }, (_, index) => ({
    code: `P-${String(index).padStart(6, '0')}`,
    name: `${names[index % names.length]} ${kinds[(index * 7) % kinds.length]} ${index % 997}`,
    house: houses[(index * 13) % houses.length],
    height: (index * 37) % 900,
    ...(index % 20 === 0 ? {} : { planted: new Date(Date.UTC(2000, 0, 1 + (index % 9000))).toISOString().slice(0, 10) }),
  }));
  store.writer.replaceAll('bench', 'plants', collections.plants, records);
  const read = (where, more = {}) =>
    store.records.read('bench', collections, { from: 'plants', where, sort: [], page: 1, size: 25, nothing: false, ...more });
  const byName = [{ field: 'name', descending: false }];
  const cases = [
    ['one record by its key', () => store.records.byKey('bench', collections, 'plants', 'P-054321')],
    ['`equals`', () => read([{ field: 'house', operator: 'equals', value: 'moor' }])],
    ['`contains`, sorted', () => read([{ field: 'name', operator: 'contains', value: 'éclair f' }], { sort: byName })],
    ['`startsWith`', () => read([{ field: 'name', operator: 'startsWith', value: 'Éclair fern 1' }])],
    ['`oneOf`', () => read([{ field: 'code', operator: 'oneOf', value: ['P-000001', 'P-050000', 'P-099999'] }])],
    ['`within`', () => read([{ field: 'planted', operator: 'within', value: { from: '2010-01-01', to: '2010-01-31' } }])],
    ['`before`', () => read([{ field: 'height', operator: 'before', value: 3 }])],
    ['`after`', () => read([{ field: 'planted', operator: 'after', value: '2024-08-01' }])],
    ['`empty`', () => read([{ field: 'planted', operator: 'empty', value: true }])],
    ['all, sorted, first page', () => read([], { sort: byName })],
    ['all, sorted, page 2,000', () => read([], { sort: byName, page: 2000 })],
  ];
  const rows = cases.map(([name, run]) => {
    run();
    const times = Array.from({ length: 15 }, () => {
      const begun = performance.now();
      run();
      return performance.now() - begun;
    });
    return [name, `${median(times).toFixed(2)} ms`];
  });
  await store.close();
  rmSync(folder, { recursive: true });
  return rows;
}
