import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { easy } from '../../../bench/address/easy.ts';
import { filterList } from '../../../bench/address/filter-list.ts';
import { checkPages, compileApp, describePages } from '../src/declare/index.ts';
import { explain } from '../src/explain/index.ts';
import { AddressError, change, choice, colour, date, integer, list, page, range, read, sort, text, write } from '../src/index.ts';
import { readAddress, writeAddress } from '../src/pages/index.ts';
import { sentenceOf } from '../src/sentences/index.ts';
import { often } from '../../../test/support/often.ts';

const defined = (values: object) => Object.fromEntries(Object.entries(values).filter(([, value]) => value !== undefined));

describe('a page in code and the same page in an app file', () => {
  const { app } = compileApp(describePages('bench', '/', { easy, filterList }));
  const piece = fc.oneof(
    fc.string({ unit: 'binary', maxLength: 6 }),
    fc.constantFrom('&', '=', '%', ',', '..', '-', '+', '%2C', '%zz', 'true', 'on', '7', '007', '1.5', 'poorly', 'Poorly', 'arid', 'name'),
    fc.constantFrom('q', 'health', 'zones', 'height', 'since', 'alive', 'sort', 'page', '2026-03-21', '2026-3-1'),
  );
  const query = fc.array(piece, { maxLength: 24 }).map((pieces) => pieces.join(''));
  const pairs = fc
    .array(
      fc.tuple(
        fc.constantFrom('q', 'health', 'zones', 'height', 'since', 'alive', 'sort', 'page', 'Q', 'x'),
        fc.array(piece, { maxLength: 3 }),
      ),
      {
        maxLength: 9,
      },
    )
    .map((given) => given.map(([name, pieces]) => `${name}=${pieces.join('')}`).join('&'));
  const address = fc
    .tuple(
      fc.constantFrom('/garden/specimens', '/garden/houses/palm/specimens/QM-0412', '/garden/houses/a+b/specimens/QM-0412/', '/x'),
      fc.oneof(query, pairs),
    )
    .map(([path, rest]) => `${path}?${rest}`);

  it('read every address alike, and write what they have read alike', () => {
    fc.assert(
      fc.property(address, (given) => {
        const whole = readAddress(app, given);
        const declared = whole.page === 'easy' ? easy : filterList;
        const reading = read(declared as typeof easy, given);
        if (whole.page === undefined) {
          expect(['elsewhere', 'malformed']).toContain(reading.status);
          return;
        }
        expect([reading.status, defined(reading.values), reading.former]).toEqual([whole.status, whole.values, whole.former]);
        expect(reading.problems.map(({ code, parameter }) => [code, parameter])).toEqual(
          whole.problems.filter(({ code }) => code !== 'undeclared').map(({ code, parameter }) => [code, parameter]),
        );
        if (reading.status === 'found')
          expect(write(declared as typeof easy, reading.values)).toBe(writeAddress(app, whole.page, whole.values).address);
      }),
      { numRuns: often(20_000) },
    );
  });

  it('are the same data', () => {
    expect(JSON.parse(JSON.stringify(describePages('garden', '/', { filterList })))).toEqual({
      app: 'garden',
      mount: '/',
      choices: {
        'filterList-health': { thriving: 'thriving', steady: 'steady', poorly: 'poorly', resting: 'resting' },
        'filterList-zones': { arid: 'arid', alpine: 'alpine', tropic: 'tropic', temperate: 'temperate', mist: 'mist', dry: 'dry' },
      },
      collections: {},
      pages: {
        filterList: {
          address: '/garden/specimens{?q,health,zones,height,since,alive,sort,page}',
          parameters: {
            q: { type: 'text', maxLength: 80 },
            health: { type: 'choice', of: 'filterList-health' },
            zones: { type: 'list', items: { type: 'choice', of: 'filterList-zones' }, maxItems: 6, unique: true },
            height: { type: 'range', of: 'integer', min: 0, max: 500 },
            since: { type: 'date' },
            alive: { type: 'boolean', default: true },
            sort: { type: 'sort', fields: ['name', 'height', 'planted', 'house'] },
            page: { type: 'integer', min: 1, max: 1000, default: 1 },
          },
        },
      },
    });
  });
});

it('an equal text of a list, a sort order or a range gives the identical value', () => {
  const first = read(filterList, '/garden/specimens?zones=arid,mist&sort=-name&height=1..9');
  const again = read(filterList, '/garden/specimens?page=2&zones=arid,mist&sort=-name&height=1..9');
  for (const name of ['zones', 'sort', 'height'] as const) expect(again.values[name]).toBe(first.values[name]);
});

