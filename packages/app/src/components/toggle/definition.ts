import { name, text } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';
import { nothingElse } from '../kind.ts';

export const toggle = componentKind({
  name: 'toggle',
  label: 'Switch',
  sentence: 'Turns a boolean parameter on and off.',
  example: { bind: 'story', label: 'Tell me its story' },
  fields: { bind: name.describe('A boolean parameter'), label: text },
  refersTo(component, references) {
    references.text(['label'], component.label);
    references.bind(['bind'], component.bind, ['boolean']);
  },
  check: nothingElse,
});
