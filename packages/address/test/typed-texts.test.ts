import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boolean, choice, date, integer, list, page, range, record, text } from '../src/index.ts';
import { readTyped, typedTexts, type Slot } from '../src/live.ts';
import { often } from '../../../test/support/often.ts';

const plants = page('/plants/{plant}{?q,zones*,names,height,alive,since}', {
  plant: record({ pattern: 'QM-[0-9]{4}' }),
  q: text({ maxLength: 20, blank: 'absent' }),
  zones: list(choice(['arid', 'mist', 'dry'])),
  names: list(text()),
  height: range(integer({ min: 0 })),
  alive: boolean({ default: true }),
  since: date(),
});
const slot = (name: string) => plants.byName.get(name) as Slot;
const codes = (texts: Record<string, string[]>) =>
  readTyped(plants, texts).problems.map(({ code, parameter = '' }) => `${parameter} ${code}`);

describe('what people type into a form', () => {
  it('is read as forgivingly as an address, and only for the names that are given', () => {
    const typed = { zones: ['Arid', 'mist'], height: ['', '90'], alive: ['on'], since: ['2026-3-1'], q: [''], other: ['x'] };
    expect(readTyped(plants, typed)).toEqual({
      values: { zones: ['arid', 'mist'], height: { to: 90 }, alive: true, since: '2026-03-01', q: undefined },
      problems: [],
    });
  });

  it('is refused with the name of the parameter', () => {
    expect(codes({ height: ['9', '1'], since: ['soon'], zones: ['fog'] })).toEqual([
      'zones unknown-choice',
      'height range-reversed',
      'since not-a-date',
    ]);
    expect(codes({ plant: ['fern'] })).toEqual(['plant pattern-mismatch']);
    expect(codes({ plant: [''] })).toEqual(['plant missing']);
  });

  it('stays what a form shows of it, with any characters', () => {
    const values = fc.record(
      {
        plant: fc.constant('QM-0412'),
        q: fc.string({ unit: 'grapheme', minLength: 1, maxLength: 10 }).filter((given) => !/[\0-\x1f\x7f]/.test(given)), // eslint-disable-line no-control-regex
        zones: fc.array(fc.constantFrom('arid', 'mist', 'dry'), { minLength: 1, maxLength: 4 }),
        names: fc.array(fc.string({ minLength: 1, maxLength: 6 }), { minLength: 1, maxLength: 3 }),
        height: fc.tuple(fc.nat(50), fc.nat(50)).map(([from, more]) => ({ from, to: from + more })),
        alive: fc.boolean(),
      },
      { requiredKeys: [] },
    );
    fc.assert(
      fc.property(values, (given) => {
        const texts = Object.fromEntries(Object.entries(given).map(([name, value]) => [name, typedTexts(slot(name), value)]));
        expect(readTyped(plants, texts)).toEqual({ values: given, problems: [] });
      }),
      { numRuns: often(500) },
    );
  });
});
