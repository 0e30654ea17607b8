import { expect, expectTypeOf, it } from 'vitest';
import { defineApp, definePage, type RangeValue, type SortKey } from '../src/address/index.ts';

const specimen = definePage({
  address: '/specimens/{specimen}{?tab,note}',
  parameters: {
    specimen: { type: 'record', of: 'specimens' },
    tab: { type: 'choice', of: 'tab', default: 'overview' },
    note: { type: 'integer' },
  },
});
const search = definePage({
  address: '/search{/house}{?q,kinds*,height,alive,sort,code,to}',
  parameters: {
    house: { type: 'text' },
    q: { type: 'text', required: true },
    kinds: { type: 'list', items: { type: 'choice', of: 'kind' } },
    height: { type: 'range', of: 'number' },
    alive: { type: 'boolean', required: true, default: true },
    sort: { type: 'sort', fields: ['name'] },
    code: { type: 'datetime' },
    to: { type: 'page' },
  },
});
const app = defineApp({
  app: 'typed',
  mount: '/',
  choices: { tab: { overview: 'Overview', care: { label: 'Care', formerly: ['log'] } }, kind: { fern: 'Fern', palm: 'Palm' } },
  collections: { specimens: { key: 'code', fields: { code: { type: 'text' } } } },
  pages: { specimen, search, home: { address: '/' } },
});

it('writes what compiles', () => {
  expect(app.write('specimen', { specimen: 'a', tab: 'care' }).address).toBe('/specimens/a?tab=care');
  expect(app.write('search', { q: 'x', kinds: ['fern', 'palm'], height: { from: 1 }, to: 'home' }).address).toBe(
    '/search?q=x&kinds=fern&kinds=palm&height=1..&to=home',
  );
  expect(app.write('home', {}).address).toBe('/');
});

it('does not compile a wrong name, a missing value or a wrong type', () => {
  // Never called: these lines are for the compiler, which has to refuse each of them.
  const refused = () => {
    // @ts-expect-error there is no such page
    app.write('specimn', {});
    // @ts-expect-error the path needs its parameter
    app.write('specimen', {});
    // @ts-expect-error a required parameter is missing
    app.write('search', {});
    // @ts-expect-error there is no such parameter
    app.write('specimen', { specimen: 'a', tabb: 'care' });
    // @ts-expect-error a former choice is not one of today's
    app.write('specimen', { specimen: 'a', tab: 'log' });
    // @ts-expect-error a number, not a text
    app.write('specimen', { specimen: 'a', note: '1' });
    // @ts-expect-error an item that is no choice
    app.write('search', { q: 'x', kinds: ['moss'] });
    // @ts-expect-error the ends are numbers
    app.write('search', { q: 'x', height: { from: '1' } });
    // @ts-expect-error there is no page of this name
    app.write('search', { q: 'x', to: 'nowhere' });
    // @ts-expect-error the home page has no parameters
    app.write('home', { q: 'x' });
    // @ts-expect-error a type that there is not
    definePage({ address: '/{?a}', parameters: { a: { type: 'texts' } } });
  };
  expect(refused).toBeTypeOf('function');
});

it('knows the values of the page that was read', () => {
  const reading = app.read('/specimens/a?tab=log');
  if (reading.status !== 'page') throw new Error('unread');
  if (reading.page === 'specimen') {
    expectTypeOf(reading.values.specimen).toEqualTypeOf<string>();
    expectTypeOf(reading.values.tab).toEqualTypeOf<'overview' | 'care'>();
    expectTypeOf(reading.values.note).toEqualTypeOf<number | undefined>();
    expect(reading.values).toEqual({ specimen: 'a', tab: 'care' });
    expect(reading.former).toBe(true);
  }
  const found = app.read('/search?q=x');
  if (found.status === 'page' && found.page === 'search') {
    expectTypeOf(found.values.q).toEqualTypeOf<string>();
    expectTypeOf(found.values.alive).toEqualTypeOf<boolean>();
    expectTypeOf(found.values.kinds).toEqualTypeOf<('fern' | 'palm')[] | undefined>();
    expectTypeOf(found.values.height).toEqualTypeOf<RangeValue<number> | undefined>();
    expectTypeOf(found.values.sort).toEqualTypeOf<SortKey[] | undefined>();
    expectTypeOf(found.values.to).toEqualTypeOf<'specimen' | 'search' | 'home' | undefined>();
  }
  expect(found.status).toBe('page');
});

it('refuses at once a declaration that contradicts itself', () => {
  expect(() =>
    defineApp({ app: 'x', mount: '/', pages: { home: { address: '/{?n}', parameters: { n: { type: 'integer', default: 'x' } } } } }),
  ).toThrow(/default "x"/);
});
