import { report } from '../../definition/check/context.ts';
import { name, text } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';

export const checkboxes = componentKind({
  name: 'checkboxes',
  label: 'Checkboxes',
  sentence: 'Chooses any number of values for a list parameter.',
  example: { bind: 'zones', label: 'Climate zones' },
  fields: { bind: name.describe('A list of a choice or of a record'), label: text },
  refersTo(component, references) {
    references.text(['label'], component.label);
    references.bind(['bind'], component.bind, ['list']);
    references.chosen.push(component.bind);
  },
  check({ bind }, { context, at, page }) {
    const items = page.parameters?.[bind]?.items;
    if (items === undefined || items.type === 'choice' || items.type === 'record') return;
    report(context, [...at, 'bind'], {
      code: 'binding-wrong-type',
      message: `“${bind}” is a list of ${items.type}; there is nothing to choose from.`,
      hint: 'Make its items a choice or a record.',
    });
  },
});
