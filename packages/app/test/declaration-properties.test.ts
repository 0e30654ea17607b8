import fc from 'fast-check';
import { expect, it } from 'vitest';
import { compileApp, readAddress, writeAddress, type ParameterDeclaration, type Values } from '../src/index.ts';
import { declared, compileContext } from './generated-declarations.ts';
import { often } from '../../../test/support/often.ts';

/** A page with some generated parameters, a few with defaults, and values for some of them. */
const pageWithValues = fc.array(declared, { minLength: 1, maxLength: 6 }).chain((all) =>
  fc
    .tuple(
      fc.tuple(...all.map(({ value }) => fc.option(value, { nil: undefined }))),
      fc.tuple(...all.map(({ value }) => fc.option(value, { nil: undefined, freq: 2 }))),
    )
    .map(([values, defaults]) => {
      const parameters: Record<string, ParameterDeclaration> = {};
      const names = all.map(({ declaration, repeated }, index) => {
        const fallback = defaults[index];
        // A default that is a text would be read as one, and "a,b" is the list of a and b.
        const usable =
          fallback !== undefined &&
          typeof fallback !== 'string' &&
          !(declaration.type === 'list' && JSON.stringify(fallback).includes(','));
        parameters[`p${String(index)}`] = usable ? { ...declaration, default: fallback } : declaration;
        return `p${String(index)}${repeated ? '*' : ''}`;
      });
      const given = Object.fromEntries(
        values.map((value, index) => [`p${String(index)}`, value]).filter(([, value]) => value !== undefined),
      ) as Values;
      const { app, problems } = compileApp({
        app: 'generated',
        mount: '/g',
        ...compileContext,
        pages: { here: { address: `/here{?${names.join(',')}}`, parameters }, elsewhere: { address: '/' } },
      });
      return { app, problems, given, parameters };
    }),
);

it('for every set of declarations and every valid values, what is written reads back', () => {
  fc.assert(
    fc.property(pageWithValues, ({ app, problems, given, parameters }) => {
      expect(problems).toEqual([]);
      const { address, problems: refused } = writeAddress(app, 'here', given);
      expect(refused.filter(({ severity }) => severity === 'error')).toEqual([]);
      const reading = readAddress(app, address ?? '');
      expect(reading.problems).toEqual([]);
      const defaults = Object.fromEntries(
        Object.entries(parameters).flatMap(([name, { default: value }]) => (value === undefined ? [] : [[name, value]])),
      );
      expect(reading.values).toEqual({ ...defaults, ...given });
      expect(reading.parameters.some(({ corrected }) => corrected)).toBe(false);
      expect(writeAddress(app, 'here', reading.values).address).toBe(address);
      const url = new URL(address ?? '', 'http://g.example');
      expect(url.pathname + url.search).toBe(address);
    }),
    { numRuns: often(1500) },
  );
});

it('reading hostile texts never throws, and what it makes of them is stable', () => {
  const piece = fc.oneof(
    fc.string({ unit: 'binary', maxLength: 8 }),
    fc.constantFrom('p0', 'p1', '=', '&', '%', '%2C', ',', '..', '-', '+', '%E2%82', '1e9', '2026-02-30', '\ud800'),
  );
  fc.assert(
    fc.property(pageWithValues, fc.array(piece, { maxLength: 25 }), ({ app }, pieces) => {
      const reading = readAddress(app, `/g/here?p0=${pieces.join('')}`);
      if (reading.status !== 'found') return;
      const { address } = writeAddress(app, 'here', reading.values);
      expect(readAddress(app, address ?? '').values).toEqual(reading.values);
    }),
    { numRuns: often(1500) },
  );
});

it('a small packed text does not become a large memory', async () => {
  const { deflateRawSync } = await import('node:zlib');
  const { app } = compileApp({ app: 'x', mount: '/', pages: { here: { address: '/{?p}', parameters: { p: { type: 'packed' } } } } });
  const bomb = '1' + deflateRawSync(Buffer.from(`"${'a'.repeat(30_000_000)}"`)).toString('base64url');
  expect(bomb.length).toBeLessThan(65_000);
  const before = process.memoryUsage().rss;
  expect(readAddress(app, `/?p=${bomb}`).problems[0]?.code).toBe('too-long');
  expect(process.memoryUsage().rss - before).toBeLessThan(45_000_000);
});
