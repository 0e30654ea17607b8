import { createTransport, type Transporter } from 'nodemailer';
import type { Logger } from 'pino';
import type { MailRow } from '../store/entities/index.ts';
import type { MailStore, NewMail } from '../store/mails.ts';
import type { Settings } from '../settings.ts';

/** Milliseconds until a mail that did not go is tried again, doubled each time. */
const firstWait = 30_000;
const mostTries = 8;

/**
 * Sends mails by SMTP where a server is configured; else they stay in the outbox, to be read in the console. A mail is on
 * disk before it is sent, and is tried again when the server does not take it.
 */
export class PostOffice {
  readonly #mails: MailStore;
  readonly #log: Logger;
  readonly #from: string;
  readonly #transport: Transporter | undefined;
  readonly #timers = new Set<NodeJS.Timeout>();
  #closed = false;

  constructor(mails: MailStore, { smtpUrl, mailFrom }: Pick<Settings, 'smtpUrl' | 'mailFrom'>, log: Logger) {
    this.#mails = mails;
    this.#log = log;
    this.#from = mailFrom;
    this.#transport = smtpUrl === undefined ? undefined : createTransport(smtpUrl);
  }

  /** Goes on with what was waiting when the service stopped. */
  async open(): Promise<void> {
    if (this.#transport === undefined) return;
    for (const mail of await this.#mails.waiting()) void this.#send(mail);
  }

  /** Takes a mail; it is sent in a moment. */
  async take(mail: NewMail): Promise<void> {
    const row = await this.#mails.add(mail, this.#transport === undefined ? 'kept' : 'waiting');
    if (this.#transport !== undefined) void this.#send(row);
  }

  close(): void {
    this.#closed = true;
    for (const timer of this.#timers) clearTimeout(timer);
    this.#transport?.close();
  }

  async #send(mail: MailRow): Promise<void> {
    try {
      await this.#transport?.sendMail({ from: this.#from, to: mail.recipient, subject: mail.subject, text: mail.text, html: mail.html });
      await this.#note(mail, { state: 'sent', tries: mail.tries + 1, problem: '' });
    } catch (error) {
      const problem = (error instanceof Error ? error.message : String(error)).slice(0, 500);
      const tries = mail.tries + 1;
      // Without the recipient: who gets mail is nobody’s business.
      this.#log.warn({ mail: mail.number, tries, problem }, 'a mail was not taken');
      await this.#note(mail, { state: tries >= mostTries ? 'failed' : 'waiting', tries, problem });
      if (tries < mostTries && !this.#closed) this.#again({ ...mail, tries });
    }
  }

  async #note(mail: MailRow, change: Partial<MailRow>): Promise<void> {
    if (!this.#closed) await this.#mails.update(mail.number, change);
  }

  #again(mail: MailRow): void {
    const timer = setTimeout(
      () => {
        this.#timers.delete(timer);
        void this.#send(mail);
      },
      firstWait * 2 ** (mail.tries - 1),
    );
    timer.unref();
    this.#timers.add(timer);
  }
}
