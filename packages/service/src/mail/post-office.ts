import { createTransport, type Transporter } from 'nodemailer';
import type { Logger } from 'pino';
import type { Clock } from '../clock.ts';
import type { MailRow, MailStore, NewMail } from '../store/mails.ts';
import type { Settings } from '../settings.ts';

/** Milliseconds until a mail that did not go is tried again, doubled each time. */
const firstWait = 30_000;
const mostTries = 8;
/** Mails that are on their way at a time, over connections that are kept. */
const atOnce = 3;
/** Mails that are taken from the outbox at a time. */
const batch = 50;
/** Milliseconds until the outbox is looked at again when looking at it failed: a full disk, say. */
const afterFailure = 5000;
/** How often old mails are removed, in milliseconds. */
const sweepEvery = 60 * 60 * 1000;
const longestTimer = 2 ** 31 - 1;

/**
 * Sends mails by SMTP where a server is configured; else they stay in the outbox, to be read in the console. A mail is on
 * disk before it is sent; what waits is sent a few at a time, after a start too, and tried again when the server does not
 * take it. What goes wrong here is logged and tried again, and stops nothing else.
 */
export class PostOffice {
  readonly #mails: MailStore;
  readonly #log: Logger;
  readonly #clock: Clock;
  readonly #from: string;
  readonly #transport: Transporter | undefined;
  #running: Promise<void> | undefined;
  /** A mail was put into the outbox while it was being emptied. */
  #again = false;
  #timer: NodeJS.Timeout | undefined;
  #sweeper: NodeJS.Timeout | undefined;
  #closed = false;
  /** Mails that the server has taken and that could not be noted as sent: they are not sent twice. */
  readonly #unnoted = new Map<number, Pick<MailRow, 'state' | 'tries' | 'problem'>>();

  constructor(mails: MailStore, { smtpUrl, mailFrom }: Pick<Settings, 'smtpUrl' | 'mailFrom'>, log: Logger, clock: Clock) {
    this.#mails = mails;
    this.#log = log;
    this.#clock = clock;
    this.#from = mailFrom;
    this.#transport =
      smtpUrl === undefined
        ? undefined
        : createTransport({ url: smtpUrl, pool: true, maxConnections: atOnce, maxMessages: Infinity } as object);
  }

  /** The state of a mail that is put into the outbox now. */
  get stateOfNew(): 'waiting' | 'kept' {
    return this.#transport === undefined ? 'kept' : 'waiting';
  }

  /** Begins to send what waits, and to remove what is old. */
  open(): void {
    this.wake();
    const sweep = () => {
      this.#mails.sweep().catch((error: unknown) => {
        this.#log.error({ err: error }, 'old mails were not removed');
      });
    };
    sweep();
    this.#sweeper = setInterval(sweep, sweepEvery).unref();
  }

  /** Puts a mail into the outbox; it is sent in a moment. */
  async take(mail: NewMail): Promise<void> {
    await this.#mails.add(mail, this.stateOfNew);
    this.wake();
  }

  /** Sends what waits: called when a mail was put into the outbox. */
  wake(): void {
    if (this.#transport === undefined || this.#closed) return;
    if (this.#running !== undefined) {
      this.#again = true;
      return;
    }
    clearTimeout(this.#timer);
    this.#running = this.#empty()
      .catch((error: unknown) => {
        this.#log.error({ err: error }, 'the outbox cannot be emptied');
        this.#wakeIn(afterFailure);
      })
      .finally(() => {
        this.#running = undefined;
        if (this.#again) this.wake();
      });
  }

  /** Waits for the mails that are on their way; what waits still is sent after the next start. */
  async close(): Promise<void> {
    this.#closed = true;
    clearTimeout(this.#timer);
    clearInterval(this.#sweeper);
    await this.#running;
    this.#transport?.close();
  }

  async #empty(): Promise<void> {
    for (;;) {
      this.#again = false;
      const due = this.#closed ? [] : await this.#mails.due(batch);
      if (due.length === 0) break;
      const rest = due.values();
      // A few at a time, each taking the next when it is done.
      await Promise.all(
        Array.from({ length: atOnce }, async () => {
          for (const mail of rest) if (!this.#closed) await this.#send(mail);
        }),
      );
    }
    const { next } = await this.#mails.waiting();
    if (next !== undefined) this.#wakeIn(Math.max(1000, next - this.#clock()));
  }

  async #send(mail: MailRow): Promise<void> {
    const tries = mail.tries + 1;
    if (!this.#unnoted.has(mail.number)) {
      try {
        await this.#transport?.sendMail({ from: this.#from, to: mail.recipient, subject: mail.subject, text: mail.text, html: mail.html });
        this.#unnoted.set(mail.number, { state: 'sent', tries, problem: '' });
      } catch (error) {
        // Without the recipient, whom the server's answer may name: who gets mail is nobody’s business.
        const problem = withoutAddresses(error instanceof Error ? error.message : String(error)).slice(0, 500);
        this.#log.warn({ mail: mail.number, tries, problem }, 'a mail was not taken');
        const dueAt = this.#clock() + firstWait * 2 ** mail.tries;
        await this.#mails.note(mail, { state: tries >= mostTries ? 'failed' : 'waiting', tries, problem, dueAt });
        return;
      }
    }
    await this.#mails.note(mail, this.#unnoted.get(mail.number) ?? {});
    this.#unnoted.delete(mail.number);
  }

  #wakeIn(milliseconds: number): void {
    if (this.#closed) return;
    clearTimeout(this.#timer);
    this.#timer = setTimeout(
      () => {
        this.wake();
      },
      Math.min(milliseconds, longestTimer),
    ).unref();
  }
}

const withoutAddresses = (text: string) => text.replaceAll(/[^\s<>@]{1,64}@[^\s<>@]{1,255}/g, '(address)');
