import { link, text } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';
import { nothingElse } from '../kind.ts';

export const back = componentKind({
  name: 'back',
  label: 'Back',
  sentence: 'Leads back to the page that the visitor came from, as it was left.',
  example: { text: 'Back to the list', to: { page: 'specimens' } },
  fields: {
    text,
    to: link.describe('The page to lead back to: as it was left, or, where the visitor came from elsewhere, as it stands here'),
  },
  refersTo(component, references) {
    references.text(['text'], component.text);
    references.link(['to'], component.to);
  },
  check: nothingElse,
});
