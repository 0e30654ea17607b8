import { describe, expect, it } from 'vitest';
import { doneBy, takeBack } from '../src/data/grid-undo.ts';

const now = (records: Record<string, Record<string, string>>) => new Map(Object.entries(records));

describe('what a grid takes back', () => {
  it.each([
    ['a text', { name: 'Fern' }, { name: 'Palm' }, 'Palm'],
    ['a text of several lines', { name: 'one\ntwo' }, { name: 'one\r\nthree' }, 'one\nthree'],
    ['an emptied text', { name: 'Fern' }, { name: '' }, ''],
    ['a text where there was none', {}, { name: 'Fern 🌿' }, 'Fern 🌿'],
    ['a number in another form', { name: '2' }, { name: '1.50' }, '1.5'],
  ] as const)('%s is as it was', (_, before, change, kept) => {
    const done = doneBy({ key: 'A', change: { ...change } }, { ...before }, 'A');
    expect(takeBack([done], now({ A: { name: kept } }))).toEqual({
      changes: [{ key: 'A', change: { name: 'name' in before ? before.name : '' } }],
      others: [],
    });
  });

  it('a record that was added goes, and one that got another key is found by it', () => {
    expect(takeBack([doneBy({ create: { name: 'x' } }, undefined, 'N-1')], now({})).changes).toEqual([{ key: 'N-1', remove: true }]);
    const moved = doneBy({ key: 'A', change: { code: 'B' } }, { code: 'A' }, 'B');
    expect(takeBack([moved], now({ B: { code: 'B' } })).changes).toEqual([{ key: 'B', change: { code: 'A' } }]);
  });

  it('what somebody has changed since stays', () => {
    const done = ['A', 'B'].map((key) => doneBy({ key, change: { name: 'mine' } }, { name: 'before' }, key));
    expect(takeBack(done, now({ A: { name: 'theirs' }, B: { name: 'mine' } }))).toEqual({
      changes: [{ key: 'B', change: { name: 'before' } }],
      others: ['A'],
    });
  });
});
