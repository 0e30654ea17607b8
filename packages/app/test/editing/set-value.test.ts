import { toPointer } from '@pallmist/app/address';
import { invertPatch, patchData, setValue, valueAt } from '@pallmist/app/editing';
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
