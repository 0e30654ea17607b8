import { DraftDocument } from '@pallmist/app';
import { comparePatch, invertPatch, patchData, placesMeet, touchedPlaces } from '@pallmist/app/editing';
import type { PatchOperation } from '@pallmist/app/address';
import fc from 'fast-check';
import { parse, stringify } from 'yaml';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { often } from '../../../../test/support/often.ts';

const key = fc.constantFrom('a', 'b', 'c', 'd/e', 'f~g', 'pages', 'words');
const { data } = fc.letrec((tie) => ({
  data: fc.oneof(
    { depthSize: 'small' },
    fc.constantFrom('x', 'y', 'a longer text: with a colon', ''),
    fc.integer({ min: -9, max: 9 }),
    fc.boolean(),
    tie('map'),
    tie('list'),
  ),
  map: fc.dictionary(key, tie('data'), { maxKeys: 5, noNullPrototype: true }),
  list: fc.array(tie('data'), { maxLength: 4 }),
}));
const map = fc.dictionary(key, data, { minKeys: 1, maxKeys: 6, noNullPrototype: true });

describe('patches of data', () => {
  it('make one state of another, and are taken back, keys in their order', () => {
    fc.assert(
      fc.property(map, map, (before, after) => {
        const patch = comparePatch(before, after);
        const patched = patchData(before, patch);
        expect(patched).toEqual(after);
        const back = patchData(patched, invertPatch(before, patch));
        expect(JSON.stringify(back)).toBe(JSON.stringify(before));
      }),
      { numRuns: often(500) },
    );
  });

  it('leave the data as they were, and share what does not change', () => {
    const before = { pages: { a: { title: 'A' }, b: { title: 'B' } }, title: 'App' };
    const copy = structuredClone(before);
    const after = patchData(before, [{ op: 'replace', path: '/pages/a/title', value: 'New' }]) as typeof before;
    expect(before).toEqual(copy);
    expect(after.pages.b).toBe(before.pages.b);
    expect(after.pages.a.title).toBe('New');
  });

  it('put a key in front of another, and keep a renamed key where it is', () => {
    const before = { a: 1, b: 2, c: 3 };
    expect(Object.keys(patchData(before, [{ op: 'add', path: '/x', value: 0, before: 'b' }]) as object)).toEqual(['a', 'x', 'b', 'c']);
    expect(Object.keys(patchData(before, [{ op: 'move', from: '/a', path: '/z' }]) as object)).toEqual(['z', 'b', 'c']);
    expect(Object.keys(patchData(before, [{ op: 'move', from: '/c', path: '/c', before: 'a' }]) as object)).toEqual(['c', 'a', 'b']);
  });

  it.each<[string, PatchOperation]>([
    ['replaces what is not there', { op: 'replace', path: '/x', value: 1 }],
    ['removes what is not there', { op: 'remove', path: '/list/9' }],
    ['adds below what is not there', { op: 'add', path: '/x/y', value: 1 }],
    ['moves what is not there', { op: 'move', from: '/x', path: '/y' }],
    ['tests another value', { op: 'test', path: '/list/0', value: 2 }],
  ])('are refused where one %s', (_, operation) => {
    expect(() => patchData({ list: [1] }, [operation])).toThrow(/nothing at|does not match/);
  });

  it('meet where they touch the same place, or a part of it; a list is touched as a whole by what moves its items', () => {
    const app = { pages: { a: { content: [{ text: 'x' }, { text: 'y' }] } } };
    const places = (...patch: PatchOperation[]) => touchedPlaces(app, patch);
    const first = places({ op: 'replace', path: '/pages/a/content/0/text', value: 'z' });
    expect(placesMeet(first, places({ op: 'replace', path: '/pages/a/content/1/text', value: 'z' }))).toBe(false);
    expect(placesMeet(first, places({ op: 'replace', path: '/pages/a/content/0/text', value: 'w' }))).toBe(true);
    expect(placesMeet(first, places({ op: 'remove', path: '/pages/a/content/1' }))).toBe(true);
    expect(placesMeet(first, places({ op: 'remove', path: '/pages/a' }))).toBe(true);
    expect(placesMeet(first, places({ op: 'add', path: '/pages/b', value: {} }))).toBe(false);
  });
});

