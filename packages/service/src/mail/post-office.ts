import { createTransport, type Transporter } from 'nodemailer';
import type { Logger } from 'pino';
import type { WallClock } from '../clock.ts';
import { Outbox } from '../outbox/outbox.ts';
import type { MailRow, MailStore, NewMail } from '../store/mails.ts';
import type { Settings } from '../settings.ts';

/** Connections to the mail server that are kept. */
const connections = 3;
/** Milliseconds that a mail server has to let the service in, to greet it, and between two of its answers. */
const patience = { connectionTimeout: 15_000, greetingTimeout: 15_000, socketTimeout: 60_000 };

/** Sends mails by SMTP where a server is configured; else they stay in the outbox, to be read in the console. */
export class PostOffice {
  readonly #mails: MailStore;
  readonly #transport: Transporter | undefined;
  readonly #outbox: Outbox<MailRow>;

  constructor(mails: MailStore, { smtpUrl, mailFrom }: Pick<Settings, 'smtpUrl' | 'mailFrom'>, log: Logger, clock: WallClock) {
    this.#mails = mails;
    const transport =
      smtpUrl === undefined
        ? undefined
        : createTransport({ url: smtpUrl, pool: true, maxConnections: connections, maxMessages: Infinity, ...patience } as object);
    this.#transport = transport;
    this.#outbox = new Outbox(mails, log, clock, transport && { what: 'mail', send: (mail) => send(transport, mailFrom, mail) });
  }

  /** The state of a mail that is put into the outbox now. */
  get stateOfNew(): 'waiting' | 'kept' {
    return this.#transport === undefined ? 'kept' : 'waiting';
  }

  /** Begins to send what waits, and to remove what is old. */
  open(): void {
    this.#outbox.open();
  }

  /** Puts a mail into the outbox; it is sent in a moment. */
  async take(mail: NewMail): Promise<void> {
    await this.#mails.add(mail, this.stateOfNew);
    this.wake();
  }

  /** Sends what waits: called when a mail was put into the outbox. */
  wake(): void {
    this.#outbox.wake();
  }

  /**
   * Waits for the mails that are on their way; what waits still is sent after the next start.
   * @param most milliseconds
   */
  async close(most: number): Promise<void> {
    await this.#outbox.close(most);
    this.#transport?.close();
  }
}

/**
 * What names a mail wherever it goes (RFC 5322, Message-ID). It comes from the mail's number, so that a mail that is sent again
 * after a kill is the same one to every mail program.
 */
function messageId({ number, writtenAt }: Pick<MailRow, 'number' | 'writtenAt'>, from: string): string {
  const host = /@([A-Za-z0-9.-]+)/.exec(from)?.[1] ?? 'localhost';
  return `<${String(number)}.${String(Date.parse(writtenAt))}@${host}>`;
}

async function send(transport: Transporter, from: string, mail: MailRow): Promise<void> {
  const { recipient, subject, text, html } = mail;
  try {
    await transport.sendMail({ from, to: recipient, subject, text, html, messageId: messageId(mail, from) });
  } catch (error) {
    // Without the recipient, whom the server's answer may name: who gets mail is nobody’s business.
    throw new Error(withoutAddresses(error instanceof Error ? error.message : String(error)), { cause: error });
  }
}

const withoutAddresses = (text: string) => text.replaceAll(/[^\s<>@]{1,64}@[^\s<>@]{1,255}/g, '(address)');
