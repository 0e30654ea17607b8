import fc, { type Arbitrary } from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkAppFile, programsFor } from '../src/index.ts';
import { environmentFor } from '../src/expressions/check-expression.ts';
import { fromCel, toCel } from '../src/expressions/scope-types.ts';
import { resultOf } from '../src/expressions/program.ts';
import { translate } from '../src/expressions/translate.ts';
import type { Scope, ScopeTypes } from '../src/expressions/evaluator.ts';
import { often } from '../../../test/support/often.ts';

const types: ScopeTypes = {
  param: {
    fields: { q: 'string', n: 'int', x: 'double', on: 'bool', words: { list: 'string' }, counts: { list: 'int' }, packed: 'dyn' },
  },
  record: { fields: { plant: { fields: { name: 'string', height: 'double', house: { fields: { code: 'string', built: 'int' } } } } } },
  rows: { fields: { found: { list: { fields: { name: 'string' } } } } },
  row: { fields: { name: 'string', count: 'int' } },
  person: { fields: { name: 'string', roles: { list: 'string' } } },
};

const engine = environmentFor(types);
const compiled = new Map<string, ReturnType<typeof engine.parse>>();

/** What the engine gives that knows the types; what fails there is absent. */
function byEngine(expression: string, scope: Scope): unknown {
  try {
    const parsed = compiled.get(expression) ?? engine.parse(expression);
    compiled.set(expression, parsed);
    return fromCel(parsed(toCel(scope, { fields: types }) as Scope));
  } catch {
    return undefined;
  }
}

const optional = <Value>(value: Arbitrary<Value>) => fc.option(value, { nil: undefined });
const words = fc.constantFrom('', 'fern', 'Farn', 'a', 'keeper', '🌿 é', '0');
const ints = fc.oneof(
  fc.integer({ min: -1000, max: 1000 }),
  fc.constantFrom(2 ** 31, 2 ** 52 + 1, Number.MAX_SAFE_INTEGER, Number.MIN_SAFE_INTEGER, -(2 ** 31)),
);
const doubles = fc.constantFrom(-1.5, 0, 0.25, 3, 1e6);
const scopes: Arbitrary<Scope> = fc.record({
  param: fc.record({
    q: optional(words),
    n: optional(ints),
    x: optional(doubles),
    on: optional(fc.boolean()),
    words: optional(fc.array(words, { maxLength: 3 })),
    counts: optional(fc.array(ints, { maxLength: 3 })),
  }),
  record: fc.record({
    plant: optional(
      fc.record({
        name: optional(words),
        height: optional(doubles),
        house: optional(fc.record({ code: optional(words), built: optional(ints) })),
      }),
    ),
  }),
  rows: fc.record({ found: fc.array(fc.record({ name: words }), { maxLength: 3 }) }),
  row: fc.record({ name: optional(words), count: optional(ints) }),
  person: fc.constantFrom({}, { name: 'Ada', roles: ['keeper', 'fern'] }, { name: 'Bo', roles: [] }),
});

const paths = {
  string: ['param.q', 'record.plant.name', 'record.plant.house.code', 'row.name', 'person.name'],
  int: ['param.n', 'record.plant.house.built', 'row.count'],
  double: ['param.x', 'record.plant.height'],
  bool: ['param.on'],
  strings: ['param.words', 'person.roles'],
  ints: ['param.counts'],
};
const oneOf = (texts: readonly string[]) => fc.constantFrom(...texts);

