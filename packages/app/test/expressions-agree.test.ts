import fc, { type Arbitrary } from 'fast-check';
import { expect, it } from 'vitest';
import { evaluateCel } from '../src/expressions/cel.ts';
import { environmentFor, ExpressionChecker } from '../src/expressions/check-expression.ts';
import { resultOf } from '../src/expressions/program.ts';
import { fromCel, toCel } from '../src/expressions/scope-types.ts';
import { translate } from '../src/expressions/translate.ts';
import type { Scope, ScopeTypes } from '../src/expressions/evaluator.ts';
import { often } from '../../../test/support/often.ts';

// A gate evaluates by the engine, which takes types as they come; a page by a program, where there is one; the check by
// the types that are declared. Whatever the check passes, all three have to agree on.
const types: ScopeTypes = {
  param: { fields: { q: 'string', n: 'int', x: 'double', on: 'bool', words: { list: 'string' }, packed: 'dyn' } },
  person: { fields: { name: 'string', roles: { list: 'string' } } },
};
const scope: Scope = {
  param: { q: 'fern', n: 9_007_199_254_740_991, x: 2.5, on: true, words: ['fern', 'keeper'], packed: { a: 1, b: ['x', 2, true] } },
  person: { name: 'Ada', roles: ['keeper'] },
};
const smaller: Scope = { param: { q: '', n: -3, x: -0.5, on: false, words: [] }, person: {} };

const atoms = [
  ...['param.q', 'param.n', 'param.x', 'param.on', 'param.words', 'param.packed.a', 'param.packed.b', 'param.packed.b[0]', 'person.roles'],
  ...[
    '"fern"',
    '"keeper"',
    '""',
    '0',
    '1',
    '2',
    '3000000000',
    '9007199254740993',
    '9223372036854775807',
    '2.5',
    '0.0',
    'true',
    'false',
    'null',
  ],
  ...['[]', '{}', 'param.?q', 'person.?name', 'dyn(param.n)', 'dyn("fern")', 'has(person.name)', 'has(param.packed)', '1u'],
];
const signs = ['+', '-', '*', '/', '%', '==', '!=', '<', '<=', '>', '>=', '&&', '||', 'in'];

const { expressions } = fc.letrec<{ expressions: string }>((tie) => {
  const inner = tie('expressions');
  return {
    expressions: fc.oneof(
      { maxDepth: 4, depthSize: 'small' },
      fc.constantFrom(...atoms),
      fc.tuple(inner, fc.constantFrom(...signs), inner).map(([left, sign, right]) => `(${left} ${sign} ${right})`),
      fc.tuple(inner, inner, inner).map(([condition, yes, no]) => `(${condition} ? ${yes} : ${no})`),
      fc.array(inner, { minLength: 1, maxLength: 3 }).map((items) => `[${items.join(', ')}]`),
      fc.tuple(inner, inner).map(([a, b]) => `{"a": ${a}, "b": ${b}}`),
      inner.map((operand) => `!${operand}`),
      inner.map((operand) => `(-${operand})`),
      inner.map((operand) => `size(${operand})`),
      inner.map((operand) => `string(${operand})`),
      fc.tuple(inner, inner).map(([on, other]) => `${on}.orValue(${other})`),
      fc.tuple(inner, fc.constantFrom('contains', 'startsWith', 'endsWith'), inner).map(([on, name, what]) => `${on}.${name}(${what})`),
      fc.tuple(inner, inner).map(([on, index]) => `${on}[${index}]`),
      fc.tuple(inner, inner).map(([list, body]) => `${list}.exists(i, i == ${body})`),
      fc.tuple(inner, inner).map(([list, body]) => `${list}.map(i, [i, ${body}])`),
    ),
  };
});

/** What the engine gives that knows the types. */
function byTypes(expression: string, given: Scope): unknown {
  try {
    return fromCel(environmentFor(types).parse(expression)(toCel(given, { fields: types }) as Scope)) ?? undefined;
  } catch {
    return undefined;
  }
}

// CEL’s zero has a sign, ours has none.
const unsigned = (value: unknown): unknown =>
  JSON.parse(JSON.stringify(value === undefined ? null : value, (_, inner: unknown) => (inner === 0 ? 0 : inner)));

it('the check, the gate and the page agree on every expression that the check passes', () => {
  const checker = new ExpressionChecker(types);
  let passed = 0;
  const someScope: Arbitrary<Scope> = fc.constantFrom(scope, smaller);
  fc.assert(
    fc.property(expressions, someScope, (expression, given) => {
      if (!('type' in checker.check(expression))) return;
      passed += 1;
      const gate = evaluateCel(expression, given, types);
      expect(unsigned(gate), expression).toEqual(unsigned(byTypes(expression, given)));
      const program = translate(expression, types);
      if (program !== undefined) expect(unsigned(resultOf(program, given) ?? undefined), expression).toEqual(unsigned(gate));
    }),
    { numRuns: often(20_000) },
  );
  expect(passed).toBeGreaterThan(1000);
});

it.each([
  ['"keeper" in [param.packed.b[1], "keeper"]', true],
  ['["fern", 1, 2.5]', ['fern', 1, 2.5]],
  ['{"a": {"b": [1, 2]}}', { a: { b: [1, 2] } }],
  ['param.n + 2 > param.n', true],
  ['param.n + 2', undefined],
  ['string(param.n + 2)', '9007199254740993'],
  ['[param.n + 2]', undefined],
  ['param.n * param.n * param.n == 0', undefined],
  ['param.?q', 'fern'],
  ['person.?mail', undefined],
  ['timestamp("2026-11-25T00:00:00Z")', '2026-11-25T00:00:00.000Z'],
  ['duration("1h")', undefined],
  ['3u', 3],
])('%s gives what JSON can hold', (expression, expected) => {
  expect(evaluateCel(expression, scope, types)).toEqual(expected);
});
