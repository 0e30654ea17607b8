import fc from 'fast-check';
import { expect, it } from 'vitest';
import { readValues } from '@pallmist/address/pages';
import { addressParts, changeValues, checkAppFile, readAddress, writeAddress, type Values } from '../src/index.ts';
import { garden, gardenSource } from './garden.ts';
import { often } from '../../../test/support/often.ts';

// eslint-disable-next-line no-control-regex -- the characters that a text may not hold
const unwritable = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/;
const text = fc.string({ unit: 'binary', maxLength: 40 }).filter((value) => value.isWellFormed() && !unwritable.test(value));
const day = fc
  .date({ min: new Date('1990-01-01'), max: new Date('9999-12-31'), noInvalidDate: true })
  .map((date) => date.toISOString().slice(0, 10));
const sort = fc
  .uniqueArray(fc.constantFrom('accession', 'name', 'house', 'planted'), { minLength: 1, maxLength: 4 })
  .chain((fields) => fc.tuple(...fields.map((field) => fc.boolean().map((descending) => ({ field, descending })))));

const listValues: fc.Arbitrary<Values> = fc.record(
  {
    q: text,
    house: fc.stringMatching(/^[a-z]+$/).filter((key) => key.length <= 200),
    alive: fc.boolean(),
    since: day,
    sort,
    page: fc.integer({ min: 1, max: 1000 }),
  },
  { requiredKeys: [] },
);

const defaults: Values = { alive: true, sort: [{ field: 'name', descending: false }], page: 1 };

/** Anything a stranger may put in an address: noise, and addresses with something changed in them. */
const hostile = fc.oneof(
  fc.string({ unit: 'binary', maxLength: 200 }),
  fc.webUrl({ withQueryParameters: true, withFragments: true }),
  fc
    .array(
      fc.constantFrom(
        '/',
        '?',
        '&',
        '=',
        '%',
        '%2',
        '%2F',
        '%00',
        '+',
        '#',
        '..',
        '.',
        '\\',
        '~wanted',
        'q',
        'page',
        'garden',
        'specimens',
        'é',
        '\ud800',
        ',',
      ),
      { maxLength: 30 },
    )
    .map((pieces) => '/garden' + pieces.join('')),
);

it('what is written reads back, whatever the values', () => {
  fc.assert(
    fc.property(listValues, (values) => {
      const { address } = writeAddress(garden, 'list', values);
      const reading = readAddress(garden, address ?? '');
      expect(reading.problems).toEqual([]);
      expect(reading.values).toEqual({ ...defaults, ...values });
    }),
    { numRuns: often(2000) },
  );
});

it('a written address is its own written form, and the WHATWG parser leaves it as it is', () => {
  fc.assert(
    fc.property(listValues, (values) => {
      const address = writeAddress(garden, 'list', values).address ?? '';
      expect(writeAddress(garden, 'list', readAddress(garden, address).values).address).toBe(address);
      const url = new URL(address, 'http://garden.example');
      expect(url.pathname + url.search).toBe(address);
      // An independent reader of queries finds the same text.
      if (typeof values['q'] === 'string') expect(url.searchParams.get('q')).toBe(values['q']);
    }),
    { numRuns: often(1000) },
  );
});

it('a text in the path reads back or is refused, and is never changed', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary', maxLength: 12 }), (key) => {
      const written = writeAddress(garden, 'specimen', { specimen: key });
      if (written.address === undefined) expect(written.problems.length).toBeGreaterThan(0);
      else expect(readAddress(garden, new URL(written.address, 'http://x.example').pathname).values['specimen']).toBe(key);
    }),
    { numRuns: often(1000) },
  );
});

it('reading never throws, is stable once written, and its parts make up the address', () => {
  fc.assert(
    fc.property(hostile, (address) => {
      const reading = readAddress(garden, address);
      expect(
        addressParts(garden, address)
          .map((part) => part.text)
          .join(''),
      ).toBe(address);
      if (reading.status !== 'found' || reading.page === undefined) return;
      const { address: written } = writeAddress(garden, reading.page, reading.values);
      expect(readAddress(garden, written ?? '').values).toEqual(reading.values);
    }),
    { numRuns: often(5000) },
  );
});

it('an address reads as what a browser would make of it', () => {
  fc.assert(
    fc.property(hostile, (address) => {
      let url: URL;
      try {
        url = new URL(address, 'http://garden.example/');
      } catch {
        return;
      }
      const reading = readAddress(garden, address);
      if (reading.status === 'malformed') return;
      const browser = readAddress(garden, /^https?:$/.test(url.protocol) ? url.href : '');
      expect([reading.status, reading.page, reading.values]).toEqual([browser.status, browser.page, browser.values]);
    }),
    { numRuns: often(3000) },
  );
});

it('a change sets what it says, resets what it should, and leaves the rest', () => {
  fc.assert(
    fc.property(listValues, text, (values, q) => {
      const present = { ...defaults, ...values };
      const change = changeValues(garden, 'list', present, { q });
      const expected = present['q'] === q ? present : { ...present, q, page: 1 };
      expect(change.values).toEqual(expected);
      expect(readAddress(garden, change.written.address ?? '').values).toEqual(expected);
      if (present['q'] === q) expect(change.entry).toBe('none');
      else expect(change.entry).toBe('same');
    }),
  );
});

it('the values alone are those of the whole reading, whatever the address', () => {
  // The garden as it is after it has moved, and its list with it.
  const { compiled: moved = garden } = checkAppFile(
    gardenSource
      .replace('mount: /garden', 'mount: /park\nformerMounts: [/garden]')
      .replace('address: /specimens{?', "formerAddresses: ['/specimens']\n    address: /plants{?")
      .replace('q: { type: text,', 'q: { type: text, formerNames: [search],'),
  );
  const written = listValues.map((values) => writeAddress(garden, 'list', values).address ?? '');
  fc.assert(
    fc.property(
      fc.constantFrom(garden, moved),
      fc.oneof(hostile, written),
      fc.constantFrom('', '&page=0', '&stray=1', '?search=a'),
      (app, address, more) => {
        const whole = readAddress(app, address + more);
        const alone = readValues(app, address + more);
        if (whole.page === undefined) expect(alone).toBeUndefined();
        else
          expect(alone).toMatchObject({
            page: whole.page,
            isRight: whole.status === 'found' && whole.parameters.every(({ problem }) => problem === undefined),
            former: whole.former,
            strays: whole.undeclared.length > 0,
          });
        for (const [name, value] of Object.entries(whole.values)) expect(alone?.values[name]).toEqual(value);
      },
    ),
  );
});
