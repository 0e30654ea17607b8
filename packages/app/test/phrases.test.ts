import { readdirSync, readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { sayIn } from '../src/index.ts';
import { messagePhrases } from '../src/languages/message-phrases.ts';
import { phrases } from '../src/languages/phrases.ts';

const packages = new URL('../../', import.meta.url);
const sources = ['app', 'pages', 'service'].flatMap((name) =>
  readdirSync(new URL(`${name}/src/`, packages), { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.(?:ts|svelte)$/.test(file) && !file.includes('languages/'))
    .map((file) => readFileSync(new URL(`${name}/src/${file}`, packages), 'utf8')),
);
const table = { ...phrases, ...messagePhrases };
const all = Object.keys(table) as (keyof typeof table)[];

it('each phrase stands in the sources, in quotes', () => {
  expect(all.filter((phrase) => !sources.some((text) => text.includes(`'${phrase}'`)))).toEqual([]);
});

it('no phrase is in both tables: that for browsers, and that for what the service says by itself', () => {
  expect(Object.keys(phrases).filter((phrase) => Object.hasOwn(messagePhrases, phrase))).toEqual([]);
});

it('what is filled in stands in the quotation marks of the language', () => {
  const marked = ['de', 'fr', 'es', 'en', 'pl'].map((tag) => sayIn(tag, undefined, table)('There is no page at {0}.', '“/a”'));
  expect(marked.map((text) => text.replace(/[^“”„«» /a]/g, '').match(/[“„«].*[”“»]/)?.[0])).toEqual([
    '„/a“',
    '« /a »',
    '«/a»',
    '“/a”',
    '“/a”',
  ]);
});

it('translations fill in the same values as the English text', () => {
  const places = (text: string) => [...text.matchAll(/\{\d\}/g)].map(([place]) => place).sort();
  for (const phrase of all) for (const text of table[phrase]) expect([phrase, places(text)]).toEqual([phrase, places(phrase)]);
});

it('the app file’s own words go before ours, those of a region before those of the language', () => {
  const own = { de: { Apply: 'Filtern' }, 'de-CH': { Apply: 'Anwenden!' } };
  expect(sayIn('de', own, phrases)('Apply')).toBe('Filtern');
  expect(sayIn('de-CH', own, phrases)('Apply')).toBe('Anwenden!');
  expect(sayIn('fr-CA', own, phrases)('Page {0}', 3)).toBe('Page 3');
  expect(sayIn('pl', own, phrases)('Page {0}', '$& {1}')).toBe('Page $& {1}');
});
