import { writeAddress } from '@pallmist/address/pages';
import type { ComponentOf } from '../../definition/content-schema.ts';
import type { Reason } from '../../gate/pass.ts';
import { ownNames, ownValue, reasonIn } from '../../gate/way-back.ts';
import type { SignInNode } from '../nodes.ts';
import type { Shower } from '../shower.ts';

const ownReasons: Record<Reason, string> = {
  'sign-in-needed': 'Sign in to see this page. You will be taken there at once.',
  'wrong-password': 'The name and the password do not belong together. Please try again.',
  'signed-out': 'You are signed out.',
  'other-account': 'This page is not open to the account that you are signed in with. You may sign in with another one.',
  'mail-sent': 'If that address is known here, a mail is on its way to it. Its link lets you in, once.',
  'link-expired': 'That link has been used, or is too old. You may ask for a new one.',
  'too-many-tries': 'There were too many attempts. Please wait a few minutes and try again.',
};

export function signIn(component: ComponentOf<'sign-in'>, shower: Shower): SignInNode {
  const { app, reading, person, entering } = shower.material;
  const why = reasonIn(reading);
  return {
    show: 'sign-in',
    action: writeAddress(shower.app, shower.material.name, shower.values).address ?? '',
    name: shower.text(component.loginLabel, 'Name'),
    password: shower.text(component.password, 'Password'),
    button: shower.text(component.submit, 'Sign in'),
    back: ownValue(reading, ownNames.wanted) ?? '',
    signOut: `${shower.app.mount}/~sign-out`,
    ...(why === undefined ? {} : { reason: shower.text(app.signIn?.reasons[why], ownReasons[why]) }),
    ...(app.signIn?.byMail
      ? { byMail: { label: shower.text(component.mail, 'Mail address'), button: shower.text(component.mailButton, 'Mail me a link') } }
      : {}),
    ...(entering ? { entering: { token: entering.token, button: `Come in as ${entering.name}` } } : {}),
    ...(person ? { signedInAs: person.name } : {}),
  };
}
