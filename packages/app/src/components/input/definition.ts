import { name, text } from '../../definition/schema-parts.ts';
import { componentKind, nothingElse } from '../kind.ts';

export const input = componentKind({
  name: 'input',
  label: 'Input',
  sentence: 'A box for a text, number or date; two for a range, one for each item of a list.',
  example: { bind: 'planted', label: 'Planted' },
  fields: {
    bind: name.describe('A text, date, integer or number, a range (two boxes), or a list of them (a box for each item)'),
    label: text,
  },
  refersTo(component, references) {
    references.text(['label'], component.label);
    references.bind(['bind'], component.bind, ['text', 'date', 'integer', 'number', 'range', 'list']);
  },
  check: nothingElse,
});
