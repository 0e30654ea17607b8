import { z } from 'zod';
import { orExpression, text } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';
import { nothingElse } from '../kind.ts';
import { tones } from './tones.ts';

export const notice = componentKind({
  name: 'notice',
  label: 'Notice',
  sentence: 'A highlighted message: good news, or a warning.',
  example: { text: 'The palm house is closed until Friday.', tone: 'warning' },
  fields: {
    text,
    tone: orExpression(z.enum(tones)).optional().describe('How it looks; “plain” when left out. An expression gives one of the words'),
  },
  refersTo: (component, references) => {
    references.text(['text'], component.text);
    references.setting(['tone'], component.tone, 'text');
  },
  check: nothingElse,
});
