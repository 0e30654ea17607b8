import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { fieldsForFigure, fieldsToChoose } from '@pallmist/app/editing';
import { checkAppFile } from '@pallmist/app';

const garden = checkAppFile(readFileSync(new URL('../../../../demo/quillmoor/app.yaml', import.meta.url), 'utf8')).definition ?? {
  collections: {},
};

it('a condition can name the fields of a collection, and those of the records that they refer to', () => {
  const fields = fieldsToChoose(garden, 'notes');
  expect(fields.map(({ path }) => path)).toEqual(expect.arrayContaining(['heading', 'specimen', 'specimen.name', 'specimen.house']));
  expect(fields.find(({ path }) => path === 'specimen.height')).toEqual({
    path: 'specimen.height',
    label: 'specimen: Height (m)',
    type: 'number',
  });
});

it('a figure has fields of which there is one', () => {
  expect(fieldsForFigure(garden, 'specimens', 'sum')).toEqual(['height']);
  expect(fieldsForFigure(garden, 'specimens', 'largest')).toEqual(['planted', 'height']);
});
