import { expect, it } from 'vitest';
import { declareRecordBack, declareRecordGone, patchData } from '../src/editing/index.ts';
import { checkAppFile, planSave, type AppDefinition } from '../src/index.ts';

const source = `
pallmist: 1
app: glasshouse
title: Glasshouse
mount: /g
collections:
  plants:
    keyField: code
    fields:
      code: { type: text, required: true }
      slug: { type: text, unique: true }
      name: { type: text }
pages:
  plant:
    title: Plant
    address: /plants/{plant}
    parameters:
      plant: { type: record, of: plants, goneValues: { P-1: {} } }
    content: []
  story:
    title: Story
    address: /stories/{plant}{?beside}
    parameters:
      plant: { type: record, of: plants, by: slug }
      beside: { type: list, items: { type: record, of: plants } }
    content: []
`;
const app = checkAppFile(source).definition as AppDefinition;
const after = (patch: Parameters<typeof patchData>[1]) => patchData(app, patch) as AppDefinition;
const palm = { code: 'P-7', slug: 'old-palm', name: 'Old palm' };
const save = (definition: AppDefinition, texts: Record<string, string>, key?: string) =>
  planSave(
    definition,
    { action: key === undefined ? 'create' : 'change', collection: 'plants', fields: Object.keys(texts), set: {}, key },
    texts,
  ).problems;

it('a removed record is declared as gone wherever an address names it, and back', () => {
  const gone = after(declareRecordGone(app, 'plants', palm, { reason: 'It was felled.' }));
  expect(gone.pages['plant']?.parameters?.['plant']?.goneValues).toEqual({ 'P-1': {}, 'P-7': { reason: 'It was felled.' } });
  expect(gone.pages['story']?.parameters?.['plant']?.goneValues).toEqual({ 'old-palm': { reason: 'It was felled.' } });
  expect(declareRecordGone(gone, 'plants', palm, {})).toEqual([]);
  expect(patchData(gone, declareRecordBack(gone, 'plants', palm))).toEqual(app);
});

it('no other record takes the key of one that is gone, in any field that named it', () => {
  expect(save(app, palm)).toEqual({});
  expect(save(app, { code: 'P-1' })).toEqual({ code: '“P-1” named a record that is gone. Choose another value.' });
  expect(save(app, { code: 'P-1', name: 'Fern' }, 'P-1')).toEqual({});
  const gone = after(declareRecordGone(app, 'plants', palm, {}));
  expect(Object.keys(save(gone, palm))).toEqual(['code', 'slug']);
  expect(Object.keys(save(gone, { slug: 'old-palm' }, 'P-2'))).toEqual(['slug']);
});
