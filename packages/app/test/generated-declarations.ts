import fc from 'fast-check';
import type { AddressableApp, ParameterDeclaration } from '../src/index.ts';

/** A declaration with a way to make values that it accepts. */
export interface Declared {
  declaration: ParameterDeclaration;
  /** In the template, `name*`. */
  repeated: boolean;
  value: fc.Arbitrary<unknown>;
}

export const compileContext: Pick<AddressableApp, 'choices' | 'collections'> = {
  choices: { odd: { a: 'A', A: 'Capital', 'b,c': 'Comma', 'é &=?#/%+': { label: 'Odd', formerValues: ['old'] }, '..': 'Dots' } },
  collections: { plants: { keyField: 'code', fields: { code: { type: 'text' }, name: { type: 'text' }, height: { type: 'number' } } } },
};

// eslint-disable-next-line no-control-regex -- the characters that a text may not hold
const unwritable = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/;
const plainText = (minLength: number, maxLength: number) =>
  fc
    .string({
      unit: fc.oneof(
        fc.constantFrom('%', '+', '&', '=', ',', '/', '#', '?', ' ', "'", '.', '~'),
        fc.string({ unit: 'binary', minLength: 1, maxLength: 1 }),
      ),
      minLength,
      maxLength,
    })
    .filter((text) => text.isWellFormed() && !unwritable.test(text) && [...text].length >= minLength && [...text].length <= maxLength);

const day = fc
  .date({ min: new Date('0001-01-01T00:00:00Z'), max: new Date('9999-12-31T00:00:00Z'), noInvalidDate: true })
  .map((date) => date.toISOString().slice(0, 10));
const moment = fc
  .tuple(day, fc.nat(86_399), fc.stringMatching(/^(|[0-9]{0,8}[1-9])$/))
  .map(
    ([date, second, fraction]) => `${date}T${new Date(second * 1000).toISOString().slice(11, 19)}${fraction === '' ? '' : `.${fraction}`}Z`,
  );
const finite = fc.double({ noNaN: true, noDefaultInfinity: true }).map((value) => value + 0);

/** Limits in order, and a value between them. */
const bounded = (values: fc.Arbitrary<number>) => fc.tuple(values, values).map(([a, b]) => ({ min: Math.min(a, b), max: Math.max(a, b) }));

type Simple = Omit<Declared, 'repeated'>;
const simple = (type: ParameterDeclaration['type'], value: fc.Arbitrary<unknown>, more: object = {}): Simple => ({
  declaration: { type, ...more },
  value,
});

const simpleDeclared: fc.Arbitrary<Simple> = fc.oneof(
  fc
    .tuple(fc.nat(3), fc.integer({ min: 3, max: 30 }))
    .map(([minLength, maxLength]) => simple('text', plainText(minLength, maxLength), { minLength, maxLength })),
  bounded(fc.maxSafeInteger()).map((limits) =>
    simple(
      'integer',
      fc.maxSafeInteger().map((value) => Math.max(limits.min, Math.min(limits.max, value))),
      limits,
    ),
  ),
  fc.constant(simple('number', finite)),
  fc.constant(simple('boolean', fc.boolean())),
  fc.constant(simple('date', day)),
  fc.constant(simple('datetime', moment)),
  fc.constant(simple('choice', fc.constantFrom('a', 'A', 'b,c', 'é &=?#/%+', '..'), { of: 'odd' })),
  fc.constant(simple('record', plainText(1, 30), { of: 'plants' })),
  fc.constant(simple('page', fc.constantFrom('here', 'elsewhere'))),
);

const sortKeys = fc
  .uniqueArray(fc.constantFrom('code', 'name', 'height'), { minLength: 1 })
  .chain((fields) => fc.tuple(...fields.map((field) => fc.boolean().map((descending) => ({ field, descending })))));

const rangeOf = (of: string, end: fc.Arbitrary<number | string>) =>
  simple(
    'range',
    fc.tuple(end, end, fc.nat(2)).map(([a, b, open]) => {
      const [from, to] = a <= b ? [a, b] : [b, a];
      return open === 0 ? { from, to } : open === 1 ? { from } : { to };
    }),
    { of },
  );

const jsonValue = fc
  .jsonValue({ maxDepth: 3 })
  .filter((value) => value !== null && JSON.stringify(value).isWellFormed())
  .map((value) => JSON.parse(JSON.stringify(value, (_, item: unknown) => (Object.is(item, -0) ? 0 : item))) as unknown)
  .filter((value) => !JSON.stringify(value).includes('\\ud') && !JSON.stringify(value).includes('__proto__'));

/** Any declaration that makes sense. */
export const declared: fc.Arbitrary<Declared> = fc.oneof(
  { weight: 5, arbitrary: simpleDeclared.map((given) => ({ ...given, repeated: false })) },
  {
    weight: 3,
    arbitrary: fc.tuple(simpleDeclared, fc.boolean(), fc.boolean()).map(([{ declaration, value }, repeated, unique]) => {
      const item = value.filter((text) => text !== '');
      return {
        declaration: { type: 'list', items: declaration, unique } as ParameterDeclaration,
        repeated,
        value: unique ? fc.uniqueArray(item, { maxLength: 6 }) : fc.array(item, { maxLength: 6 }),
      };
    }),
  },
  fc.constant({ ...simple('sort', sortKeys, { of: 'plants' }), repeated: false }),
  fc
    .constantFrom(rangeOf('integer', fc.maxSafeInteger()), rangeOf('number', finite), rangeOf('date', day))
    .map((given) => ({ ...given, repeated: false })),
  fc.constant({ ...simple('packed', jsonValue, { schema: {} }), repeated: false }),
);
