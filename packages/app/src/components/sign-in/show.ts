import type { signIn } from './definition.ts';
import { writeAddress } from '@pallmist/address/pages';
import type { Reason } from '../../gate/pass.ts';
import { ownNames, ownValue, reasonIn } from '../../gate/way-back.ts';
import type { Phrase } from '../../languages/phrases.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';

export interface SignInNode {
  show: 'sign-in';
  action: string;
  name: string;
  password: string;
  button: string;
  /** Carried through the form, and checked again when it comes back. */
  back: string;
  reason?: string;
  /** The box for a mail address, to which a link is sent that lets one in. */
  byMail?: { label: string; button: string };
  /** One has come by such a link: what the button says, and what it sends. */
  entering?: { button: string; token: string };
  /** The name of the person who is signed in already. */
  signedInAs?: string;
  signOut: string;
}

const ownReasons = {
  'sign-in-needed': 'Sign in to see this page. You will be taken there at once.',
  'wrong-password': 'The name and the password do not belong together. Please try again.',
  'signed-out': 'You are signed out.',
  'other-account': 'This page is not open to the account that you are signed in with. You may sign in with another one.',
  'mail-sent': 'If that address is known here, a mail is on its way to it. Its link lets you in, once.',
  'link-expired': 'That link has been used, or is too old. You may ask for a new one.',
  'too-many-tries': 'There were too many attempts. Please wait a few minutes and try again.',
} as const satisfies Record<Reason, Phrase>;

export function show(component: ComponentOf<typeof signIn>, context: ViewContext): SignInNode {
  const { app, reading, person, entering } = context.payload;
  const why = reasonIn(reading);
  return {
    show: 'sign-in',
    action: writeAddress(context.app, context.payload.name, context.values).address ?? '',
    name: context.text(component.loginLabel, context.say('Name')),
    password: context.text(component.password, context.say('Password')),
    button: context.text(component.submit, context.say('Sign in')),
    back: ownValue(reading, ownNames.wanted) ?? '',
    signOut: `${context.app.mount}/~sign-out`,
    ...(why === undefined
      ? {}
      : { reason: reasonOf(why, context) ?? context.text(app.signIn?.reasons[why], context.say(ownReasons[why])) }),
    ...(app.signIn?.byMail
      ? {
          byMail: {
            label: context.text(component.mail, context.say('Mail address')),
            button: context.text(component.mailButton, context.say('Mail me a link')),
          },
        }
      : {}),
    ...(entering ? { entering: { token: entering.token, button: context.say('Come in as {0}', entering.name) } } : {}),
    ...(person ? { signedInAs: person.name } : {}),
  };
}

/** What the gate of the wanted page says. */
const reasonOf = (why: Reason, { payload }: ViewContext) =>
  why === 'sign-in-needed' || why === 'other-account' ? payload.gateReason : undefined;