/** Expressions of each type, as builders write them. */
const { bool, string, int, double } = fc.letrec<{ bool: string; string: string; int: string; double: string; strings: string }>((tie) => {
  const two = (type: 'bool' | 'string' | 'int' | 'double', signs: readonly string[]) =>
    fc.tuple(tie(type), oneOf(signs), tie(type)).map(([left, sign, right]) => `(${left} ${sign} ${right})`);
  const choose = (type: 'bool' | 'string' | 'int' | 'double') =>
    fc.tuple(tie('bool'), tie(type), tie(type)).map(([condition, yes, no]) => `(${condition} ? ${yes} : ${no})`);
  const orElse = (type: 'string' | 'int' | 'double', from: readonly string[]) =>
    fc.tuple(oneOf(from), tie(type)).map(([path, otherwise]) => `${path.replace(/\.(\w+)$/, '.?$1')}.orValue(${otherwise})`);
  const depth = { maxDepth: 4, withCrossShrink: true };
  return {
    bool: fc.oneof(
      depth,
      fc.constantFrom('true', 'false', ...paths.bool),
      oneOf(Object.values(paths).flat()).map((path) => `has(${path})`),
      two('bool', ['&&', '||', '==', '!=']),
      two('string', ['==', '!=']),
      two('int', ['==', '!=', '<', '<=', '>', '>=']),
      two('double', ['==', '!=', '<', '>']),
      tie('bool').map((inner) => `!${inner}`),
      fc.tuple(tie('string'), tie('strings')).map(([item, list]) => `(${item} in ${list})`),
      fc.tuple(tie('int'), oneOf(paths.ints)).map(([item, list]) => `(${item} in ${list})`),
      fc
        .tuple(tie('string'), oneOf(['contains', 'startsWith', 'endsWith']), tie('string'))
        .map(([on, name, what]) => `${on}.${name}(${what})`),
      choose('bool'),
    ),
    string: fc.oneof(
      depth,
      fc.constantFrom('""', '"fern"', "'é'", ...paths.string),
      two('string', ['+']),
      orElse('string', paths.string),
      tie('int').map((number) => `string(${number})`),
      tie('bool').map((inner) => `string(${inner})`),
      choose('string'),
    ),
    int: fc.oneof(
      depth,
      fc.constantFrom('0', '1', '25', '4294967296', '9007199254740991', ...paths.int),
      two('int', ['+', '-', '*']),
      orElse('int', paths.int),
      tie('strings').map((list) => `size(${list})`),
      fc.constant('size(rows.found)'),
      tie('string').map((text) => `size(${text})`),
      tie('int').map((number) => `(-${number})`),
      choose('int'),
    ),
    double: fc.oneof(
      depth,
      fc.constantFrom('0.5', '2.0', ...paths.double),
      two('double', ['+', '-', '*']),
      orElse('double', paths.double),
      choose('double'),
    ),
    strings: fc.oneof(
      depth,
      oneOf(paths.strings),
      fc.array(tie('string'), { minLength: 1, maxLength: 2 }).map((items) => `[${items.join(', ')}]`),
    ),
  };
});

describe('a program gives what the CEL engine gives', () => {
  it.each([
    ['conditions', bool],
    ['texts', string],
    ['whole numbers', int],
    ['numbers', double],
  ])('for %s, whatever is there and whatever is absent', (_, expressions) => {
    fc.assert(
      fc.property(expressions, scopes, (expression, scope) => {
        const program = translate(expression, types);
        expect(program, expression).toBeDefined();
        const sent = JSON.parse(JSON.stringify(program)) as NonNullable<typeof program>;
        const [ours, theirs] = [resultOf(sent, scope), byEngine(expression, scope)];
        expect(ours === 0 ? 0 : ours, expression).toEqual(theirs === 0 ? 0 : theirs);
      }),
      { numRuns: often(3000) },
    );
  });

  it.each([
    'param.packed',
    'param.q < "a"',
    '7 / 2',
    'param.words[0]',
    'param.words.map(w, w + "x")',
    'param.?packed.a',
    '{"a": 1}',
    'param.nothing',
    'param.x <= 1.0',
    'string(param.x)',
    'record.plant',
    'a +',
    '1u',
  ])('%s is left to the engine', (expression) => {
    expect(translate(expression, types)).toBeUndefined();
  });
});

it('the negative of the least integer is the same for both', () => {
  const scope = { param: { n: -(2 ** 31) } };
  const expression = 'string(-(param.n * 4294967296))';
  expect(resultOf(translate(expression, types) ?? '', scope)).toBe('9223372036854775808');
  expect(byEngine(expression, scope)).toBe('9223372036854775808');
});

it('an expression that means something else in another place is left to the engine', () => {
  const source = (of: string) => `
pallmist: 1
app: x
title: X
mount: /x
collections:
  a: { keyField: k, fields: { k: { type: text }, n: { type: integer } } }
  b: { keyField: k, fields: { k: { type: text }, n: { type: ${of} } } }
pages:
  home:
    title: Home
    address: /
    rows: { as: { from: a }, bs: { from: b } }
    content:
      - { show: table, rows: as, label: A, columns: [{ field: n, text: "{row.n == 1 ? 'one' : 'more'}" }] }
      - { show: table, rows: bs, label: B, columns: [{ field: n, text: "{row.n == 1 ? 'one' : 'more'}" }] }
`;
  const needs = (of: string) => {
    const { definition } = checkAppFile(source(of));
    return definition && programsFor(definition, definition.pages['home']).cel;
  };
  expect([needs('integer'), needs('number')]).toEqual([false, true]);
});
