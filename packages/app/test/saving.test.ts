import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fieldReader, markOf, nextSerial, planSave, type AppDefinition, type SaveRequest } from '../src/index.ts';

const app: Pick<AppDefinition, 'choices' | 'collections'> = {
  choices: { task: { water: 'Watering', feed: 'Feeding' } },
  collections: {
    care: {
      keyField: 'entry',
      fields: {
        entry: { type: 'text', serial: 'C-000', required: true },
        task: { type: 'choice', of: 'task', required: true },
        litres: { type: 'number', min: 0, max: 10 },
        done: { type: 'boolean' },
        day: { type: 'date' },
        plant: { type: 'record', of: 'plants' },
        remark: { type: 'text', maxLength: 5 },
      },
    },
    plants: { keyField: 'code', fields: { code: { type: 'text' } } },
  },
};
const save = (texts: Record<string, string>, more: Partial<SaveRequest> = {}) =>
  planSave(app, { action: 'create', collection: 'care', fields: ['task', 'litres', 'done', 'day', 'remark'], set: {}, ...more }, texts);

describe('what a form saves', () => {
  it('is read by the fields, as they are declared', () => {
    expect(save({ task: 'water', litres: '1.50', done: 'true', day: '2026-02-28', remark: 'a\r\nb' })).toEqual({
      plan: {
        action: 'create',
        collection: 'care',
        values: { task: 'water', litres: 1.5, done: true, day: '2026-02-28', remark: 'a\nb' },
      },
      problems: {},
    });
  });

  it.each([
    [{}, 'task', /Choose one/],
    [{ task: 'dig' }, 'task', /./],
    [{ task: 'water', litres: '11' }, 'litres', /most is 10/],
    [{ task: 'water', litres: '1,5' }, 'litres', /12\.5/],
    [{ task: 'water', day: '2026-02-30' }, 'day', /./],
    [{ task: 'water', remark: 'longer' }, 'remark', /at most 5/],
  ])('%j is refused at “%s”', (texts, field, sentence) => {
    expect(save(texts as Record<string, string>).problems[field]).toMatch(sentence);
  });

  it('takes what nobody types from the app file, and nothing that the form does not have', () => {
    const { plan } = save({ task: 'feed', entry: 'C-999', plant: 'stolen' }, { fields: ['task'], set: { plant: { code: 'fern' } } });
    expect(plan.values).toEqual({ task: 'feed', plant: 'fern' });
  });

  it('leaves a box that is not ticked as no, and an emptied one as nothing', () => {
    expect(save({ task: 'water', litres: '', done: '' }, { action: 'change', key: 'C-001' }).plan.values).toMatchObject({
      litres: undefined,
      done: undefined,
    });
    expect(save({ task: 'water' }, { action: 'change', key: 'C-001' }).plan.values['done']).toBe(false);
  });
});

it('a serial number follows the greatest, however many digits it has', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 1e12 }), (last) => {
      const before = nextSerial('N-0000', last === 0 ? undefined : `N-${String(last).padStart(4, '0')}`);
      expect(before).toBe(`N-${String(last + 1).padStart(4, '0')}`);
    }),
  );
});

it('two records have the same mark exactly where the fields are the same', () => {
  const keyOf = () => 'code';
  fc.assert(
    fc.property(fc.string(), fc.string(), fc.string(), fc.string(), (a, b, c, d) => {
      const same = a === c && b === d;
      expect(markOf({ a, b }, ['a', 'b'], keyOf) === markOf({ a: c, b: d }, ['a', 'b'], keyOf)).toBe(same);
    }),
  );
  expect(markOf({ a: { code: 'x' } }, ['a'], keyOf)).toBe(markOf({ a: { code: 'x', name: 'other' } }, ['a'], keyOf));
});

it('numbers of a field are read in every common form, and nothing else is', () => {
  const read = fieldReader(app, { type: 'number' });
  expect(['1', '-2.50', '.5', '1e3', ' 7 '].map((text) => read(text))).toEqual([1, -2.5, 0.5, 1000, 7]);
  expect(['', 'NaN', '0x10', 'Infinity', '1e999', '1 2'].map((text) => typeof read(text))).toEqual(Array(6).fill('object'));
});
