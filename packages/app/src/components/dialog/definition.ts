import { toPointer } from '@pallmist/address/declare';
import { report } from '../../definition/check/context.ts';
import { name, text } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';

export const dialog = componentKind({
  name: 'dialog',
  label: 'Dialog',
  sentence: 'Opens over the page while its parameter has a value, so that a link can open it.',
  example: { bind: 'note', label: 'Field note', content: [{ show: 'text', text: '{record.note.text}' }] },
  fields: {
    bind: name.describe('The parameter that opens it: a record, or a boolean that is true; closing takes it out of the address'),
    label: text.describe('Its heading'),
  },
  inner: 'content',
  opens: true,
  refersTo(component, references) {
    references.text(['label'], component.label);
    references.bind(['bind'], component.bind, ['record', 'boolean', 'choice', 'text', 'integer']);
  },
  check({ bind }, { context, at, page }) {
    const given = page.parameters?.[bind]?.default;
    if (given === undefined || given === false) return;
    report(context, [...at, 'bind'], {
      code: 'dialog-with-default',
      severity: 'warning',
      message: `“${bind}” has a default, so the dialog can never be closed.`,
      hint: 'Take the default out.',
      fix: [{ op: 'remove', path: toPointer([...at.slice(0, 2), 'parameters', bind, 'default']) }],
    });
  },
});
