// Writing addresses: values at the limits.
import { describe, expect, it } from 'vitest';
import {
  AddressError, boolean, choice, colour, date, integer, list, number, page, range, read, sort, text, write,
} from '../src/index.ts'; // prettier-ignore

/** A default value for each type, and an equal value to write. */
const defaults = [
  ['text', text({ default: 'moss' }), 'moss'],
  ['integer', integer({ default: 7 }), 7],
  ['number', number({ default: 0.5 }), 0.5],
  ['boolean', boolean({ default: true }), true],
  ['date', date({ default: '2026-01-02' }), '2026-01-02'],
  ['a date of a day', date({ default: () => '2026-01-02' }), '2026-01-02'],
  ['choice', choice(['fern', 'palm'], { default: 'palm' }), 'palm'],
  ['colour', colour({ default: '3a7d44' }), '3a7d44'],
  ['list', list(integer(), { default: [1, 2] }), [1, 2]],
  ['range', range(integer(), { default: { from: 1, to: 5 } }), { from: 1, to: 5 }],
  ['sort', sort(['name', 'age'], { default: [{ field: 'age', descending: true }] }), [{ field: 'age', descending: true }]],
] as const;

it.each(defaults)('a default is in no address: %s', (_, parameter, value) => {
  const here = page('/a{?v}', { v: parameter });
  expect(write(here, { v: value } as never)).toBe('/a');
  expect(write(here, {})).toBe('/a');
  expect(read(here, '/a').values).toEqual({ v: value });
});

describe('a path segment', () => {
  const here = page('/a/{v}/b', { v: text() });

  it.each(['', '.', '..'])('is not “%s”, which browsers would take away', (v) => {
    expect(() => write(here, { v })).toThrow(AddressError);
  });

  it.each(['...', ' ', '.a', 'a.', '%2E', '..%2F', '/', '\\', '?#', 'é🌿', '\u202e'])('can be “%s”, and is read again', (v) => {
    const address = write(here, { v });
    expect(new URL(address, 'https://a.example').pathname.split('/')).toHaveLength(4);
    expect(read(here, address).values).toEqual({ v });
  });
});

it('an address has a greatest length, to the character', () => {
  const here = page('/a{?a,b,c,d,e}', { a: text(), b: text(), c: text(), d: text(), e: text() });
  const longest = 8000;
  const full = { a: 'x'.repeat(1990), b: 'x'.repeat(1990), c: 'x'.repeat(1990), d: 'x'.repeat(1990) };
  const room = longest - write(here, { ...full, e: 'x' }).length + 1;
  expect(write(here, { ...full, e: 'x'.repeat(room) })).toHaveLength(longest);
  // Encoded, “ä” is six characters long.
  for (const e of ['x'.repeat(room + 1), 'ä'.repeat(Math.ceil((room + 1) / 6))])
    expect(() => write(here, { ...full, e })).toThrow(
      expect.objectContaining({ problems: [expect.objectContaining({ code: 'address-too-long' })] }),
    );
});

it('a comma within an item is none between items, joined or repeated', () => {
  const items = ['a,b', ',', 'c'];
  const joined = page('/a{?v}', { v: list(text()) });
  const repeated = page('/a{?v*}', { v: list(text()) });
  expect(write(joined, { v: items })).toBe('/a?v=a%2Cb,%2C,c');
  for (const here of [joined, repeated]) expect(read(here, write(here, { v: items })).values).toEqual({ v: items });
  // A single text with a comma that is not encoded is a joined list, by whichever name; of several texts each is one item.
  const renamed = page('/a{?v*}', { v: list(text(), { formerNames: ['w'] }) });
  for (const name of ['v', 'V', 'w']) {
    expect(read(renamed, `/a?${name}=a,b`).values).toEqual({ v: ['a', 'b'] });
    expect(read(renamed, `/a?${name}=a,b&${name}=c`).values).toEqual({ v: ['a,b', 'c'] });
  }
});
