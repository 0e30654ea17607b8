import { report } from '../../definition/check/context.ts';
import { text } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';

export const signUp = componentKind({
  name: 'sign-up',
  label: 'Sign-up form',
  sentence: 'Lets visitors create their own account, if the app allows it.',
  example: { nameLabel: 'Your name', submit: 'Join' },
  fields: {
    loginLabel: text.optional().describe('Label of the field for the name to sign in with'),
    nameLabel: text.optional().describe('Label of the field for the name that others see'),
    password: text.optional().describe('Label of the field for the password'),
    submit: text.optional().describe('What the button says'),
  },
  refersTo(component, references) {
    references.textsOf(component, ['loginLabel', 'nameLabel', 'password', 'submit']);
  },
  check(_, { context, at }) {
    if (context.definition.signIn?.newcomers !== undefined) return;
    report(context, at, {
      code: 'no-newcomers',
      message: 'The app does not let people make accounts themselves.',
      hint: 'Say so by “newcomers” under “signIn”.',
    });
  },
});
