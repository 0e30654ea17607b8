import type { OutboxStore } from '../outbox/outbox.ts';

/** A mail as it is to be sent. */
export interface NewMail {
  app: string;
  recipient: string;
  subject: string;
  text: string;
  html: string;
  /** The form that sends it, as PAGE/FORM; empty for a sign-in link. */
  form?: string;
  /** When it is removed, in milliseconds since 1970; by the setting when left out. */
  removeAt?: number;
}

export type MailState = 'kept' | 'waiting' | 'sent' | 'failed';

export interface MailRow extends Required<NewMail> {
  number: number;
  /** RFC 3339, UTC. */
  writtenAt: string;
  state: MailState;
  /** How often it was tried, and what went wrong last. */
  tries: number;
  problem: string;
  /** When it is tried next, in milliseconds since 1970. */
  dueAt: number;
}

/** Which mails are counted: those of a form, or to a recipient. */
export type CountedMails = { form: string } | { recipient: string };

/** Mails, on disk before anybody is told that they are on their way. */
export interface MailStore extends OutboxStore<MailRow> {
  /** @param state `waiting` to be sent, `kept` where no mail server is configured, `failed` where it cannot be sent at all */
  add(mail: NewMail, state: 'waiting' | 'kept' | 'failed', problem?: string): Promise<MailRow>;
  /** Puts mails that failed, or are kept, back among those that wait. @returns how many */
  resend(numbers: readonly number[] | 'failed'): Promise<number>;
  count(app: string, which: CountedMails, since: string): Promise<number>;
  /** The newest mails first, without their one-time links. @param before only those with a lower number */
  list(app: string | undefined, before: number | undefined, most: number): Promise<MailRow[]>;
  /** One mail whole. */
  find(number: number): Promise<MailRow | undefined>;
}