describe('writing', () => {
  const plants = page('/plants{/part}{?q,zones*,since,tint}', {
    part: text(),
    q: text({ resets: ['zones'] }),
    zones: list(choice(['arid', 'mist'])),
    since: date({ default: () => '2026-03-21', step: false }),
    tint: colour({ formerNames: ['color'] }),
  });

  it('sorts names, leaves out defaults that depend on the day, and refuses with every reason', () => {
    expect(write(plants, { tint: '#3a7d44', zones: ['arid', 'mist'], q: 'a b', since: '2026-03-21' })).toBe(
      '/plants?q=a%20b&zones=arid&zones=mist&tint=3a7d44',
    );
    const bad = { tint: 'green', zones: ['dry'], huose: 1, part: '..' };
    try {
      write(plants, bad as never);
      expect.unreachable();
    } catch (error) {
      const codes = (error as AddressError).problems.map(({ code, parameter }) => `${parameter ?? ''} ${code}`);
      expect(codes).toEqual(['huose undeclared', 'part not-a-segment', 'zones unknown-choice', 'tint not-a-colour']);
    }
    expect(() => write(page('/{?a}', { a: integer({ required: true }) }), {} as never)).toThrow('missing a');
    expect(() => write(plants, { part: 'x'.repeat(9000) })).toThrow(/too-long/);
  });

  it('of a change says what resets, and which entry of the history it takes', () => {
    const current = read(plants, '/plants?q=fern&zones=arid');
    if (current.status !== 'found') throw new Error(current.status);
    expect(change(plants, current.values, { q: 'moss' })).toMatchObject({
      address: '/plants?q=moss',
      entry: 'new',
      changed: ['q', 'zones'],
    });
    expect(change(plants, current.values, { since: '2026-03-22' }).entry).toBe('same');
    expect(change(plants, current.values, { zones: ['arid'] })).toMatchObject({ entry: 'none', changed: [] });
  });

  it('an explanation says where each value comes from, what was corrected, and what was probably meant', () => {
    const { parameters, undeclared, former, fragment } = explain(plants, '/plants/a+b?zones=Arid&zones=mits&color=FC0&q=&x=1#top');
    expect(parameters.map(({ name, origin, corrected, text: given, suggestion }) => [name, origin, corrected, given, suggestion])).toEqual([
      ['part', 'given', false, 'a+b', undefined],
      ['q', 'blank', false, '', undefined],
      ['zones', 'given', true, 'Arid&zones=mits', 'mist'],
      ['since', 'default', false, undefined, undefined],
      ['tint', 'given', true, 'FC0', undefined],
    ]);
    expect([undeclared, former, fragment]).toEqual([[{ name: 'x', text: '1' }], true, 'top']);
    const [problem] = explain(filterList, '/garden/specimens?health=porly').problems;
    expect(sentenceOf(problem?.code ?? '', problem?.data)).toBe('It is not one of the choices.');
    expect(explain(filterList, '/garden/specimens?health=porly').parameters[1]?.suggestion).toBe('poorly');
  });
});

it('declarations that contradict themselves are found where they are checked', () => {
  expect(checkPages({ easy, filterList })).toEqual([]);
  const wrong = {
    one: page('/a{?n,word}', { n: integer({ min: 1, default: 0 }), word: text({ minLength: 9, maxLength: 3 }) }),
    two: page('/a', {}),
  };
  expect(checkPages(wrong).map(({ code, pointer }) => [code, pointer])).toEqual([
    ['bad-default', '/pages/one/parameters/n/default'],
    ['limits-cross', '/pages/one/parameters/word/minLength'],
  ]);
});

it('hands out lists, ranges and sort orders that nobody can change, whether read or by default', () => {
  const here = page('/a{?l,r,s,d,e}', {
    l: list(integer()),
    r: range(integer()),
    s: sort(['name', 'age']),
    d: list(integer(), { default: [1, 2] }),
    e: range(integer(), { default: { from: 1 } }),
  });
  for (const address of ['/a', '/a?l=1,2&r=3..4&s=-name,age', '/a?d=5&e=6..', '/a?l=']) {
    const before = JSON.stringify(read(here, address).values);
    const change = (value: unknown): void => {
      if (typeof value !== 'object' || value === null) return;
      expect(Object.isFrozen(value)).toBe(true);
      Object.values(value).forEach(change);
    };
    Object.values(read(here, address).values).forEach(change);
    expect(JSON.stringify(read(here, address).values)).toBe(before);
  }
});
