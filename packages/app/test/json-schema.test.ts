import { Validator } from '@cfworker/json-schema';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkSchema } from '../src/json-schema/check-schema.ts';
import type { Schema } from '../src/json-schema/keywords.ts';
import { validator } from '../src/json-schema/validate.ts';
import type { Json } from '@pallmist/address/declare';
import { often } from '../../../test/support/often.ts';

const small = fc.integer({ min: 0, max: 3 });
const leaf = fc.constantFrom<Schema>(
  true,
  false,
  { type: 'string' },
  { type: ['integer', 'null'] },
  { minimum: 1, exclusiveMaximum: 3 },
  { multipleOf: 2 },
  { minLength: 1, maxLength: 2 },
  { pattern: '^a+b?$' },
  { enum: [1, 'a', [1], { a: 1 }] },
  { const: { a: 1 } },
  { uniqueItems: true },
  { required: ['a'] },
);
const schema = fc.letrec<{ any: Schema }>((tie) => {
  const any = tie('any');
  return {
    any: fc.oneof(
      { depthSize: 'small' },
      leaf,
      fc.record({ items: any, prefixItems: fc.array(any, { minLength: 1, maxLength: 2 }), minItems: small }, { requiredKeys: [] }),
      fc.record({ contains: any, minContains: small, maxContains: small }, { requiredKeys: ['contains'] }),
      fc.record(
        { properties: fc.dictionary(fc.constantFrom('a', 'b'), any), additionalProperties: any, maxProperties: small },
        { requiredKeys: [] },
      ),
      fc.record({ patternProperties: fc.dictionary(fc.constantFrom('^a', 'b$'), any), propertyNames: any }, { requiredKeys: [] }),
      fc.record({ allOf: fc.array(any, { minLength: 1, maxLength: 2 }), not: any }, { requiredKeys: [] }),
      fc.record(
        { anyOf: fc.array(any, { minLength: 1, maxLength: 3 }), oneOf: fc.array(any, { minLength: 1, maxLength: 2 }) },
        { requiredKeys: [] },
      ),
      fc.record({ if: any, then: any, else: any }, { requiredKeys: ['if'] }),
      fc.record(
        { dependentRequired: fc.constant({ a: ['b'] }), dependentSchemas: fc.dictionary(fc.constant('a'), any) },
        { requiredKeys: [] },
      ),
    ) as fc.Arbitrary<Schema>,
  };
}).any;
const value = fc.letrec<{ any: Json }>((tie) => ({
  any: fc.oneof(
    { depthSize: 'small' },
    fc.constantFrom<Json>(null, true, 0, 1, 2, 2.5, 'a', 'ab', 'b', ''),
    fc.array(tie('any'), { maxLength: 3 }),
    fc.dictionary(fc.constantFrom('a', 'b', 'ab'), tie('any'), { noNullPrototype: true }),
  ) as fc.Arbitrary<Json>,
})).any;

describe('a JSON Schema', () => {
  it('takes what another implementation takes', () => {
    fc.assert(
      fc.property(schema, fc.array(value, { minLength: 4, maxLength: 4 }), (given, values) => {
        expect(checkSchema(given)).toEqual([]);
        const [ours, theirs] = [validator(given), new Validator(given, '2020-12')];
        for (const one of values) expect([given, one, ours(one) === undefined]).toEqual([given, one, theirs.validate(one).valid]);
      }),
      { numRuns: often(3000) },
    );
  });

  it.each<[unknown, string]>([
    ['text', ''],
    [{ tpye: 'object' }, '/tpye'],
    [{ type: 'strnig' }, '/type'],
    [{ properties: { a: { minLength: -1 } } }, '/properties/a/minLength'],
    [{ required: ['a', 'a'] }, '/required'],
    [{ pattern: '(' }, '/pattern'],
    [{ items: { pattern: '(a)\\1' } }, '/items/pattern'],
    [{ patternProperties: { '(': true } }, '/patternProperties/('],
    [{ $ref: '#/$defs/none' }, '/$ref'],
    [{ $ref: 'https://elsewhere.example/schema' }, '/$ref'],
    [{ unevaluatedItems: false }, '/unevaluatedItems'],
    [{ anyOf: [] }, '/anyOf'],
    [{ $ref: '#' }, '/$ref'],
    [
      { $defs: { a: { allOf: [{ $ref: '#/$defs/b' }] }, b: { not: { $ref: '#/$defs/a' } } }, $ref: '#/$defs/a' },
      '/$ref/allOf/0/$ref/not/$ref',
    ],
  ])('that is wrong is told at its place: %j', (given, pointer) => {
    expect(checkSchema(given).map((problem) => problem.pointer)).toContain(pointer);
  });

  it('may refer to itself for parts of a value, and takes linear time', () => {
    const tree: Schema = {
      $defs: { twice: { anyOf: [{ properties: { a: { $ref: '#' } } }, { properties: { a: { $ref: '#' } } }] } },
      $ref: '#/$defs/twice',
      required: ['b'],
    };
    expect(checkSchema(tree)).toEqual([]);
    // Without its memory this would take 2^35 checks.
    let deep: Json = {};
    for (let depth = 0; depth < 35; depth++) deep = { a: deep, b: 1 };
    expect(validator(tree)(deep)).toMatch(/^at |^it/);
    const many = Array.from({ length: 20_000 }, (_, index) => index);
    const begun = performance.now();
    expect(validator({ uniqueItems: true, items: { pattern: '^(a+)+$' } })(many)).toBeUndefined();
    expect(validator({ items: { pattern: '^(a+)+$' } })([`${'a'.repeat(8000)}b`])).toContain('/0');
    expect(performance.now() - begun).toBeLessThan(3000);
  });
});
