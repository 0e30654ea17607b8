import { writeAddress } from '@pallmist/address/pages';
import type { ComponentOf } from '../../definition/content-schema.ts';
import { ownNames, ownValue } from '../../gate/way-back.ts';
import type { Box, SignUpNode } from '../nodes.ts';
import type { Shower } from '../shower.ts';

/** The name under which what was typed into a sign-up is kept; no form of an app file is called so. */
export const signUpForm = '~join';

export function signUp(component: ComponentOf<'sign-up'>, shower: Shower): SignUpNode {
  const { forms, name, reading } = shower.material;
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
  shower.forms.add(signUpForm);
  return {
    show: 'sign-up',
    id: shower.newId(),
    action: writeAddress(shower.app, name, shower.values).address ?? '',
    boxes: [
      box('called', shower.text(component.nameLabel, 'Your name'), { kind: 'text', autocomplete: 'name', maxLength: 80 }),
      box('login', shower.text(component.loginLabel, 'Name to sign in with'), { kind: 'text', autocomplete: 'username', maxLength: 100 }),
      box('password', shower.text(component.password, 'Password'), {
        kind: 'password',
        autocomplete: 'new-password',
        maxLength: 200,
        help: 'At least 8 characters.',
      }),
    ],
    button: shower.text(component.submit, 'Make an account'),
    back: ownValue(reading, ownNames.wanted) ?? '',
    ...(state?.problem === undefined ? {} : { problem: state.problem }),
  };
}
