import { text as textSchema } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';
import { nothingElse } from '../kind.ts';

export const text = componentKind({
  name: 'text',
  label: 'Text',
  sentence: 'One or more paragraphs; blank lines separate them.',
  example: { text: 'Planted on {record.specimen.planted}.' },
  fields: { text: textSchema },
  refersTo: (component, references) => {
    references.text(['text'], component.text);
  },
  check: nothingElse,
});
