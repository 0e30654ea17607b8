import { name, text } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';
import { nothingElse } from '../kind.ts';

export const search = componentKind({
  name: 'search',
  label: 'Search box',
  sentence: 'A search box; results update while visitors type.',
  example: { bind: 'q', label: 'Search the collection', placeholder: 'fern, orchid, QM-0412' },
  fields: {
    bind: name.describe('The text parameter that holds what is searched for'),
    label: text,
    placeholder: text.optional().describe('An example that is shown while the box is empty'),
  },
  refersTo(component, references) {
    references.textsOf(component, ['label', 'placeholder']);
    references.bind(['bind'], component.bind, ['text']);
  },
  check: nothingElse,
});
