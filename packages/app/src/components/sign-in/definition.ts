import { text } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';
import { nothingElse } from '../kind.ts';

export const signIn = componentKind({
  name: 'sign-in',
  label: 'Sign-in form',
  sentence: 'Lets people sign in with a password, or with a link by mail if the app allows it.',
  example: { loginLabel: 'Keeper’s name', submit: 'Sign in' },
  fields: {
    loginLabel: text.optional().describe('Label of the field for the name'),
    password: text.optional().describe('Label of the field for the password'),
    submit: text.optional().describe('What the button says'),
    mail: text.optional().describe('Label of the field for the mail address, where the app lets people come in by mail'),
    mailButton: text.optional().describe('What the button says that asks for such a mail'),
  },
  refersTo(component, references) {
    references.textsOf(component, ['loginLabel', 'password', 'submit', 'mail', 'mailButton']);
    references.signsIn = true;
  },
  check: nothingElse,
});
