import { report } from '../../definition/check/context.ts';
import { text } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';

export const language = componentKind({
  name: 'language',
  label: 'Language',
  sentence: 'Lets visitors choose the language of the page.',
  example: { label: 'Language' },
  fields: { label: text.optional().describe('“Language” when left out') },
  refersTo: (component, references) => {
    references.text(['label'], component.label);
  },
  check(_, { context, at }) {
    if (context.definition.language !== undefined) return;
    report(context, at, {
      code: 'no-language',
      message: 'The app does not say which parameter holds the language.',
      hint: 'Name it under “language”: a choice that the app declares for every page.',
    });
  },
});
