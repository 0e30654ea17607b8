import { expect, it } from 'vitest';
import { checkAppFile } from '../src/index.ts';
import { littleApp } from '../../../test/support/little-app.ts';

const problems = (tied: string) =>
  checkAppFile(
    littleApp({
      collections: `  plants: { keyField: code, fields: { code: { type: text }, bed: { type: integer } } }
  notes: { keyField: code, fields: { code: { type: text }, plant: { type: record, of: plants }, day: { type: date } } }`,
      pages: `  home: { title: Home, address: /, content: [{ show: heading, text: Home }] }
  plant:
    title: Plant
    address: /plants/{plant}{?note}
    parameters:
      plant: { type: record, of: plants, sample: a }
      note: { type: record, of: notes, tied: ${tied} }
    content: [{ show: text, text: "{record.plant.code} {record.note.code}" }]`,
    }),
  ).problems.filter(({ severity }) => severity === 'error');

it('a tie names a field of the record and a parameter of the same kind', () => {
  expect(problems('{ plant: plant }')).toEqual([]);
  expect(problems('{ plnt: plant }')).toMatchObject([{ code: 'unknown-field', hint: expect.stringContaining('“plant”') as string }]);
  expect(problems('{ plant: plnt }')).toMatchObject([{ code: 'undeclared', hint: expect.stringContaining('“plant”') as string }]);
  expect(problems('{ day: plant }')).toMatchObject([{ code: 'tie-never-holds' }]);
  expect(problems('{ plant: note }')).toMatchObject([{ code: 'undeclared' }]);
});
