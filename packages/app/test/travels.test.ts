import fc from 'fast-check';
import { linkifyit } from 'linkify-it';
import { expect, it } from 'vitest';
import { integer, page, text, write, type LinkValues, type Page } from '@pallmist/address';
import { fragile } from '../../address/src/travel.ts';
import { compileApp, readAddress, repairAddress, writeAddress, type Values } from '../src/index.ts';
import { compileContext, declared, type Declared } from './generated-declarations.ts';
import { often } from '../../../test/support/often.ts';

const linkify = linkifyit();
const site = 'https://quillmoor.example';

/** Texts of what linkifiers stop at. */
const marks: Declared = {
  declaration: { type: 'text' } as Declared['declaration'],
  repeated: false,
  value: fc.string({ unit: fc.constantFrom('-', '.', '_', '~', 'a', '1', ',', '!', ';', ')'), maxLength: 8 }),
};

/** A page with these parameters, and an address of it. */
const written = fc
  .array(fc.oneof({ weight: 4, arbitrary: declared }, { weight: 1, arbitrary: fc.constant(marks) }), { minLength: 1, maxLength: 3 })
  .chain((all) => fc.tuple(fc.constant(all), fc.tuple(...all.map(({ value }) => value))))
  .map(([all, values]) => {
    const names = all.map((_, index) => `p${String(index)}`);
    const { app } = compileApp({
      app: 'travels',
      mount: '/',
      ...compileContext,
      pages: {
        here: {
          address: `/a{?${names.map((name, index) => `${name}${all[index]?.repeated === true ? '*' : ''}`).join(',')}}`,
          parameters: Object.fromEntries(all.map(({ declaration }, index) => [`p${String(index)}`, declaration])),
        },
        elsewhere: { address: '/b' },
      },
    });
    const { address = '' } = writeAddress(
      app,
      'here',
      Object.fromEntries(values.map((value, index) => [`p${String(index)}`, value])) as Values,
    );
    return { app, address };
  })
  .filter(({ address }) => address !== '');

const around = ['See % for it.', '%', '(%)', '%, and so on', 'Is it %?', '“%”', '<%>', '%!', 'two\n%\nlines', '%; no', '"%"', '[%]'];

it('a linkifier finds the whole address, whatever the values and whatever stands around it', () => {
  fc.assert(
    fc.property(written, fc.constantFrom(...around), ({ address }, text) => {
      expect(linkify.match(text.replace('%', () => site + address))?.[0]?.url).toBe(site + address);
    }),
    { numRuns: often(3000) },
  );
});

it('an address never ends in what the rules of common programs cut off', () => {
  fc.assert(
    fc.property(written, ({ address }) => {
      expect(address).toMatch(/[a-z0-9/=]$/i);
    }),
    { numRuns: often(1000) },
  );
});

it.each([
  ['/a-', '/a%2D'],
  ['/beds/a---b/c', '/beds/a--%2Db/c'],
  ['/beds/{q}/end_', '/beds/fern/end%5F'],
  ['/beds{?left---right}', '/beds?left--%2Dright=fern'],
])('the texts of the template %s travel too', (template, address) => {
  const names = template.match(/q|left---right/g) ?? [];
  const here = page(template, Object.fromEntries(names.map((name) => [name, text()])) as never) as Page;
  expect(write(here, Object.fromEntries(names.map((name) => [name, 'fern'])) as never)).toBe(address);
});

it('whole addresses are looked through only where a piece of them asks for it, which is slow', () => {
  const plain = page('/beds/{bed}/plants{?q,n}', { bed: text(), q: text(), n: integer() });
  expect(plain.fragile).toBe(false);
  const noted = (values: LinkValues<typeof plain>) => {
    write(plain, values);
    return fragile;
  };
  expect(noted({ bed: 'QM-0412', q: 'a moss, a fern', n: -3 })).toBe(false);
  for (const q of ['fern.', 'a..b', 'a--b', 'Größe', '-']) expect([q, noted({ bed: 'b', q })]).toEqual([q, true]);
});

/** Quoted-printable (RFC 2045) of one line, wrapped at 76 characters, and undone. */
const throughMail = (line: string) => {
  const encoded = line.replaceAll('=', '=3D');
  const wrapped = encoded.match(/.{1,72}(?![0-9A-F]{1,2}$)/g)?.join('=\r\n') ?? '';
  return wrapped.replaceAll('=\r\n', '').replaceAll('=3D', '=');
};

it.each<[string, (address: string) => string]>([
  ['a mail in quoted-printable', throughMail],
  ['added tracking parameters', (address) => `${address}${address.includes('?') ? '&' : '?'}utm_source=mail&fbclid=1`],
  ['small letters in the escapes', (address) => address.replaceAll(/%../g, (escape) => escape.toLowerCase())],
  [
    'unreserved characters encoded',
    (address) => address.replaceAll(/[.~_-]/g, (sign) => `%${sign.charCodeAt(0).toString(16).toUpperCase()}`),
  ],
  ['names as they stand in the source of a page', (address) => address.replaceAll('&', '&amp;')],
  ['names in capitals', (address) => address.replaceAll(/\bp(?=\d=)/g, 'P')],
])('%s changes no value', (_, travel) => {
  fc.assert(
    fc.property(written, ({ app, address }) => {
      const travelled = travel(address);
      fc.pre(!address.split(/[?&]/).some((pair) => /=.*P\d=/.test(pair)));
      expect(readAddress(app, travelled).values).toEqual(readAddress(app, address).values);
    }),
    { numRuns: often(500) },
  );
});

