import { z } from 'zod';
import { orExpression, text } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';
import { nothingElse } from '../kind.ts';

export const heading = componentKind({
  name: 'heading',
  label: 'Heading',
  sentence: 'A heading; level 1 is the heading of the page.',
  example: { text: '{record.specimen.name}', level: 1 },
  fields: {
    text,
    level: orExpression(z.number().int().min(1).max(4)).optional().describe('1 is the page’s own heading; 2 when left out'),
  },
  refersTo: (component, references) => {
    references.text(['text'], component.text);
    references.setting(['level'], component.level, 'number');
  },
  check: nothingElse,
});
