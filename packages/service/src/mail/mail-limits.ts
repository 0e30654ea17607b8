import type { Request, Response } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { Clock } from '../clock.ts';
import { AttemptLimit } from '../http/attempt-limit.ts';
import type { MailStore } from '../store/mails.ts';

const minute = 60_000;
const hour = 60 * minute;

/** Mails of one form within an hour. */
const mostOfForm = 300;
/** Mails of an app to one recipient within an hour, and within a day. */
const mostToRecipient = [
  { within: hour, most: 5 },
  { within: 24 * hour, most: 15 },
];

/** Bounds how many mails forms send: from a network address, by a form, to a recipient. */
export class MailLimits {
  readonly #mails: MailStore;
  readonly #clock: Clock;
  readonly #networks: AttemptLimit;

  constructor(mails: MailStore, clock: Clock) {
    this.#mails = mails;
    this.#clock = clock;
    this.#networks = new AttemptLimit({ window: 10 * minute, most: 20 }, clock.steady);
  }

  /** @returns what to tell the person where the form sends no more for a while; undefined where it may */
  async reached(
    { definition: { app } }: HostedApp,
    page: string,
    form: string,
    request: Request,
    response: Response,
  ): Promise<string | undefined> {
    if (this.#networks.isReachedBy(request, response))
      return 'So many mails were asked for from your network that no more are sent for a few minutes. Nothing is saved yet; please try again later.';
    const sent = await this.#mails.count(app, { form: `${page}/${form}` }, this.#since(hour));
    return sent >= mostOfForm
      ? 'This form has sent so many mails that it sends no more for an hour. Nothing is saved yet; please try again later.'
      : undefined;
  }

  /** @param mails those of the transaction in which the mail is written */
  async recipientReached(mails: MailStore, app: string, recipient: string): Promise<string | undefined> {
    for (const { within, most } of mostToRecipient)
      if ((await mails.count(app, { recipient }, this.#since(within))) >= most)
        return 'So many mails went to this address that no more are sent to it for a while. Nothing is saved yet; please try again later.';
    return undefined;
  }

  #since = (within: number) => new Date(this.#clock() - within).toISOString();
}
