import fc from 'fast-check';
import { expect, it } from 'vitest';
import { canonicalJson } from '../src/json-schema/canonical-json.ts';
import { often } from '../../../test/support/often.ts';

it('writes the example of RFC 8785, section 3.2.2', () => {
  const value = {
    // eslint-disable-next-line no-loss-of-precision -- the example is about just that
    numbers: [333333333.33333329, 1e30, 4.5, 2e-3, 0.000000000000000000000000001],
    string: '\u20ac$\u000f\nA\'B"\\\\"/',
    literals: [null, true, false],
  };
  expect(canonicalJson(value)).toBe(
    '{"literals":[null,true,false],"numbers":[333333333.3333333,1e+30,4.5,0.002,1e-27],"string":"€$\\u000f\\nA\'B\\"\\\\\\\\\\"/"}',
  );
});

it('sorts names by UTF-16 code units, as section 3.2.3 has it', () => {
  const names = ['\u20ac', '\r', '\ufb33', '1', '\ud83d\ude00', '\u0080', '\u00f6'];
  const text = canonicalJson(Object.fromEntries(names.map((name) => [name, 1]))) ?? '';
  expect(Object.keys(JSON.parse(text) as object).filter((name) => name !== '1')).toEqual([
    '\r',
    '\u0080',
    '\u00f6',
    '\u20ac',
    '\ud83d\ude00',
    '\ufb33',
  ]);
});

it('reads back, and does not depend on the order of names', () => {
  const reversed = (value: unknown): unknown =>
    Array.isArray(value)
      ? value.map(reversed)
      : typeof value === 'object' && value !== null
        ? Object.fromEntries(
            Object.entries(value)
              .reverse()
              .map(([name, item]) => [name, reversed(item)]),
          )
        : value;
  fc.assert(
    fc.property(fc.jsonValue({ maxDepth: 4 }), (value) => {
      const plain = JSON.parse(JSON.stringify(value)) as unknown;
      const text = canonicalJson(plain);
      if (text === undefined) expect(/\\u[dD][89a-fA-F]/.test(JSON.stringify(value))).toBe(true);
      else {
        expect(JSON.parse(text)).toEqual(JSON.parse(JSON.stringify(plain)));
        expect(canonicalJson(reversed(plain))).toBe(text);
      }
    }),
    { numRuns: often(1000) },
  );
});

it.each([undefined, NaN, Infinity, '\ud800', new Date(0), () => 1, 1n, { a: undefined }])('has no form for %s', (value) => {
  expect(canonicalJson(value)).toBeUndefined();
});

it('ends with a circle, and with what is nested too deep', () => {
  const circle: unknown[] = [];
  circle.push(circle);
  expect(canonicalJson(circle)).toBeUndefined();
});
