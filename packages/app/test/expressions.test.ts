import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { evaluateCel } from '../src/expressions/cel.ts';
import { display, Evaluator, isPlainPath } from '../src/expressions/evaluator.ts';
import { ExpressionChecker } from '../src/expressions/check-expression.ts';
import type { ScopeTypes } from '../src/expressions/evaluator.ts';
import { expressionsOf, parseText, TextError } from '../src/expressions/template-text.ts';

const types: ScopeTypes = {
  param: { fields: { q: 'string', page: 'int', height: 'double', alive: 'bool', zones: { list: 'string' } } },
  record: { fields: { specimen: { fields: { name: 'string', house: { fields: { name: 'string' } } } } } },
};
const scope = {
  param: { q: 'fern', page: 3, height: 2, alive: true, zones: ['a', 'b'] },
  record: { specimen: { name: 'Quill', house: { name: 'Palm' } } },
};
const evaluator = new Evaluator(scope, types, evaluateCel);

describe('a text', () => {
  it.each([
    ['plain', 'plain'],
    ['{param.q}', 'fern'],
    ['a {param.q} b {param.page}', 'a fern b 3'],
    ['{{not}} {param.q}', '{not} fern'],
    ['{"}" + param.q}', '}fern'],
    ["{'\\'' + param.q}", "'fern"],
    ['{{"a": param.q}["a"]}', '{"a": param.q}["a"]}'],
    ['{ {"a": param.q}["a"] }', 'fern'],
    ['{param.missing}', ''],
    ['{param.nothing.at.all}', ''],
    ['{1/0}', ''],
    ['{param.alive}', 'yes'],
    ['{param.zones}', 'a, b'],
    ['{record.specimen.house.name}', 'Palm'],
  ])('%s shows %s', (text, shown) => {
    expect(evaluator.text(text)).toBe(shown);
  });

  it('with a brace that is not closed is pointed out by the check, and shown as it stands', () => {
    expect(() => parseText('a {b')).toThrow(TextError);
    expect(() => parseText('a { }')).toThrow(TextError);
    expect(evaluator.text('a {b')).toBe('a {b');
    expect(expressionsOf('a {b')).toEqual([]);
  });

  it('without braces is itself, and with them doubled too', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        expect(evaluator.text(text.replaceAll('{', '{{').replaceAll('}', '}}'))).toBe(text);
      }),
    );
  });
});

describe('a value', () => {
  it.each([
    ['{param.page}', 3],
    ['{param.page + 1}', 4],
    ['{param.height * 2.0}', 4],
    ['{param.zones}', ['a', 'b']],
    ['{size(param.zones)}', 2],
    ['{has(param.q)}', true],
    ['{has(param.note)}', false],
    ['{param.?note.orValue("none")}', 'none'],
    ['{param.note}', undefined],
    ['care', 'care'],
    [7, 7],
  ])('%s keeps its type: %s', (given, value) => {
    expect(evaluator.value(given)).toEqual(value);
  });

  it('that only follows fields is the same with the engine and without', () => {
    const without = new Evaluator(scope, types, () => {
      throw new Error('the engine was asked');
    });
    for (const path of [
      'param.q',
      'param.page',
      'param.alive',
      'record.specimen.name',
      'record.specimen.house.name',
      'param.missing',
      'record.nobody.name',
    ]) {
      expect(isPlainPath(path)).toBe(true);
      expect(without.expression(path), path).toEqual(evaluateCel(path, scope, types));
    }
  });
});

describe('the check of an expression', () => {
  const checker = new ExpressionChecker(types);
  it.each([
    ['param.q', 'string'],
    ['param.page', 'int'],
    ['param.page + 1', 'int'],
    ['param.alive && has(param.q)', 'bool'],
    ['record.specimen.house.name', 'string'],
    ['size(param.zones)', 'int'],
  ])('%s gives a %s', (expression, type) => {
    expect(checker.check(expression)).toEqual({ type });
  });

  it.each([
    ['param.qq', 'qq'],
    ['parm.q', 'parm'],
    ['record.specimen.nmae', 'nmae'],
    ['"x" + record.specimen.nmae', 'nmae'],
  ])('%s: %s is not available', (expression, unknown) => {
    expect(checker.check(expression)).toMatchObject({ unknown, start: expression.indexOf(unknown) });
  });
});

it('shows values as people read them', () => {
  expect([undefined, null, '', 0, 1.5, false, [1, 'a'], {}].map((value) => display(value))).toEqual([
    '',
    '',
    '',
    '0',
    '1.5',
    'no',
    '1, a',
    '',
  ]);
});
