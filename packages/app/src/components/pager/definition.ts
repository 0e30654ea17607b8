import { z } from 'zod';
import { name } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';
import { nothingElse } from '../kind.ts';

export const pager = componentKind({
  name: 'pager',
  label: 'Pager',
  sentence: 'Leads through the pages of a list, and lets visitors choose how long a page is.',
  example: { rows: 'found', bind: 'page', size: 'size', sizes: [10, 25, 50] },
  fields: {
    rows: name.describe('The rows of the page that it pages through'),
    bind: name.describe('The integer parameter that holds the page’s number, from 1'),
    size: name.optional().describe('The integer parameter that holds how many records a page has'),
    sizes: z.array(z.number().int().min(1).max(500)).min(2).optional().describe('The sizes to choose from'),
  },
  refersTo(component, references) {
    references.rowsOf(component.rows);
    references.bind(['bind'], component.bind, ['integer']);
    references.bind(['size'], component.size, ['integer']);
  },
  check: nothingElse,
});
