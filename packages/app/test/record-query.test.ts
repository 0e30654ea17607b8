import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readRecordQuery } from '../src/index.ts';
import { definition } from './garden.ts';

const [name = '', collection] = Object.entries(definition.collections ?? {})[0] ?? [];
if (collection === undefined) throw new Error('The garden has no collection.');
const read = (query: string) => readRecordQuery(definition, collection, new URLSearchParams(query));

describe(`a query of ${name}`, () => {
  it('never throws, and either has a bounded plan or names its problems', () => {
    const part = fc.oneof(fc.constantFrom(...Object.keys(collection.fields), 'sort', 'limit', 'after', '.', '..'), fc.string());
    fc.assert(
      fc.property(
        fc.array(fc.tuple(part, fc.constantFrom('', '.within', '.oneOf', '.empty', '.x'), fc.string()), { maxLength: 30 }),
        (pairs) => {
          const found = read(new URLSearchParams(pairs.map(([field, operator, text]) => [field + operator, text])).toString());
          if ('problems' in found) expect(found.problems.length).toBeGreaterThan(0);
          else {
            expect(found.limit).toBeGreaterThanOrEqual(1);
            expect(found.limit).toBeLessThanOrEqual(500);
            expect(found.where.length).toBeLessThanOrEqual(20);
            for (const { field } of [...found.where, ...found.sort]) expect(Object.keys(collection.fields)).toContain(field);
          }
        },
      ),
    );
  });

  it('takes no field from the prototype of objects', () => {
    for (const field of ['constructor', '__proto__', 'toString']) expect(read(`${field}=x`)).toHaveProperty('problems');
    expect(read('sort=constructor')).toHaveProperty('problems');
  });
});
