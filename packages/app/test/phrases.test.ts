import { readdirSync, readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { sayIn } from '../src/index.ts';
import { phrases, type Phrase } from '../src/languages/phrases.ts';

const packages = new URL('../../', import.meta.url);
const sources = ['app', 'pages', 'service'].flatMap((name) =>
  readdirSync(new URL(`${name}/src/`, packages), { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.(?:ts|svelte)$/.test(file) && !file.includes('languages/'))
    .map((file) => readFileSync(new URL(`${name}/src/${file}`, packages), 'utf8')),
);
const all = Object.keys(phrases) as Phrase[];

it('each phrase stands in the sources, in quotes', () => {
  expect(all.filter((phrase) => !sources.some((text) => text.includes(`'${phrase}'`)))).toEqual([]);
});

it('translations fill in the same values as the English text', () => {
  const places = (text: string) => [...text.matchAll(/\{\d\}/g)].map(([place]) => place).sort();
  for (const phrase of all) for (const text of phrases[phrase]) expect([phrase, places(text)]).toEqual([phrase, places(phrase)]);
});

it('the app file’s own words go before ours, those of a region before those of the language', () => {
  const own = { de: { Apply: 'Filtern' }, 'de-CH': { Apply: 'Anwenden!' } };
  expect(sayIn('de', own, phrases)('Apply')).toBe('Filtern');
  expect(sayIn('de-CH', own, phrases)('Apply')).toBe('Anwenden!');
  expect(sayIn('fr-CA', own, phrases)('Page {0}', 3)).toBe('Page 3');
  expect(sayIn('pl', own, phrases)('Page {0}', '$& {1}')).toBe('Page $& {1}');
});
