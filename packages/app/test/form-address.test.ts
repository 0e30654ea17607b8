import fc from 'fast-check';
import { expect, it } from 'vitest';
import { compileApp, formAddress, pathTemplate, readAddress } from '../src/index.ts';

const template = '/beds/{bed}{/part}{?q,kinds,planted}';
const { app } = compileApp({
  app: 'beds',
  mount: '/garden',
  pages: {
    bed: {
      address: template,
      parameters: {
        bed: { type: 'text' },
        part: { type: 'text' },
        q: { type: 'text', blank: 'absent' },
        kinds: { type: 'list', items: { type: 'text' } },
        planted: { type: 'range', of: 'date' },
      },
    },
  },
});
const form = { action: '/garden/~to/bed', path: `/garden${pathTemplate(template)}` };
const word = fc.string({ unit: 'grapheme', minLength: 1, maxLength: 12 }).filter((text) => text.isWellFormed() && !/[\p{Cc}]/u.test(text));
const segment = word.filter((text) => text !== '.' && text !== '..');

it('leads to an address that reads as what was typed, in the path and in the query', () => {
  fc.assert(
    fc.property(segment, fc.option(segment), fc.option(word), fc.array(word, { maxLength: 3 }), (bed, part, q, kinds) => {
      const entries: [string, string][] = [
        ['bed', bed],
        ['part', part ?? ''],
        ['q', q ?? ''],
        ...kinds.map((kind): [string, string] => ['kinds', kind]),
      ];
      // A single text with commas is a list, as in any address.
      fc.pre(!kinds.some((kind) => kind.includes(',')));
      const { page, values } = readAddress(app, formAddress(form, entries) ?? '');
      expect({ page, values }).toEqual({
        page: 'bed',
        values: { bed, ...(part === null ? {} : { part }), ...(q === null ? {} : { q }), ...(kinds.length === 0 ? {} : { kinds }) },
      });
    }),
  );
});

it('keeps an open end of a range, and line ends as LF', () => {
  const given = formAddress(form, [
    ['bed', 'north'],
    ['planted', ''],
    ['planted', '2020-01-01'],
    ['q', 'two\r\nlines'],
  ]);
  expect(readAddress(app, given ?? '').values).toEqual({ bed: 'north', planted: { to: '2020-01-01' }, q: 'two\nlines' });
});

it('has no address without what the path needs', () => {
  expect(
    formAddress(form, [
      ['bed', ''],
      ['q', 'x'],
    ]),
  ).toBeUndefined();
});
