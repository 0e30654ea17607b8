import { composeEntryMail, enterAddress, evaluateCel, followBack, signInAddress, todayIn, type Person } from '@pallmist/core';
import type { Request, Response } from 'express';
import type { PostOffice } from '../mail/post-office.ts';
import type { Store } from '../store/open-store.ts';
import { AttemptLimit } from './attempt-limit.ts';
import type { HostedApp } from './hosted-app.ts';
import { firstAfterSignIn, type SignIn } from './sign-in.ts';

const defaultMinutes = 20;
const minute = 60_000;

/** Lets people in by a link that is mailed to them: asked for, sent, shown as a button, pressed once. */
export class MailedLink {
  readonly #store: Store;
  readonly #signIn: SignIn;
  readonly #post: PostOffice;
  readonly #base: () => string;
  readonly #limit = new AttemptLimit({ window: 10 * minute, most: 10 });

  /** @param base where the public reaches the service */
  constructor(store: Store, signIn: SignIn, post: PostOffice, base: () => string) {
    this.#store = store;
    this.#signIn = signIn;
    this.#post = post;
    this.#base = base;
  }

  /** Somebody asks for a mail. The answer is the same, and as quick, whether or not the address is known. */
  async ask(hosted: HostedApp, mail: string, wanted: string, request: Request, response: Response): Promise<void> {
    const signInPage = hosted.definition.signIn?.page ?? '';
    const back = followBack(hosted.compiled, signInPage, wanted);
    const tooMany = await this.#limit.isReached(request, response);
    response.redirect(303, signInAddress(hosted.compiled, signInPage, back, tooMany ? 'busy' : 'mailed'));
    if (tooMany || mail === '' || mail.length > 200) return;
    try {
      for (const known of await this.#store.people.byMail(hosted.definition.app, mail)) await this.#send(hosted, known, back);
    } catch (error) {
      // The answer is gone already; the person will ask again.
      request.log.error({ err: error }, 'a sign-in mail was not written');
    }
  }

  async #send(hosted: HostedApp, { person, mail: recipient }: { person: Person; mail: string }, back: string | undefined): Promise<void> {
    const { definition, compiled, draft, scope } = hosted;
    const { page = '', byMail } = definition.signIn ?? {};
    const token = await this.#store.entryLinks.make(scope, person.login, back, (byMail?.minutes ?? defaultMinutes) * minute);
    if (token === undefined) return;
    const href = this.#base() + enterAddress(compiled, page, token);
    const mail = composeEntryMail(
      definition,
      { person, recipient, href, today: todayIn(definition.timeZone ?? 'UTC'), draft },
      evaluateCel,
    );
    if (mail) await this.#post.take({ app: definition.app, ...mail });
  }

  /** The button was pressed. */
  async enter(hosted: HostedApp, token: string, request: Request, response: Response): Promise<void> {
    const { definition, compiled, scope } = hosted;
    const signInPage = definition.signIn?.page ?? '';
    const link = await this.#store.entryLinks.take(scope, token);
    const person = link && (await this.#store.people.find(definition.app, link.login));
    if (link === undefined || person === undefined) {
      response.redirect(303, signInAddress(compiled, signInPage, undefined, 'ended'));
      return;
    }
    await this.#signIn.begin(hosted, person.login, request, response);
    response.redirect(303, followBack(compiled, signInPage, link.back) ?? firstAfterSignIn(hosted, person));
  }
}