describe('a draft’s text', () => {
  it('says after any patches what the data say', () => {
    fc.assert(
      fc.property(map, fc.array(map, { minLength: 1, maxLength: 3 }), (before, states) => {
        const document = new DraftDocument(stringify(before));
        let now: unknown = before;
        for (const state of states) {
          document.apply(comparePatch(now, state));
          now = state;
          expect(document.data).toEqual(state);
          expect(parse(document.text)).toEqual(state);
          expect(Object.keys(parse(document.text) as object)).toEqual(Object.keys(document.data as object));
        }
      }),
      { numRuns: often(300) },
    );
  });

  it('keeps comments, quotes and blank lines of what is not touched', () => {
    const text = `# The app\npallmist: 1\ntitle: 'Seeds' # quoted\n\n# All pages\npages:\n  # The first\n  home:\n    title: Home\n    address: /\n\n  # The second\n  list: { title: List, address: /list } # short\n`;
    const document = new DraftDocument(text);
    document.apply([{ op: 'add', path: '/pages/home/group', value: 'Visitors' }]);
    document.apply([{ op: 'replace', path: '/pages/home/title', value: 'Start' }]);
    expect(document.text).toContain("title: 'Seeds' # quoted\n\n# All pages\n");
    expect(document.text).toContain('  # The first\n  home:\n    title: Start\n');
    expect(document.text).toContain('  # The second\n  list: { title: List, address: /list } # short\n');
  });

  it('writes again only what a change touches, in a file written by hand', () => {
    const garden = readFileSync(new URL('../../../../demo/quillmoor/app.yaml', import.meta.url), 'utf8');
    const before = new DraftDocument(garden).data as { pages: Record<string, object> };
    const names = Object.keys(before.pages);
    fc.assert(
      fc.property(fc.constantFrom(...names), fc.constantFrom(...names), fc.constantFrom(...names), (changed, removed, moved) => {
        const document = new DraftDocument(garden);
        const patches: PatchOperation[][] = [
          [{ op: 'add', path: `/pages/${changed}/group`, value: 'Visitors' }],
          [{ op: 'add', path: `/pages/${changed}/content/0`, value: { show: 'text', text: 'First' } }],
          ...(removed === changed ? [] : [[{ op: 'remove' as const, path: `/pages/${removed}` }]]),
          ...(moved === removed
            ? []
            : [
                [{ op: 'move' as const, from: `/pages/${moved}`, path: `/pages/${moved}`, before: names.find((name) => name !== removed) }],
              ]),
          [{ op: 'add', path: '/collections/zones/fields/altitude', value: { type: 'integer' } }],
          [{ op: 'replace', path: '/title', value: 'Quillmoor' }],
        ];
        let data: unknown = before;
        for (const patch of patches) {
          data = patchData(data, patch);
          document.apply(patch);
        }
        expect(parse(document.text)).toEqual(data);
        expect(Object.keys((parse(document.text) as typeof before).pages)).toEqual(Object.keys((data as typeof before).pages));
        const now = new Set(document.text.split('\n'));
        // Every line of the pages that nothing touches is there as it was.
        const untouched = garden.split(/\n(?= {2}[a-z-]+:\n)/).filter((piece) => {
          const name = /^ {2}([a-z-]+):/.exec(piece)?.[1] ?? '';
          return names.includes(name) && ![changed, removed, moved].includes(name);
        });
        expect(untouched.flatMap((piece) => piece.split('\n')).filter((line) => !now.has(line))).toEqual([]);
      }),
      { numRuns: often(60) },
    );
  });
});

it.each([
  ["a: { b: [x, 'y: z'] } # why\nc: 'd: e'\n", "a: { b: [x, 'y: z', 'q: r'] } # why\nc: 'd: e'\n"],
  ['a: {b: [ x ]}\nc: "d: e"\nd: [ y ]\n', 'a: {b: [ x, "q: r" ]}\nc: "d: e"\nd: [ y ]\n'],
  ['a:\n  b: [x, "[ not a list ]"]\n', 'a:\n  b: [x, "[ not a list ]", "q: r"]\n'],
])('write lists, maps and quotes as the file has them: %j', (before, after) => {
  const document = new DraftDocument(before);
  document.apply([{ op: 'add', path: '/a/b/-', value: 'q: r' }]);
  expect(document.text).toBe(after);
});
