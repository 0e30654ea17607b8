import { appFileJsonSchema } from '@pallmist/app/app-file';
import { describe, expect, it } from 'vitest';
import { completionsAt, descriptionAt, pathAt } from '../src/file/schema-help.ts';

/** The text without the mark “|”, and the position of the mark. */
const at = (marked: string): [text: string, position: number] => [marked.replace('|', ''), marked.indexOf('|')];
const offered = (marked: string) => completionsAt(appFileJsonSchema(), ...at(marked)).map(({ label }) => label);

describe('help in the app file', () => {
  it.each([
    ['title: Garden\n|', []],
    ['pages:\n  home:\n    |', ['pages', 'home']],
    ['pages:\n  home:\n    parameters:\n      q: { type: text, | }', ['pages', 'home', 'parameters', 'q']],
    ['pages:\n  home:\n    content:\n      - show: text\n        |', ['pages', 'home', 'content', '*']],
    ['pages:\n  home:\n    content:\n      - show: text\n      - |', ['pages', 'home', 'content', '*']],
    [
      'pages:\n  home:\n    content:\n    - show: tabs\n      panes:\n      - title: One\n        |',
      ['pages', 'home', 'content', '*', 'panes', '*'],
    ],
    ['pages:\n  home:\n    title: Home\n  list:\n    # a remark\n\n    |', ['pages', 'list']],
  ])('knows the place in %j', (marked, path) => {
    expect(pathAt(...at(marked)).path).toEqual(path);
  });

  it('offers the keys and the values that fit there', () => {
    expect(offered('|')).toEqual(expect.arrayContaining(['title', 'mount', 'pages', 'collections']));
    expect(offered('pages:\n  home:\n    |')).toEqual(expect.arrayContaining(['address', 'title', 'parameters', 'content']));
    expect(offered('pages:\n  home:\n    parameters:\n      q:\n        type: |')).toEqual(
      expect.arrayContaining(['text', 'integer', 'choice']),
    );
    expect(offered('nothing:\n  like:\n    this: |')).toEqual([]);
  });

  it('describes the key under the pointer, and no other text', () => {
    expect(descriptionAt(appFileJsonSchema(), ...at('pages:\n  home:\n    add|ress: /'))).toMatch(/\w/);
    expect(descriptionAt(appFileJsonSchema(), ...at('title: Gar|den'))).toBeUndefined();
  });
});
