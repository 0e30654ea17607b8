import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { linearPattern, linearSearch, PatternNotLinear } from '@pallmist/address/patterns';
import { often } from '../../../test/support/often.ts';

const atom = fc.constantFrom(
  'a',
  'b',
  'ab',
  '.',
  '[ab]',
  '[^a]',
  '\\w',
  '\\d',
  'é',
  '\\p{L}',
  '\\u{1f33f}',
  '-',
  '\\.',
  '$',
  '^',
  '\\b',
  '\\B',
);
const pattern = fc.letrec<{ any: string; group: string; choice: string; row: string }>((tie) => ({
  any: fc.oneof({ depthSize: 'small' }, atom, tie('group'), tie('row'), tie('choice')),
  group: fc
    .tuple(fc.constantFrom('(?:', '(', '(?<n>'), tie('any'), fc.constantFrom('', '*', '+', '?', '{2}', '{1,3}', '{0,2}?', '*?'))
    .map(([open, inner, quantifier]) => `${open}${inner})${quantifier}`),
  row: fc.tuple(tie('any'), tie('any')).map(([first, second]) => first + second),
  choice: fc.tuple(tie('any'), tie('any')).map(([first, second]) => `${first}|${second}`),
})).any;
const text = fc.string({ unit: fc.constantFrom('a', 'b', 'é', '1', '-', ' ', '🌿', '\n'), maxLength: 9 });

/** What the platform's own matcher says; undefined for what is no pattern, such as a name that is given twice. */
function native(source: string, given: string): boolean | undefined {
  try {
    return new RegExp(`^(?:${source})$`, 'u').test(given);
  } catch {
    return undefined;
  }
}

describe('a pattern', () => {
  it('matches what the platform’s own matcher does', () => {
    fc.assert(
      fc.property(pattern, fc.array(text, { minLength: 5, maxLength: 5 }), (source, texts) => {
        fc.pre(native(source, '') !== undefined);
        for (const given of texts)
          expect([source, given, linearPattern(source).test(given)]).toEqual([source, given, native(source, given)]);
      }),
      { numRuns: often(4000) },
    );
  });

  it.each([
    '(a+)+',
    '(?:a|a){26}b',
    '(?:a+){10}b',
    '(a|aa)+',
    '.*a.*a.*a.*b',
    '[^@\\s]+@[^@\\s]+[.][^@\\s]+',
    '(?:a?){30}a{30}',
    '\\w+\\s*\\w+!',
  ])('takes linear time on the worst text: %s', (source) => {
    const time = (length: number) => {
      const given = `${'a'.repeat(length)}${source.includes('@') ? '@' + 'a.'.repeat(length / 2) + '@' : ''}\n`;
      const begun = performance.now();
      linearPattern(source).test(given);
      return performance.now() - begun;
    };
    time(100);
    // A thousand times what an exponential one could do in an hour, and a hundred times what a cubic one could.
    expect(Math.min(time(8000), time(8000), time(8000))).toBeLessThan(400);
  });

  it('is refused where it cannot be matched so', () => {
    for (const source of ['(?=a)b', '(?!a)b', '(?<=a)b', '(?<!a)b', '(a)\\1', '(?<n>a)\\k<n>', 'a{2000}']) {
      expect(() => linearPattern(source)).toThrow(PatternNotLinear);
    }
    expect(() => linearPattern('(')).toThrow(SyntaxError);
  });

  it('finds a part of the text where that is asked for', () => {
    expect([linearSearch('b+').test('abba\n'), linearSearch('^b').test('ab'), linearSearch('x').test('ab')]).toEqual([true, false, false]);
  });
});
