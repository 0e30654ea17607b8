import { toPointer } from '@pallmist/app/address';
import { changeKeyField, invertPatch, patchData, setValue, valueAt } from '@pallmist/app/editing';
import type { AppDefinition } from '../../src/index.ts';
import fc from 'fast-check';
import { expect, it } from 'vitest';

const key = fc.constantFrom('a', 'b', 'c/d', 'e~f', 'pages');
const tree = fc.dictionary(key, fc.dictionary(key, fc.dictionary(key, fc.integer(), { minKeys: 1 }), { minKeys: 1 }));

it('puts a value at any place, and takes it back out without a trace', () => {
  fc.assert(
    fc.property(tree, key, key, key, fc.string(), (data, first, second, third, value) => {
      const pointer = toPointer([first, second, third]);
      const patch = setValue(data, pointer, value);
      const changed = patchData(data, patch);
      expect(valueAt(changed, pointer)).toBe(value);
      expect(patchData(changed, invertPatch(data, patch))).toEqual(data);
      expect(valueAt(patchData(changed, setValue(changed, pointer, undefined)), pointer)).toBeUndefined();
    }),
  );
});

it('removes the maps that would be empty, but never an entry of the app', () => {
  const data = { gates: { keepers: { when: 'true' } }, pages: { home: { address: '/', rows: { plants: { from: 'plants' } } } } };
  expect(setValue(data, '/pages/home/rows/plants/from', undefined)).toEqual([{ op: 'remove', path: '/pages/home/rows' }]);
  expect(setValue(data, '/gates/keepers/when', undefined)).toEqual([{ op: 'remove', path: '/gates/keepers' }]);
  expect(setValue(data, '/gates/nobody/when', undefined)).toEqual([]);
});

it('writes a new part of the app before its pages', () => {
  const made = patchData({ title: 'Garden', pages: {} }, setValue({ title: 'Garden', pages: {} }, '/look/accent', '#17695a'));
  expect(JSON.stringify(made)).toBe('{"title":"Garden","look":{"accent":"#17695a"},"pages":{}}');
});

it('keeps the former key when a collection gets another, and forgets it when it comes back', () => {
  const fields = { code: { type: 'text', unique: true }, slug: { type: 'text', unique: true }, secret: { type: 'text' } };
  const garden = { pages: {}, collections: { plants: { keyField: 'code', fields } } } as unknown as AppDefinition;
  const after = (definition: AppDefinition, field: string) =>
    patchData(definition, changeKeyField(definition, 'plants', field)) as unknown as AppDefinition;
  const changed = after(garden, 'slug');
  expect(changed.collections?.['plants']).toMatchObject({ keyField: 'slug', formerKeys: ['code'] });
  expect(after(changed, 'code').collections?.['plants']).toMatchObject({ keyField: 'code', formerKeys: ['slug'] });
  expect(after(after(garden, 'secret'), 'slug').collections?.['plants']).toMatchObject({ formerKeys: ['code'] });
});
