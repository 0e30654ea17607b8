import { readAddress } from '@pallmist/app';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { FormBody } from './form-body.ts';
import { shortPath, type ShortPath } from './short-addresses.ts';

/** Names in the body of a sent form that are no fields. */
export const ownFields = { form: '~form', seen: '~seen', once: '~once', mail: '~mail', enter: '~enter', wanted: '~wanted' } as const;

/** What kind of form was sent. */
export type FormKind =
  | { kind: 'sign-out' }
  | { kind: 'short-address'; path: ShortPath }
  /** A form that a page shows, by its name. */
  | { kind: 'page-form'; name: string }
  /** A person comes in by the link of a mail. */
  | { kind: 'mailed-link'; token: string }
  /** Such a mail is asked for. */
  | { kind: 'mail-wanted'; mail: string; wanted: string }
  | { kind: 'sign-in' };

/** Decides what kind of form was sent to an address of an app; undefined where nothing there takes it. */
export function kindOfForm(hosted: HostedApp, address: string, { texts }: FormBody): FormKind | undefined {
  const { compiled, definition } = hosted;
  const path = address.split('?')[0] ?? '';
  if (path === `${compiled.mount}/~sign-out`) return { kind: 'sign-out' };
  const short = shortPath(hosted, path);
  if (short !== undefined && !short.about) return { kind: 'short-address', path: short };
  const name = texts[ownFields.form];
  if (name !== undefined && name !== '') return { kind: 'page-form', name };
  const { signIn } = definition;
  if (signIn === undefined || readAddress(compiled, address).page !== signIn.page) return undefined;
  const { [ownFields.enter]: token, [ownFields.mail]: mail, [ownFields.wanted]: wanted = '' } = texts;
  if (signIn.byMail && token !== undefined) return { kind: 'mailed-link', token };
  return signIn.byMail && mail !== undefined ? { kind: 'mail-wanted', mail, wanted } : { kind: 'sign-in' };
}
