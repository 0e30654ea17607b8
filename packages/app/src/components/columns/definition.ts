import { z } from 'zod';
import { componentKind } from '../component-kind.ts';
import { nothingElse } from '../kind.ts';

export const columns = componentKind({
  name: 'columns',
  label: 'Columns',
  sentence: 'Puts components side by side, each in a column; below each other where the window is narrow.',
  example: {
    widths: 'side-last',
    content: [
      { show: 'text', text: 'The main part.' },
      { show: 'panel', label: 'Beside it', content: [{ show: 'text', text: 'A side part.' }] },
    ],
  },
  fields: {
    widths: z.enum(['equal', 'side-first', 'side-last']).optional().describe('“equal” when left out; or a narrow side part first, or last'),
  },
  inner: 'content',
  refersTo: nothingElse,
  check: nothingElse,
});
