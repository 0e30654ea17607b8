// Every order of a list shows every row once: all pairs and triples of fields of every type, both directions, gaps anywhere,
// whatever the order in which pages are asked for. The oracle sorts in memory.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { PlainRecord, SortKey } from '@pallmist/app';
import { chanceOf } from '../../../test/support/chance.ts';
import { openStore } from '../src/store/open-store.ts';
import type { Collections } from '../src/store/records.ts';
import type { Store } from '../src/store/store.ts';

const collections: Collections = {
  things: {
    keyField: 'code',
    fields: {
      code: { type: 'text' },
      shelf: { type: 'text' },
      seen: { type: 'date' },
      size: { type: 'number' },
      count: { type: 'integer' },
      loan: { type: 'boolean' },
    },
  },
};
const sortFields = ['shelf', 'seen', 'size', 'count', 'loan', 'code'];
const pageSize = 50;
let store: Store;
let records: PlainRecord[] = [];
const data = mkdtempSync(join(tmpdir(), 'pallmist-order-'));
const chance = chanceOf(1202);

/** A record that lacks each value once in four times; values repeat, so that the later fields of an order matter. */
function thing(number: number): PlainRecord {
  const given: Record<string, () => string | number | boolean> = {
    shelf: () => chance.pick(['a', 'B', 'b', 'c']),
    seen: () => `2026-0${String(1 + chance.below(3))}-0${String(1 + chance.below(9))}`,
    size: () => chance.below(7) / 2,
    count: () => chance.below(5) - 2,
    loan: () => chance.once(2),
  };
  const values = Object.entries(given).flatMap(([field, value]) => (chance.once(4) ? [] : [[field, value()] as const]));
  return { code: `T${String(number).padStart(5, '0')}`, ...Object.fromEntries(values) };
}

async function put(more: PlainRecord[]): Promise<void> {
  records = [...records, ...more];
  const staged = await store.records.stage('x', collections, 'things');
  expect(await staged.add(more)).toEqual([]);
  await store.records.take(staged, true);
}

beforeAll(async () => {
  store = await openStore(data);
  await store.records.prepare('x', collections);
  await put(Array.from({ length: 1200 }, (_, number) => thing(number)));
});
afterAll(async () => {
  await store.close();
  rmSync(data, { recursive: true });
});

const plain = (one: unknown, other: unknown) => ((one as number) < (other as number) ? -1 : one === other ? 0 : 1);

/** Small letters first, equal ones by the text itself, as the guide says. */
function compareValues(one: unknown, other: unknown): number {
  return typeof one === 'string' && typeof other === 'string'
    ? plain(one.toLowerCase(), other.toLowerCase()) || plain(one, other)
    : plain(one, other);
}

/** The keys in an order: what has no value stands at the end; what is equal is ordered by key, in the direction of the first field. */
function sorted(sort: readonly SortKey[]): unknown[] {
  const keys = [...sort, { field: 'code', descending: sort[0]?.descending ?? false }];
  const compare = (one: PlainRecord, other: PlainRecord) => {
    for (const { field, descending } of keys) {
      const [left, right] = [one[field], other[field]];
      if (left === undefined || right === undefined) {
        if (left !== right) return left === undefined ? 1 : -1;
        continue;
      }
      const order = compareValues(left, right);
      if (order !== 0) return descending ? -order : order;
    }
    return 0;
  };
  return [...records].sort(compare).map(({ code }) => code);
}

const pageCodes = async (sort: readonly SortKey[], page: number) => {
  const read = { from: 'things', where: [], sort: [...sort], page, size: pageSize, nothing: false };
  return (await store.records.read('x', collections, read, { code: {} })).rows.map(({ code }) => code);
};

/** All orders of two and of three fields, in both directions. */
function* orders(): Generator<SortKey[]> {
  for (const one of sortFields)
    for (const two of sortFields) {
      if (one === two) continue;
      for (let bits = 0; bits < 4; bits++)
        yield [
          { field: one, descending: (bits & 1) > 0 },
          { field: two, descending: (bits & 2) > 0 },
        ];
      for (const three of sortFields)
        if (three !== one && three !== two)
          for (let bits = 0; bits < 8; bits++)
            yield [
              { field: one, descending: (bits & 1) > 0 },
              { field: two, descending: (bits & 2) > 0 },
              { field: three, descending: (bits & 4) > 0 },
            ];
    }
}

const spoken = (sort: readonly SortKey[]) => sort.map(({ field, descending }) => (descending ? '-' : '') + field).join(',');

describe('a sorted list', () => {
  it('shows every row once, in every order of its fields and of its pages', async () => {
    const wrong: string[] = [];
    // All pairs, and every fourth of the triples: the whole takes half a minute.
    for (const sort of [...orders()].filter(({ length }, index) => length === 2 || index % 4 === 0)) {
      const all = sorted(sort);
      // Forwards and with jumps, so that pages are walked to from places before and from none.
      const pages = Array.from({ length: Math.ceil(all.length / pageSize) }, (_, index) => index + 1);
      const asked = chance.once(2) ? pages : [20, 11, 24, 12, ...pages.slice(10).reverse(), 13, 1];
      for (const page of asked) {
        const expected = all.slice((page - 1) * pageSize, page * pageSize);
        if (JSON.stringify(await pageCodes(sort, page)) !== JSON.stringify(expected)) {
          wrong.push(`${spoken(sort)} page ${String(page)}`);
          break;
        }
      }
    }
    expect(wrong).toEqual([]);
  });

  it('is followed piece by piece in the same orders', async () => {
    for (const sort of [...orders()].filter((_, index) => index % 17 === 0)) {
      const found: unknown[] = [];
      let after: Awaited<ReturnType<Store['records']['part']>>['next'];
      do {
        const part = await store.records.part('x', collections, { from: 'things', where: [], sort }, 170, after);
        found.push(...part.rows.map(({ code }) => code));
        after = part.next;
      } while (after !== undefined);
      expect(found, spoken(sort)).toEqual(sorted(sort));
    }
  });

  it('goes on right while rows are added', async () => {
    const sort = [
      { field: 'shelf', descending: false },
      { field: 'seen', descending: false },
    ];
    for (let round = 0; round < 8; round++) {
      for (const page of [24, 12, 18])
        expect(await pageCodes(sort, page)).toEqual(sorted(sort).slice((page - 1) * pageSize, page * pageSize));
      await put(Array.from({ length: 7 }, (_, index) => thing(2000 + 10 * round + index)));
    }
  });
});
