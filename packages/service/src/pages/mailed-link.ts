import { composeEntryMail, enterAddress, evaluateCel, followBack, mailAddress, signInAddress, type Person } from '@pallmist/app';
import type { Request, Response } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { Clock } from '../clock.ts';
import { AttemptLimit } from '../http/attempt-limit.ts';
import type { PostOffice } from '../mail/post-office.ts';
import type { Store } from '../store/store.ts';
import { firstAfterSignIn, type SignIn } from './sign-in.ts';
import { redirect } from '../http/location.ts';

const defaultMinutes = 20;
const minute = 60_000;
/** A mail whose link is of no more use is removed after a day. */
const keptAfterEnd = 24 * 60 * minute;

/** Lets people in by a link that is mailed to them: asked for, sent, shown as a button, pressed once. */
export class MailedLink {
  readonly #store: Store;
  readonly #signIn: SignIn;
  readonly #post: PostOffice;
  readonly #base: () => string;
  readonly #clock: Clock;
  readonly #limit: AttemptLimit;

  /** @param base where the public reaches the service */
  constructor(store: Store, signIn: SignIn, post: PostOffice, base: () => string, clock: Clock) {
    this.#store = store;
    this.#signIn = signIn;
    this.#post = post;
    this.#base = base;
    this.#clock = clock;
    this.#limit = new AttemptLimit({ window: 10 * minute, most: 10 }, clock.steady);
  }

  /** A mail is asked for. The answer is the same, and as quick, whether or not the address is known. */
  async ask(hosted: HostedApp, mail: string, wanted: string, request: Request, response: Response): Promise<void> {
    const signInPage = hosted.definition.signIn?.page ?? '';
    const back = followBack(hosted.compiled, signInPage, wanted);
    const tooMany = this.#limit.isReachedBy(request, response);
    redirect(response, 303, signInAddress(hosted.compiled, signInPage, back, tooMany ? 'too-many-tries' : 'mail-sent'));
    const address = mailAddress(mail);
    if (tooMany || address === undefined) return;
    try {
      for (const known of await this.#store.people.byMail(hosted.definition.app, address)) await this.#send(hosted, known, back);
    } catch (error) {
      // The answer is gone already; the person will ask again.
      request.log.error({ err: error }, 'a sign-in mail was not written');
    }
  }

  async #send(hosted: HostedApp, { person, mail: recipient }: { person: Person; mail: string }, back: string | undefined): Promise<void> {
    const { definition, compiled, draft, scope } = hosted;
    const { page = '', byMail } = definition.signIn ?? {};
    const lifetime = (byMail?.minutes ?? defaultMinutes) * minute;
    const token = await this.#store.entryLinks.make(scope, person.login, back, lifetime);
    if (token === undefined) return;
    const href = this.#base() + enterAddress(compiled, page, token);
    const mail = composeEntryMail(definition, { person, recipient, href, today: hosted.today(), draft }, evaluateCel);
    if (mail === undefined) return;
    const { problem, ...written } = mail;
    if (problem === undefined)
      await this.#post.take({ app: definition.app, ...written, removeAt: this.#clock() + lifetime + keptAfterEnd });
  }

  /** The button was pressed. */
  async enter(hosted: HostedApp, token: string, request: Request, response: Response): Promise<void> {
    const { definition, compiled, scope } = hosted;
    const signInPage = definition.signIn?.page ?? '';
    const link = await this.#store.entryLinks.take(scope, token);
    const person = link && (await this.#store.people.find(definition.app, link.login));
    if (link === undefined || person === undefined) {
      redirect(response, 303, signInAddress(compiled, signInPage, undefined, 'link-expired'));
      return;
    }
    await this.#signIn.begin(hosted, person.login, request, response);
    redirect(response, 303, followBack(compiled, signInPage, link.wanted) ?? firstAfterSignIn(hosted, person));
  }
}
