import { z } from 'zod';
import { orExpression, text } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';
import { nothingElse } from '../kind.ts';

export const image = componentKind({
  name: 'image',
  label: 'Image',
  sentence: 'A picture of the app or of a record.',
  example: { file: 'palm-house.svg', alt: 'The palm house from the south', width: 480 },
  fields: {
    file: text.describe('Name of a file in the folder “images” beside the app file'),
    alt: text.describe('Alternative text; empty for pure decoration'),
    width: orExpression(z.number().int().min(1).max(4000)).optional().describe('In CSS pixels, at most as wide as the page'),
  },
  refersTo(component, references) {
    references.textsOf(component, ['file', 'alt']);
    references.setting(['width'], component.width, 'number');
  },
  check: nothingElse,
});
