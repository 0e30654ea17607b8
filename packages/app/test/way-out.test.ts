import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkAppFile, readAddress, type PagePayload } from '../src/index.ts';
import { showAt, nodesOf } from './show.ts';
import { often } from '../../../test/support/often.ts';

const source = `
pallmist: 1
app: x
title: X
mount: /x
choices:
  ways: { leaflet: Leaflet, paper: Paper }
parameters:
  via: { type: choice, of: ways, reach: visit }
  code: { type: text, reach: visit }
sites:
  shop: { base: https://shop.example/en/, withVisit: [via] }
  plain: { base: https://plain.example }
pages:
  home:
    title: Home
    address: /{?q}
    parameters: { q: { type: text } }
    content:
      - { show: site-link, text: Shop, site: shop, path: "find/{param.q}/all", query: { called: "{param.q}", page: 2 } }
      - { show: site-link, text: Own way, site: shop, query: { via: ours } }
      - { show: site-link, text: Plain, site: plain, path: /a, window: new }
      - { show: link, text: All, to: { page: home, values: { q: x }, withVisit: true } }
      - { show: link, text: One, to: { page: home, withVisit: [via] } }
      - { show: link, text: Stated, to: { page: home, values: { via: paper }, withVisit: true } }
      - { show: link, text: None, to: { page: home } }
      - { show: share }
      - { show: share, text: Telling, withVisit: [via] }
`;
const { definition, compiled, problems } = checkAppFile(source);

/** Where each of the page’s ways leads, by what it says. */
function ways(q: string | undefined, visit: PagePayload['visit'] = {}): Record<string, string | undefined> {
  if (!definition || !compiled) throw new Error(JSON.stringify(problems));
  const { content } = showAt(definition, compiled, '/x', {
    reading: { ...readAddress(compiled, '/x'), values: q === undefined ? {} : { q } },
    visit,
  });
  const links = [...nodesOf(content, 'site-link'), ...nodesOf(content, 'link')].map(({ link }) => [link.text, link.href]);
  const shares = nodesOf(content, 'share').map(({ text, href }) => [text, href]);
  return Object.fromEntries([...links, ...shares]) as Record<string, string | undefined>;
}

describe('what is remembered for the visit', () => {
  it('goes along where the app file says so, and nowhere else', () => {
    expect(problems).toEqual([]);
    expect(ways('fern', { via: 'leaflet', code: 'a b' })).toEqual({
      Shop: 'https://shop.example/en/find/fern/all?called=fern&page=2&via=leaflet',
      'Own way': 'https://shop.example/en?via=ours',
      Plain: 'https://plain.example/a',
      All: '/x?q=x&via=leaflet&code=a%20b',
      One: '/x?via=leaflet',
      Stated: '/x?via=paper&code=a%20b',
      None: '/x',
      'Share this view': '/x?q=fern',
      Telling: '/x?q=fern&via=leaflet',
    });
  });

  it('is left out while there is nothing', () => {
    expect(ways('fern')).toMatchObject({ All: '/x?q=x', Telling: '/x?q=fern', 'Own way': 'https://shop.example/en?via=ours' });
    expect(ways('fern')['Shop']).not.toContain('via');
  });
});

describe('a way to another site', () => {
  it('says which, and nothing where it leads nowhere', () => {
    if (!definition || !compiled) throw new Error('no app');
    const hosts = (q: string) => nodesOf(showAt(definition, compiled, `/x?q=${q}`).content, 'site-link').map(({ host }) => host);
    expect(hosts('fern')).toEqual(['shop.example', 'shop.example', 'plain.example']);
    expect(hosts('..')).toEqual(['', 'shop.example', 'plain.example']);
  });

  it('is none where a value is absent, or would lead up', () => {
    for (const q of [undefined, '', '.', '..']) expect(ways(q)['Shop']).toBeUndefined();
  });

  it('leads to that site, below its beginning, in as many segments as the app file has, whatever the values are', () => {
    const hostile = fc.oneof(
      fc.string({ unit: 'grapheme' }),
      fc.string({ unit: fc.constantFrom('/', '\\', '.', '%', '2', 'e', '?', '#', '@', ':', '\n', '\t', '\u0000', '\ud800') }),
      fc.constantFrom(
        '//evil.example',
        '\\\\evil.example',
        'https://evil.example',
        '%2e%2e',
        '.%2E',
        '@evil.example',
        'javascript:alert(1)',
      ),
    );
    fc.assert(
      fc.property(hostile, (q) => {
        const href = ways(q)['Shop'];
        if (href === undefined) return;
        const url = new URL(href);
        expect(url.origin).toBe('https://shop.example');
        expect(url.pathname).toMatch(/^\/en\/find\/[^/]+\/all$/);
        expect(decodeURIComponent(url.pathname.split('/')[3] ?? '')).toBe(q.toWellFormed());
        expect(url.searchParams.get('called')).toBe(q.toWellFormed());
      }),
      { numRuns: often(2000) },
    );
  });

  it.each([
    ['site: plain', 'site: plane', 'unknown-site'],
    ['path: /a', 'path: "/a?b=c"', 'bad-path'],
    ['path: /a', 'path: "/../a"', 'bad-path'],
    ['withVisit: [via]', 'withVisit: [q]', 'with-visit-unknown'],
    ['withVisit: [via] } }', 'withVisit: [vie] } }', 'with-visit-unknown'],
    ['reach: visit', 'reach: app', 'with-visit-unknown'],
  ])('%s must not be %s', (right, wrong, code) => {
    expect(checkAppFile(source.replace(right, wrong)).problems.map((problem) => problem.code)).toContain(code);
  });

  it.each(['javascript:alert(1)', 'https://a@b.example', 'https://a.example?x', '//a.example', 'ftp://a.example'])(
    'no site begins with %s',
    (at) => {
      expect(checkAppFile(source.replace('https://plain.example', at)).definition).toBeUndefined();
    },
  );
});
