import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkAppFile, compileApp, readAddress, SealBook, withContext, writeAddress } from '../src/index.ts';

const definition = {
  app: 'x',
  mount: '/x',
  parameters: { from: { type: 'text', reach: 'visit' } },
  pages: {
    card: {
      address: '/card{?who,codes,open}',
      parameters: {
        who: { type: 'text', sealed: true, required: true, ifWrong: 'refuse' },
        codes: { type: 'list', items: { type: 'text' }, sealed: { days: 1 } },
        open: { type: 'text' },
      },
    },
    other: { address: '/other{?who}', parameters: { who: { type: 'text', sealed: true } } },
  },
} as const;

/** Seals as a service would, without a key: each wanted text gets a number. */
function fill(book: SealBook): void {
  for (const value of book.wanted) book.add({ ...value, sealed: `sealed-${String(book.values.length)}` });
}

describe('a sealed parameter', () => {
  it('reads back whatever was sealed, commas and all, and shows none of it', () => {
    fc.assert(
      fc.property(
        fc.string({ minLength: 1, maxLength: 40 }),
        fc.array(fc.string({ minLength: 1, maxLength: 9 }), { minLength: 1 }),
        (who, codes) => {
          const book = new SealBook();
          const app = withContext(compileApp(definition).app, { seals: book });
          expect(writeAddress(app, 'card', { who, codes }).address).toBeUndefined();
          fill(book);
          const { address, problems } = writeAddress(app, 'card', { who, codes });
          // What its parameter refuses is refused before it is sealed.
          fc.pre(problems.length === 0);
          expect(address).toMatch(/^\/x\/card\?who=sealed-\d&codes=sealed-\d$/);
          expect(readAddress(app, address ?? '')).toMatchObject({ status: 'found', values: { who, codes } });
        },
      ),
    );
  });

  it('opens on its own page only, in its own parameter only, and never without the book', () => {
    const book = new SealBook([{ page: 'card', parameter: 'who', text: 'me', sealed: 'sealed-1' }]);
    const keyless = compileApp(definition).app;
    const app = withContext(keyless, { seals: book });
    expect(readAddress(app, '/x/card?who=sealed-1').values).toEqual({ who: 'me' });
    const sentences = [
      '/x/card?who=sealed-2',
      '/x/card?who=me',
      '/x/card?who=',
      '/x/other?who=sealed-1',
      '/x/card?who=sealed-1&codes=sealed-1',
    ]
      .map((address) => readAddress(app, address))
      .concat(readAddress(keyless, '/x/card?who=sealed-1'))
      .map((reading) => reading.problems.map(({ code }) => code));
    expect(sentences).toEqual([['not-opened'], ['not-opened'], ['missing'], ['not-opened'], ['not-opened'], ['not-opened']]);
    expect(writeAddress(keyless, 'card', { who: 'me' }).problems[0]?.code).toBe('not-sealed');
  });

  it('opens after its page or its parameter was renamed, and is sealed by today’s names', () => {
    const { card } = definition.pages;
    const renamed = {
      ...definition,
      pages: {
        ticket: {
          address: '/card{?holder}',
          formerNames: ['card'],
          parameters: { holder: { ...card.parameters.who, formerNames: ['who'] } },
        },
      },
    };
    const book = new SealBook([{ page: 'card', parameter: 'who', text: 'me', sealed: 'sealed-1' }]);
    const app = withContext(compileApp(renamed).app, { seals: book });
    expect(readAddress(app, '/x/card?who=sealed-1')).toMatchObject({ former: true, values: { holder: 'me' } });
    writeAddress(app, 'ticket', { holder: 'me' });
    expect(book.wanted).toEqual([{ page: 'ticket', parameter: 'holder', text: 'me' }]);
  });

  it('is written where a value is sensitive, and by no other way', () => {
    const source = (sealed: string) => `
pallmist: 1
app: x
title: X
mount: /x
collections: { people: { keyField: id, fields: { id: { type: text }, mail: { type: text, sensitive: true } } } }
pages:
  home:
    title: Home
    address: /{?who}
    parameters: { who: { type: record, of: people } }
    content: [{ show: link, text: x, to: { page: card, values: { mail: "{record.who.mail}" } } }]
  card: { title: "{param.mail}", address: "/card{?mail}", parameters: { mail: { type: text, required: true${sealed} } }, content: [] }`;
    expect(checkAppFile(source('')).problems.map(({ code }) => code)).toContain('sensitive-in-address');
    expect(checkAppFile(source(', sealed: true')).problems.filter(({ severity }) => severity === 'error')).toEqual([]);
    expect(checkAppFile(source(', sealed: true, default: x')).problems.map(({ code }) => code)).toContain('default-of-sealed');
  });
});

it('what is remembered for the visit is read from any page, and leaves the address', () => {
  const { app } = compileApp(definition);
  expect(readAddress(app, '/x/other?from=leaflet').values).toEqual({ from: 'leaflet' });
  expect(writeAddress(app, 'other', { from: 'leaflet' }, { afterArrival: true }).address).toBe('/x/other');
  expect(writeAddress(app, 'other', {}, { present: { from: 'leaflet' } }).address).toBe('/x/other');
  // A link may state it all the same.
  expect(writeAddress(app, 'other', { from: 'leaflet' }).address).toBe('/x/other?from=leaflet');
});
