import { checkAppFile } from '@pallmist/app';
import { describeChanges, patchData, type AppDefinition } from '@pallmist/app/editing';
import { expect, it } from 'vitest';

const checked = checkAppFile(`
title: Pots
mount: /pots
pallmist: 1
app: pots
timeZone: Europe/London
parameters:
  via: { type: text, step: false }
collections:
  pots:
    keyField: code
    fields: { code: { type: text, unique: true }, size: { type: integer } }
gates: { keepers: { roles: [keeper] } }
navigation: [{ text: Pots, to: { page: list } }]
pages:
  list:
    title: Pots
    address: '/{?q,page}'
    parameters: { q: { type: text, blank: absent }, page: { type: integer, min: 1, default: 1 } }
    content: [{ show: heading, text: Pots }]
  pot:
    title: Pot
    address: '/p/{pot}'
    parameters: { pot: { type: record, of: pots, sample: A1 } }
    content: [{ show: heading, text: Pot }]
`);
const before = checked.definition as AppDefinition;

const words = (...patch: Parameters<typeof patchData>[1]) =>
  describeChanges(before, patchData(before, patch) as AppDefinition).map((change) => `${change.breaks ? '! ' : ''}${change.words}`);

it('finds nothing between a state and itself, and each page of a first edition', () => {
  expect(words()).toEqual([]);
  expect(describeChanges(undefined, before).map(({ kind, about, pointer }) => [kind, about, pointer])).toEqual([
    ['new', 'address', '/pages/list'],
    ['new', 'address', '/pages/pot'],
  ]);
});

it.each<[string, Parameters<typeof patchData>[1][number], RegExp]>([
  ['a page that is removed', { op: 'remove', path: '/pages/pot' }, /^! /],
  ['a mount', { op: 'replace', path: '/mount', value: '/jars' }, /^! The app moves from \/pots to \/jars/],
  ['an address', { op: 'replace', path: '/pages/pot/address', value: '/pot/{pot}' }, /^! /],
  [
    'a parameter that is removed',
    { op: 'remove', path: '/pages/list/parameters/q' },
    /^“Pots” takes no “q” any more; addresses that have it still work without it\.$/,
  ],
  ['a title of the app', { op: 'replace', path: '/title', value: 'Jars' }, /^The app’s title is “Jars”\.$/],
  ['a time zone', { op: 'remove', path: '/timeZone' }, /^The time zone is UTC\.$/],
  ['a look', { op: 'add', path: '/look', value: { corners: 'square' } }, /^The look is changed\.$/],
  ['a navigation', { op: 'remove', path: '/navigation' }, /^The navigation is changed\.$/],
  ['a collection', { op: 'remove', path: '/collections/pots/fields/size' }, /^The collection “pots” is changed\.$/],
  ['a gate that is removed', { op: 'remove', path: '/gates/keepers' }, /^The gate “keepers” is gone\.$/],
  ['a choices list', { op: 'add', path: '/choices', value: { sizes: { s: 'Small' } } }, /^The choices list “sizes” is new\.$/],
  ['a word', { op: 'add', path: '/words', value: { pot: { en: 'Pot' } } }, /^The word “pot” is new\.$/],
  ['a site', { op: 'add', path: '/sites', value: { shop: { base: 'https://shop.example' } } }, /^The site “shop” is new\.$/],
])('describes %s, and says whether shared addresses break', (_, operation, expected) => {
  const found = words(operation);
  expect(
    found.some((one) => expected.test(one)),
    found.join('\n'),
  ).toBe(true);
  if (!expected.source.startsWith('^!')) expect(found.filter((one) => one.startsWith('!'))).toEqual([]);
});

it('does not call an address broken that leads on to the page', () => {
  const moved = words(
    { op: 'replace', path: '/pages/pot/address', value: '/pot/{pot}' },
    { op: 'add', path: '/pages/pot/formerAddresses', value: ['/p/{pot}'] },
  );
  expect(moved).not.toEqual([]);
  expect(moved.filter((one) => one.startsWith('!'))).toEqual([]);
});
