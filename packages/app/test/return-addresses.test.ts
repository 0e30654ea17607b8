import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { encode } from '@pallmist/address/types';
import { followBack, ownValue, readAddress, signInAddress } from '../src/index.ts';
import { garden } from './garden.ts';
import { often } from '../../../test/support/often.ts';

const hosts = ['evil.example', 'evil.example:443', '0x7f000001', '[::1]', 'evil。example', 'ｅvil.example', 'xn--evil', '127.1'];
const schemes = [
  'https:',
  'HTTP:',
  'javascript:',
  'JaVaScRiPt:',
  'data:',
  'vbscript:',
  'file:',
  'blob:',
  'ftp:',
  'ws:',
  'about:',
  'view-source:',
  'intent:',
  'x:',
];
const beginnings = [
  '//',
  '///',
  '////',
  '/\\',
  '\\/',
  '\\\\',
  '/\\/',
  '//\\',
  '/\t/',
  '/\n/',
  '/\r/',
  '\t//',
  '\n//',
  ' //',
  '\u00a0//',
  '\u2028//',
  '\ufeff//',
  '/.//',
  '/..//',
  '/./\\',
  '/%09/',
  '/%0a/',
  '/%5c',
  '/%2f',
  '%2f%2f',
  '%5c%5c',
  '／／',
  '/／',
  '⁄⁄',
  '/;//',
  '/?//',
  '/#//',
];

/** The list without what two of its rows happen to make alike. */
function unique(texts: readonly string[]): string[] {
  return [...new Set(texts)];
}

/** Ways to lead a return address off the site, or to somewhere that is none of the app's pages. The table grows. */
const ways = unique([
  ...beginnings.flatMap((beginning) => [
    beginning + 'evil.example',
    `${beginning}evil.example/garden/specimens`,
    `${beginning}garden@evil.example`,
  ]),
  ...schemes.flatMap((scheme) => [`${scheme}//evil.example/garden`, `${scheme}alert(1)`, `${scheme}/garden`]),
  ...hosts.flatMap((host) => [`https://${host}/garden`, `//${host}/garden/specimens`, `http://user:password@${host}/`]),
  'https://garden@evil.example/garden',
  'https://site.invalid/garden/specimens',
  '//site.invalid/garden/specimens',
  'http://site.invalid:80/garden/specimens',
  '/garden.evil.example',
  '/gardens',
  '/garden%2fspecimens',
  '/GARDEN/specimens',
  '/garden/../~/console',
  '/garden/%2e%2e/~/console',
  '/garden/specimens/../../~/api/v1/apps',
  '/~/console',
  '/~/draft/little/specimens',
  '/garden/nowhere',
  '/garden/specimens/QM-0001/more',
  '/garden/?~wanted=%2F%2Fevil.example', // the sign-in page of this test, nested
  '/garden?x',
  '/garden/',
  '',
  ' ',
  '.',
  '..',
  '?',
  '#',
  'garden/specimens',
  './garden/specimens',
  '\u0000/garden/specimens',
  '/garden/specimens\u0000',
  '/garden/specimens\r\nset-cookie: x=1',
  '/garden/specimens\nlocation: https://evil.example',
  '/garden/specimens\\..\\..\\',
  '<script>alert(1)</script>',
  'null',
  'undefined',
  '[object Object]',
  '/' + 'a'.repeat(70_000),
]);

describe(`${String(ways.length)} ways to lead a return address astray`, () => {
  it('are at least 150', () => {
    expect(ways.length).toBeGreaterThanOrEqual(150);
  });

  it.each(ways.map((way) => [way.slice(0, 80), way]))('%j', (_, way) => {
    const followed = followBack(garden, 'home', way);
    // Where something harmless is left of it, it is a page of this very app.
    if (followed !== undefined) expectOwnPage(followed);
    const fromAddress = ownValue(readAddress(garden, `/garden?~wanted=${encodeURIComponent(toWellFormed(way))}`), '~wanted');
    if (fromAddress !== undefined) expect(followBack(garden, 'home', fromAddress)).toBe(followed);
    expect(signInAddress(garden, 'home', toWellFormed(way), 'sign-in-needed')).toMatch(
      /^\/garden\?~wanted=[^\s<>"'\\]*&~why=sign-in-needed$/,
    );
  });
});

/** A lone surrogate cannot stand in an address. */
const toWellFormed = (text: string) => text.replaceAll(/[\ud800-\udfff]/gu, '\ufffd');

function expectOwnPage(followed: string): void {
  const site = 'https://quillmoor.example';
  const url = new URL(followed, site);
  expect(url.origin).toBe(site);
  expect(followed).toMatch(/^\/garden(?:\/|\?|#|$)/);
  expect(readAddress(garden, followed).page).toBeDefined();
}

it('whatever is made of such pieces stays on the site, as browsers see it', () => {
  const piece = fc.oneof(
    fc.constantFrom(...beginnings, ...schemes, ...hosts, '/garden', '/specimens', '?q=', '&', '#', '@', ':', '..', '%', '~wanted='),
    fc.string({ maxLength: 3 }),
  );
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 8 }), (pieces) => {
      const followed = followBack(garden, 'home', pieces.join(''));
      if (followed !== undefined) expectOwnPage(followed);
    }),
    { numRuns: often(5000) },
  );
});

it('an address of the app comes back whole, query, fragment and all', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme', maxLength: 20 }), fc.string({ minLength: 1, maxLength: 8 }), (q, hash) => {
      const wanted = `/garden/specimens?q=${encode(toWellFormed(q))}&page=2#${encode(toWellFormed(hash))}`;
      const reading = readAddress(garden, signInAddress(garden, 'home', wanted, 'sign-in-needed'));
      expect(followBack(garden, 'home', ownValue(reading, '~wanted'))).toBe(wanted);
    }),
  );
});
