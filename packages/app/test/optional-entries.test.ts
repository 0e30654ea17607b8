import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { evaluateCel } from '../src/index.ts';
import { ExpressionChecker } from '../src/expressions/check-expression.ts';
import { withoutOptionalEntries } from '../src/expressions/optional-entries.ts';
import { pathsIn } from '../src/expressions/paths.ts';
import type { ScopeTypes } from '../src/expressions/evaluator.ts';
import { often } from '../../../test/support/often.ts';

const types: ScopeTypes = { param: { fields: { q: 'string', n: 'int', on: 'bool', words: { list: 'string' } } } };
const scope = { param: { q: 'fern', on: true, words: ['a', 'b'] } };

describe('entries that may be absent', () => {
  it.each<[string, unknown]>([
    ["[?param.?q, 'moss']", ['fern', 'moss']],
    ["['moss', ?param.?n]", ['moss']],
    ['[?param.?n]', []],
    ['[ ? param.?n , 1, ]', [1]],
    ["{?'q': param.?q, 'plain': 1, ?'n': param.?n}", { q: 'fern', plain: 1 }],
    ["{'a': param.on ? 1 : 2, ?'b': param.?n}", { a: 1 }],
    ['[[?param.?n, 1], [?param.?q]]', [[1], ['fern']]],
    ["[?param.?q, 'a, [?b'][1]", 'a, [?b'],
    ['size([?param.?n, ?param.?q])', 1],
    ['[?param.on ? param.?q : param.?q]', ['fern']],
    ['param.words[?5].orValue("none")', 'none'],
    ["[?param.?q].map(word, [?optional.of(word), '?'])", [['fern', '?']]],
  ])('%s', (expression, value) => {
    expect(new ExpressionChecker(types).check(expression)).toHaveProperty('type');
    expect(evaluateCel(expression, scope, types)).toEqual(value);
  });

  it.each(['[?param.q]', '[?1]'])('%s is absent: what it holds is no optional value', (expression) => {
    expect(evaluateCel(expression, scope, types)).toBeUndefined();
  });

  it('names what they read, and what is not there', () => {
    expect(pathsIn('[?param.?q, record.plant.name]').map((path) => path.join('.'))).toEqual(
      expect.arrayContaining(['param.q', 'record.plant.name']),
    );
    expect(new ExpressionChecker(types).check("['x', ?optional.of(param.nn)]")).toEqual({
      message: expect.any(String) as string,
      unknown: 'nn',
      start: 25,
    });
  });

  it('leave brackets that are nested too deep to the engine, which says so', () => {
    const deep = `[?param.?q, ${'['.repeat(8000)}${']'.repeat(8000)}]`;
    expect(withoutOptionalEntries(deep)).toBe(deep);
    expect(new ExpressionChecker(types).check(deep)).toHaveProperty('message');
  });

  it('leave every other text as it is, and are never left half done', () => {
    const pieces = fc.constantFrom('[', ']', '{', '}', '(', ')', '?', ',', ':', ' ', 'a', '"x"', "'", '.', '.?b', '1');
    fc.assert(
      fc.property(
        fc.array(pieces, { maxLength: 16 }).map((all) => all.join('')),
        (text) => {
          const written = withoutOptionalEntries(text);
          if (!/[[{,]\s*\?/.test(text)) expect(written).toBe(text);
          expect(withoutOptionalEntries(written).length).toBeGreaterThanOrEqual(written.length);
        },
      ),
      { numRuns: often(3000) },
    );
  });
});
