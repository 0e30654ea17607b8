import { name, text } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';
import { checkPanes } from '../shared/check-panes.ts';

export const tabs = componentKind({
  name: 'tabs',
  label: 'Tabs',
  sentence: 'Shows one pane at a time, for each choice of a parameter.',
  example: {
    bind: 'tab',
    label: 'About this specimen',
    panes: { overview: [{ show: 'text', text: '{record.specimen.story}' }], care: [], notes: [] },
  },
  fields: {
    bind: name.describe('A choice parameter with a default'),
    label: text.describe('Accessible name of the tabs'),
  },
  inner: 'panes',
  refersTo(component, references) {
    references.text(['label'], component.label);
    references.bind(['bind'], component.bind, ['choice']);
  },
  check: (component, place) => {
    checkPanes(component, place, 'tab');
  },
});
