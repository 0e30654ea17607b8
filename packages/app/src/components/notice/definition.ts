import { z } from 'zod';
import { text } from '../../definition/schema-parts.ts';
import { componentKind, nothingElse } from '../kind.ts';

export const notice = componentKind({
  name: 'notice',
  label: 'Notice',
  sentence: 'A text that stands out: something good, or a warning.',
  example: { text: 'The palm house is closed until Friday.', tone: 'warning' },
  fields: { text, tone: z.enum(['plain', 'good', 'warning']).optional() },
  refersTo: (component, references) => {
    references.text(['text'], component.text);
  },
  check: nothingElse,
});
