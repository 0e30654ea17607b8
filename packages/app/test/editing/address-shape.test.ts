import {
  addParameter,
  movePiece,
  piecesOf,
  removeParameter,
  reshapeAddress,
  switchPlace,
  templateOf,
  patchData,
  type AddressPiece,
  type AppDefinition,
} from '@pallmist/app/editing';
import { checkAppFile } from '@pallmist/app';
import fc from 'fast-check';
import { stringify } from 'yaml';
import { expect, it } from 'vitest';

const name = fc.constantFrom('plant', 'tab', 'note', 'q', 'page');
const pieces = fc
  .tuple(fc.uniqueArray(name, { maxLength: 5 }), fc.array(fc.constantFrom('plants', 'care', 'x-1'), { maxLength: 2 }), fc.nat(4))
  .map(([names, fixed, inPath]): AddressPiece[] => [
    ...fixed.map((text): AddressPiece => ({ kind: 'fixed', text })),
    ...names.map((one, index): AddressPiece =>
      index < inPath ? { kind: 'path', name: one, optional: false } : { kind: 'query', name: one, repeated: false },
    ),
  ]);

it('writes the pieces of an address as they are read', () => {
  fc.assert(
    fc.property(pieces, (given) => {
      expect(piecesOf(templateOf(given))).toEqual(given);
    }),
  );
  expect(templateOf([])).toBe('/');
  expect(piecesOf('/a/{b}{/c}{?d,e*}')).toEqual([
    { kind: 'fixed', text: 'a' },
    { kind: 'path', name: 'b', optional: false },
    { kind: 'path', name: 'c', optional: true },
    { kind: 'query', name: 'd', repeated: false },
    { kind: 'query', name: 'e', repeated: true },
  ]);
});

it('moves a piece by steps without losing any, and every step can be taken back', () => {
  fc.assert(
    fc.property(pieces, fc.nat(6), fc.constantFrom(-1 as const, 1 as const), (given, index, step) => {
      const moved = movePiece(given, index, step);
      const names = (list: readonly AddressPiece[]) => list.map((piece) => (piece.kind === 'fixed' ? piece.text : piece.name)).sort();
      expect(names(moved)).toEqual(names(given));
      // Fixed pieces and path parameters always come before the query.
      const kinds = moved.map(({ kind }) => (kind === 'query' ? 1 : 0));
      expect(kinds).toEqual([...kinds].sort());
    }),
  );
  const [path, query] = [movePiece(piecesOf('/a/{b}{?c}'), 1, 1), movePiece(piecesOf('/a{?b,c}'), 1, -1)];
  expect(templateOf(path)).toBe('/a{?b,c}');
  expect(templateOf(query)).toBe('/a/{b}{?c}');
  expect(templateOf(switchPlace(piecesOf('/a{?b,c}'), 'c'))).toBe('/a/{c}{?b}');
});

const app: AppDefinition = {
  pallmist: 1,
  app: 'little',
  title: 'Little',
  mount: '/little',
  pages: {
    home: { title: 'Home', address: '/', content: [{ show: 'link', text: 'One', to: { page: 'one', values: { plant: 'x' } } }] },
    one: {
      title: 'One',
      address: '/one/{plant}{?tab}',
      parameters: { plant: { type: 'text' }, tab: { type: 'text', resets: ['plant'] } },
      content: [{ show: 'text', text: '{param.plant}' }],
    },
  },
};
const after = (patch: Parameters<typeof patchData>[1]) => patchData(app, patch) as AppDefinition;
const errors = (definition: AppDefinition) => checkAppFile(stringify(definition)).problems.filter(({ severity }) => severity === 'error');

it('keeps old addresses of a published page, and requires what has left its path', () => {
  const pieces = switchPlace(piecesOf('/one/{plant}{?tab}'), 'plant');
  const kept = after(reshapeAddress(app, 'one', pieces, true)).pages['one'];
  expect(kept?.address).toBe('/one{?tab,plant}');
  expect(kept?.formerAddresses).toEqual(['/one/{plant}{?tab}']);
  expect(kept?.parameters?.['plant']?.required).toBe(true);
  expect(errors(after(reshapeAddress(app, 'one', pieces, true)))).toEqual([]);
  const fresh = after(reshapeAddress(app, 'one', pieces, false)).pages['one'];
  expect(fresh?.formerAddresses).toBeUndefined();
  expect(fresh?.parameters?.['plant']?.required).toBeUndefined();
});

it('adds a parameter under a name that is free, and takes one out with what resets it', () => {
  const made = addParameter(app, 'one', 'tab', { type: 'integer' });
  expect(made.name).toBe('tab2');
  expect(after(made.patch).pages['one']?.address).toBe('/one/{plant}{?tab,tab2}');
  const first = addParameter(app, 'home', 'Page number', { type: 'integer' }, 'path');
  expect(Object.keys(after(first.patch).pages['home'] ?? {})).toEqual(['title', 'address', 'parameters', 'content']);
  expect(after(first.patch).pages['home']?.address).toBe('/{pageNumber}');
  const without = after(removeParameter(app, 'one', 'plant')).pages['one'];
  expect(without?.address).toBe('/one{?tab}');
  expect(without?.parameters).toEqual({ tab: { type: 'text' } });
});
