import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parse } from 'yaml';
import {
  compileApp,
  parameterTypeNames,
  readAddress,
  writeAddress,
  type AddressableApp,
  type ParameterDeclaration,
  type Values,
} from '../src/index.ts';
import { often } from '../../../test/support/often.ts';

interface Case {
  declare: ParameterDeclaration;
  repeat?: boolean;
  accepted?: { text: string; value?: unknown; written?: string | null; origin?: string; former?: boolean }[];
  /** `kept`: of a list, what is right all the same. */
  refused?: { text: string; code: string; kept?: unknown }[];
  unwritable?: { value: unknown; code: string }[];
}
const file = readFileSync(new URL('../specification/parameter-types.yaml', import.meta.url), 'utf8');
const { choices, collections, types } = parse(file) as Pick<AddressableApp, 'choices' | 'collections'> & {
  types: Record<string, { cases: Case[] }>;
};

it('has every type', () => {
  expect(Object.keys(types).sort()).toEqual([...parameterTypeNames].sort());
});

for (const [type, { cases }] of Object.entries(types)) {
  describe(type, () => {
    for (const { declare, repeat, accepted = [], refused = [], unwritable = [] } of cases) {
      const { app, problems } = compileApp({
        app: 'specification',
        mount: '/',
        choices,
        collections,
        pages: { here: { address: `/{?p${repeat ? '*' : ''}}`, parameters: { p: declare } } },
      });
      const said = JSON.stringify(declare);
      it(`${said} is a declaration`, () => expect(problems).toEqual([]));
      it.each(accepted)(`${said} reads p=$text as $value`, ({ text, value, written, origin, former }) => {
        const reading = readAddress(app, `/?p=${text}`);
        expect(reading.problems).toEqual([]);
        expect(reading.values).toEqual(value === undefined ? {} : { p: value });
        expect(reading.former).toBe(former ?? false);
        expect(reading.parameters[0]).toMatchObject({
          origin: origin ?? 'given',
          text: text.replace('é', '%C3%A9'),
          corrected: value === undefined ? true : reading.parameters[0]?.corrected,
        });
        const expected = written === null ? '/' : `/?p=${written ?? text}`;
        expect(writeAddress(app, 'here', reading.values)).toEqual({ address: expected, problems: [] });
        // Another encoding of the same text is no correction; another text is.
        if (written === undefined) expect(reading.parameters[0]?.corrected).toBe(false);
      });
      it.each(refused)(`${said} refuses p=$text: $code`, ({ text, code, kept }) => {
        const reading = readAddress(app, `/?p=${text}`);
        expect(reading.problems).toMatchObject([{ code, parameter: 'p' }]);
        expect(reading.values).toEqual(kept === undefined ? {} : { p: kept });
      });
      it.each(unwritable)(`${said} does not write $value: $code`, ({ value, code }) => {
        expect(writeAddress(app, 'here', { p: value } as Values).problems).toMatchObject([{ code, parameter: 'p' }]);
      });
    }
  });
}

// Every type that a list can have, with its own texts of above: those that it accepts, and those that it refuses.
const inLists = Object.entries(types).flatMap(([type, { cases }]) =>
  cases.filter(({ refused }) => refused !== undefined).map((one, number) => ({ name: `${type} ${String(number + 1)}`, ...one })),
);
describe.each(inLists)('a list of $name', ({ declare, accepted = [], refused = [] }) => {
  const single = (text: string) => text !== '' && !/,|%2c|&/i.test(text);
  const right = accepted.filter(({ text, origin }) => single(text) && origin === undefined);
  const wrong = refused.filter(({ text }) => single(text));
  const { app, problems } = compileApp({
    app: 'specification',
    mount: '/',
    choices,
    collections,
    pages: {
      here: {
        address: '/{?p,q}',
        parameters: { p: { type: 'list', items: declare }, q: { type: 'list', items: declare, ifWrong: 'refuse' } },
      },
    },
  } as AddressableApp);
  const isItem = problems.length === 0 && right.length > 0 && wrong.length > 0;

  it.runIf(isItem)('keeps what is right of it, in order, and says what is wrong', () => {
    const item = fc.oneof(
      fc.constantFrom(...right).map(({ text, value }) => ({ text, value, code: undefined })),
      fc.constantFrom(...wrong).map(({ text, code }) => ({ text, value: undefined, code })),
    );
    fc.assert(
      fc.property(fc.array(item, { minLength: 1, maxLength: 6 }), fc.constantFrom(',', '&p='), (items, between) => {
        const given = items.map(({ text }) => text).join(between);
        const codes = items.flatMap(({ code }) => code ?? []);
        const kept = items.flatMap(({ code, value }) => (code === undefined ? [value] : []));
        const reading = readAddress(app, `/?p=${given}`);
        expect(reading.status).toBe('found');
        expect(reading.problems.map(({ code }) => code)).toEqual(codes.slice(0, 1));
        expect(reading.values).toEqual(kept.length === 0 ? {} : { p: kept });
        // What a list may not be without is refused as a whole.
        const refusing = readAddress(app, `/?q=${given.replaceAll('&p=', '&q=')}`);
        expect([refusing.status, refusing.values]).toEqual(codes.length === 0 ? ['found', { q: kept }] : ['refused', {}]);
      }),
      { numRuns: often(60) },
    );
  });
});
