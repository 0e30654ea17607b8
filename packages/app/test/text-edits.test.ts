import fc from 'fast-check';
import { parse } from 'yaml';
import { expect, it } from 'vitest';
import { patchSource } from '../src/index.ts';
import { gardenSource } from './garden.ts';
import { often } from '../../../test/support/often.ts';

/** Texts written in each way that YAML has for a line. */
const source = `# first\na: 'x'\nb: "y"   # second\nc: plain\n\nd: [ 'p', "q",r ]\n`;
const places = ['/a', '/b', '/c', '/d/0', '/d/1', '/d/2'];

const at = (path: string, text: string): unknown =>
  path
    .slice(1)
    .split('/')
    .reduce<unknown>((value, key) => (value as Record<string, unknown> | undefined)?.[key], parse(text));

/** YAML files hold printable characters (YAML 1.2, 5.1), as far as they stand in a line. */
const isPrintable = (text: string) => !/[\p{Cc}\ufeff\ufffe\uffff\u2028\u2029]/u.test(text.replaceAll('\n', ''));

it('a text of an app file that is changed reads as the new text, and every other line stays as it was', () => {
  const texts = fc.oneof(
    fc.string({ unit: 'binary' }),
    fc.constantFrom(
      'yes',
      'null',
      '1',
      '- a',
      'a: b',
      '# c',
      '{x}',
      "it's",
      '"',
      '',
      ' a ',
      '\n',
      '\n\n',
      '\na',
      'a\n\n',
      'a\n',
      '&a',
      '*a',
      '%',
    ),
  );
  fc.assert(
    fc.property(
      fc.constantFrom(...places),
      texts.filter((text) => text.isWellFormed() && isPrintable(text)),
      (path, text) => {
        const changed = patchSource(source, [{ op: 'replace', path, value: text }]);
        expect(at(path, changed)).toBe(text);
        if (/[\n\r]/.test(text)) return;
        const before = source.split('\n');
        const after = changed.split('\n');
        expect(after.length).toBe(before.length);
        expect(after.filter((line, index) => line !== before[index]).length).toBeLessThanOrEqual(1);
      },
    ),
    { numRuns: often(300) },
  );
});

it('changes that undo each other give the same file', () => {
  const there = patchSource(gardenSource, [{ op: 'move', from: '/pages/list', path: '/pages/everything' }]);
  expect(there).not.toBe(gardenSource);
  expect(patchSource(there, [{ op: 'move', from: '/pages/everything', path: '/pages/list' }])).toBe(gardenSource);
});