const garden = compileApp({
  app: 'garden',
  mount: '/garden',
  choices: { house: { palm: 'Palm', fern: { label: 'Fern', formerValues: ['bracken'] } } },
  pages: {
    list: {
      address: '/plants{?q,house,since,page}',
      parameters: {
        q: { type: 'text' },
        house: { type: 'choice', of: 'house' },
        since: { type: 'date' },
        page: { type: 'integer', default: 1 },
      },
    },
  },
}).app;
const probable = (address: string) => repairAddress(garden, address, readAddress(garden, address));

it.each([
  ['/garden/plants?house=palm).', '/garden/plants?house=palm'],
  ['/garden/plants?house=palm%22', '/garden/plants?house=palm'],
  ['/garden/plants?house=palm%E2%80%9D,', '/garden/plants?house=palm'],
  ['/garden/plants.', '/garden/plants'],
  ['/garden/plants?since=2026-11-21*#x', '/garden/plants?since=2026-11-21#x'],
  ['/garden/plants?q=tree%2520fern&since=2026%252D11%252D21', '/garden/plants?q=tree%20fern&since=2026%2D11%2D21'],
  ['/garden/plants?house=pa=%0D%0Alm', '/garden/plants?house=palm'],
  // The sign between name and value is no mark of a broken line; what is read right needs no repair.
  ['/garden/plants?house=%0Apalm', undefined],
  ['/garden/plants?house=%0Apa%0Alm', '/garden/plants?house=palm'],
  ['/garden/plants?house=palm%E2%80%A6', '/garden/plants?house=palm'],
  ['/garden/plants?house=palm%E3%80%82', '/garden/plants?house=palm'],
  ['/garden/plants?house=palm。', '/garden/plants?house=palm'],
  ['/garden/plants?page=2&amp;amp;since=2026-11-21', undefined],
  // A cut date is no day; nothing says which was meant.
  ['/garden/plants?since=2026-11-2', undefined],
  ['/garden/plants?house=plam', undefined],
  // What is right is left alone, however odd.
  ['/garden/plants?q=100%25', undefined],
  ['/garden/plants?q=wow!', undefined],
])('%s was probably %s', (damaged, meant) => {
  expect(probable(damaged)).toBe(meant);
});

it('a date that was cut is refused rather than read as another day; a former value may have other capitals', () => {
  expect(readAddress(garden, '/garden/plants?since=2026-11-2').problems).toMatchObject([{ code: 'not-a-date' }]);
  expect(readAddress(garden, '/garden/plants?since=2026-3-1').values).toMatchObject({ since: '2026-03-01' });
  expect(readAddress(garden, '/garden/plants?House=BRACKEN')).toMatchObject({ values: { house: 'fern' }, former: true });
});

/** What happens to addresses between people; each may come more than once. */
const damages: ((address: string, at: number) => string)[] = [
  ...['.', ').', '”', '%22', '%E2%80%A6', '。', '»', ',', '!', '%5D', '>'].map((sign) => (address: string) => address + sign),
  (address) => address.replaceAll('%', '%25'),
  (address) => address.replaceAll('&', '&amp;'),
  ...['%0A', '%0D%0A', '=%0D%0A', '%0A%20', '\r\n'].map(
    (sign) => (address: string, at: number) => address.slice(0, at) + sign + address.slice(at),
  ),
  (address, at) => address.slice(0, at) + address.slice(at + 1),
  (address, at) => `${address.slice(0, at)}x${address.slice(at)}`,
];

it('what is repaired says what was meant, or nothing is repaired', () => {
  let repaired = 0;
  fc.assert(
    fc.property(written, fc.constantFrom(...damages), fc.nat(), ({ app, address }, damage, place) => {
      // A value of line breaks alone cannot be told from a line that was broken.
      fc.pre(!/%0A/.test(address));
      const meant = readAddress(app, address);
      const damaged = damage(address, 2 + (place % (address.length - 1)));
      const to = repairAddress(app, damaged, readAddress(app, damaged));
      if (to === undefined) return;
      repaired++;
      const again = readAddress(app, to);
      // A letter that is missing or was added may make another right address; then no repair is asked for.
      if (damage !== damages.at(-1) && damage !== damages.at(-2)) expect(again.values).toEqual(meant.values);
      expect(again.status).toBe('found');
    }),
    { numRuns: often(2000) },
  );
  expect(repaired).toBeGreaterThan(50);
});

it('repairing never throws, and never changes what is right', () => {
  fc.assert(
    fc.property(written, fc.string({ unit: 'binary', maxLength: 60 }), ({ app, address }, noise) => {
      expect(repairAddress(app, address, readAddress(app, address))).toBeUndefined();
      const odd = address + noise;
      const repaired = repairAddress(app, odd, readAddress(app, odd));
      if (repaired !== undefined) expect(readAddress(app, repaired).status).toBe('found');
    }),
    { numRuns: often(1000) },
  );
});
