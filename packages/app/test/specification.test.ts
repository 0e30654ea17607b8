import { readFileSync } from 'node:fs';
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

interface Case {
  declare: ParameterDeclaration;
  repeat?: boolean;
  accepted?: { text: string; value?: unknown; written?: string | null; origin?: string; former?: boolean }[];
  refused?: { text: string; code: string }[];
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
      it.each(refused)(`${said} refuses p=$text: $code`, ({ text, code }) => {
        const reading = readAddress(app, `/?p=${text}`);
        expect(reading.problems).toMatchObject([{ code, parameter: 'p' }]);
        expect(reading.values).toEqual({});
      });
      it.each(unwritable)(`${said} does not write $value: $code`, ({ value, code }) => {
        expect(writeAddress(app, 'here', { p: value } as Values).problems).toMatchObject([{ code, parameter: 'p' }]);
      });
    }
  });
}
