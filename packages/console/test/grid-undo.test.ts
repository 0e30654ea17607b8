import { describe, expect, it } from 'vitest';
import { madeChange, undoChanges } from '../src/data/grid-undo.ts';

const now = (records: Record<string, Record<string, string>>) => Object.entries(records);

describe('Undo in the records grid', () => {
  it.each([
    ['a text', { name: 'Fern' }, { name: 'Palm' }, 'Palm'],
    ['a text of several lines', { name: 'one\ntwo' }, { name: 'one\r\nthree' }, 'one\nthree'],
    ['an emptied text', { name: 'Fern' }, { name: '' }, ''],
    ['a text where there was none', {}, { name: 'Fern 🌿' }, 'Fern 🌿'],
    ['a number in another form', { name: '2' }, { name: '1.50' }, '1.5'],
    ['a text that looks like a number', { name: '7' }, { name: '007' }, '007'],
  ] as const)('restores %s', (_, before, change, kept) => {
    const made = madeChange({ key: 'A', change: { ...change } }, { ...before }, { name: kept }, 'A');
    expect(undoChanges([made], now({ A: { name: kept } }))).toEqual({
      changes: [{ key: 'A', change: { name: 'name' in before ? before.name : '' } }],
      others: [],
    });
  });

  it('removes a record that was added, and finds one by its new key', () => {
    expect(undoChanges([madeChange({ create: { name: 'x' } }, undefined, undefined, 'N-1')], now({})).changes).toEqual([
      { key: 'N-1', remove: true },
    ]);
    const moved = madeChange({ key: 'A', change: { code: 'B' } }, { code: 'A' }, { code: 'B' }, 'B');
    expect(undoChanges([moved], now({ B: { code: 'B' } })).changes).toEqual([{ key: 'B', change: { code: 'A' } }]);
  });

  it('leaves records alone that another person changed or removed', () => {
    const made = ['A', 'B', 'C', 'D'].map((key) => madeChange({ key, change: { name: '7' } }, { name: 'before' }, { name: '7' }, key));
    expect(undoChanges(made, now({ A: { name: 'theirs' }, B: { name: '7' }, D: { name: '007' } }))).toEqual({
      changes: [{ key: 'B', change: { name: 'before' } }],
      others: ['A', 'C', 'D'],
    });
  });
});
