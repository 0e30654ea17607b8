import type { signUp } from './definition.ts';
import { writeAddress } from '@pallmist/address/pages';
import { ownNames, ownValue } from '../../gate/way-back.ts';
import type { Box } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';

/** A form in which people make an account for themselves. */
export interface SignUpNode {
  show: 'sign-up';
  id: string;
  action: string;
  /** The name to sign in with, the name that others see, the password. */
  boxes: Box[];
  button: string;
  back: string;
  problem?: string;
}

/** The name under which what was typed into a sign-up is kept; no form of an app file is called so. */
export const signUpForm = '~join';

export function show(component: ComponentOf<typeof signUp>, context: ViewContext): SignUpNode {
  const { forms, name, reading } = context.payload;
  const state = forms?.[signUpForm];
  const box = (field: string, label: string, more: Pick<Box, 'kind' | 'autocomplete' | 'maxLength' | 'help'>): Box => {
    const problem = state?.problems[field];
    return {
      name: field,
      label,
      required: true,
      value: more.kind === 'password' ? '' : (state?.values[field] ?? ''),
      ...more,
      ...(problem === undefined ? {} : { problem }),
    };
  };
  context.forms.add(signUpForm);
  return {
    show: 'sign-up',
    id: context.newId(),
    action: writeAddress(context.app, name, context.values).address ?? '',
    boxes: [
      box('called', context.text(component.nameLabel, context.say('Your name')), { kind: 'text', autocomplete: 'name', maxLength: 80 }),
      box('login', context.text(component.loginLabel, context.say('Name to sign in with')), {
        kind: 'text',
        autocomplete: 'username',
        maxLength: 100,
      }),
      box('password', context.text(component.password, context.say('Password')), {
        kind: 'password',
        autocomplete: 'new-password',
        maxLength: 200,
        help: context.say('At least 8 characters.'),
      }),
    ],
    button: context.text(component.submit, context.say('Make an account')),
    back: ownValue(reading, ownNames.wanted) ?? '',
    ...(state?.problem === undefined ? {} : { problem: state.problem }),
  };
}
