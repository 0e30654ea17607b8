import { expect, expectTypeOf, it } from 'vitest';
import {
  boolean,
  choice,
  integer,
  list,
  number,
  page,
  range,
  read,
  record,
  sort,
  text,
  write,
  type Range,
  type SortKey,
} from '../src/index.ts';

const specimen = page('/specimens/{specimen}{?tab,note}', {
  specimen: record(),
  tab: choice({ overview: 'Overview', care: { label: 'Care', formerValues: ['log'] } }, { default: 'overview' }),
  note: integer(),
});
const search = page('/search{/house}{?q,kinds*,height,alive,sort}', {
  house: text(),
  q: text({ required: true, resets: ['kinds'] }),
  kinds: list(choice(['fern', 'palm'])),
  height: range(number()),
  alive: boolean({ default: true }),
  sort: sort(['name', 'planted']),
});
const home = page('/');

it('writes what compiles', () => {
  expect(write(specimen, { specimen: 'a', tab: 'care' })).toBe('/specimens/a?tab=care');
  expect(write(search, { q: 'x', kinds: ['fern', 'palm'], height: { from: 1 } })).toBe('/search?q=x&kinds=fern&kinds=palm&height=1.%2E');
  expect(write(home, {})).toBe('/');
});

it('does not compile a wrong name, a missing value or a wrong type', () => {
  // Never called: these lines are for the compiler, which has to refuse each of them.
  const refused = () => {
    // @ts-expect-error the path needs its parameter
    write(specimen, {});
    // @ts-expect-error a required parameter is missing
    write(search, {});
    // @ts-expect-error there is no such parameter
    write(specimen, { specimen: 'a', tabb: 'care' });
    // @ts-expect-error a former choice is not one of today's
    write(specimen, { specimen: 'a', tab: 'log' });
    // @ts-expect-error a number, not a text
    write(specimen, { specimen: 'a', note: '1' });
    // @ts-expect-error an item that is no choice
    write(search, { q: 'x', kinds: ['moss'] });
    // @ts-expect-error the ends are numbers
    write(search, { q: 'x', height: { from: '1' } });
    // @ts-expect-error the home page has no parameters
    write(home, { q: 'x' });
  };
  expect(refused).toBeTypeOf('function');
});

it('does not compile a wrong declaration', () => {
  const refused = () => {
    // @ts-expect-error a name in the template without a parameter
    page('/{?a,b}', { a: text() });
    // @ts-expect-error a parameter without a place in the template
    page('/{?a}', { a: text(), zz: text() });
    // @ts-expect-error no such attribute
    integer({ mim: 1 });
    // @ts-expect-error a limit of another type
    integer({ min: '1' });
    // @ts-expect-error a default of another type
    integer({ default: 'one' });
    // @ts-expect-error a default that is not among the choices
    choice(['fern', 'palm'], { default: 'moss' });
    // @ts-expect-error a default that sorts by another field
    sort(['name'], { default: [{ field: 'height', descending: false }] });
    // @ts-expect-error a list without items
    list();
    // @ts-expect-error a default with an item that is no choice
    list(choice(['fern']), { default: ['moss'] });
    // @ts-expect-error a range of texts that are no ends
    range(boolean());
    // @ts-expect-error it resets what the page does not have
    page('/{?q,page}', { q: text({ resets: ['pgae'] }), page: integer() });
    // @ts-expect-error no such thing to do with a wrong value
    text({ ifWrong: 'ignore' });
  };
  expect(refused).toBeTypeOf('function');
});

it('knows the values of the page that was read', () => {
  const reading = read(specimen, '/specimens/a?tab=log');
  if (reading.status !== 'found') throw new Error('unread');
  expectTypeOf(reading.values.specimen).toEqualTypeOf<string>();
  expectTypeOf(reading.values.tab).toEqualTypeOf<'overview' | 'care'>();
  expectTypeOf(reading.values.note).toEqualTypeOf<number | undefined>();
  expect(reading.values).toEqual({ specimen: 'a', tab: 'care', note: undefined });
  expect(reading.former).toBe(true);
  const found = read(search, '/search?q=x');
  if (found.status !== 'found') throw new Error('unread');
  expectTypeOf(found.values.q).toEqualTypeOf<string>();
  expectTypeOf(found.values.alive).toEqualTypeOf<boolean>();
  expectTypeOf(found.values.kinds).toEqualTypeOf<readonly ('fern' | 'palm')[] | undefined>();
  expectTypeOf(found.values.height).toEqualTypeOf<Range<number> | undefined>();
  expectTypeOf(found.values.sort).toEqualTypeOf<readonly SortKey<'name' | 'planted'>[] | undefined>();
});
