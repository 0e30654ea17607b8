import { text } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';
import { nothingElse } from '../kind.ts';

export const panel = componentKind({
  name: 'panel',
  label: 'Panel',
  sentence: 'Groups components in a frame.',
  example: { label: 'Care', content: [{ show: 'text', text: 'Water on Tuesdays.' }] },
  fields: { label: text.optional().describe('Its heading') },
  inner: 'content',
  refersTo: (component, references) => {
    references.text(['label'], component.label);
  },
  check: nothingElse,
});
