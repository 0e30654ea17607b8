import { z } from 'zod';
import { link as linkSchema, orExpression, text } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';
import { nothingElse } from '../kind.ts';

export const link = componentKind({
  name: 'link',
  label: 'Link',
  sentence: 'Leads to a page of the app, with values for its parameters.',
  example: { text: 'All specimens in this house', to: { page: 'specimens', values: { house: '{record.house.code}' } }, look: 'button' },
  fields: {
    text,
    to: linkSchema,
    look: orExpression(z.enum(['link', 'button']))
      .optional()
      .describe('A link in the text, or a button; “link” when left out'),
  },
  refersTo(component, references) {
    references.text(['text'], component.text);
    references.link(['to'], component.to);
    references.setting(['look'], component.look, 'text');
  },
  check: nothingElse,
});
