import { name } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';
import { checkPanes } from '../shared/check-panes.ts';

export const views = componentKind({
  name: 'views',
  label: 'Views',
  sentence: 'Shows one pane at a time; a navigation bound to the same parameter is the menu.',
  example: { bind: 'part', panes: { poorly: [{ show: 'heading', text: 'Poorly' }], due: [] } },
  fields: { bind: name.describe('A choice parameter; a navigation bound to it is the menu') },
  inner: 'panes',
  refersTo: (component, references) => {
    references.bind(['bind'], component.bind, ['choice']);
  },
  check: (component, place) => {
    checkPanes(component, place, 'view');
  },
});
