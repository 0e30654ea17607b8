import { renderMessage, type Assets } from '@pallmist/pages/server';
import type { Request, Response } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';
import { AppCookies } from '../http/cookies.ts';
import type { LoadGuard } from '../http/load-guard.ts';
import { MailLimits } from '../mail/mail-limits.ts';
import type { ServiceParts } from '../service-parts.ts';
import { answer, answerMessage } from './answer.ts';
import { FileRoute } from './files.ts';
import { FormerMountRoute } from './former-mount.ts';
import { FormRoute } from './form-route.ts';
import type { FormBody } from './form-body.ts';
import { kindOfForm } from './form-kind.ts';
import { SitemapRoute } from './sitemap.ts';
import { LookRoute } from './look-route.ts';
import { MailedLink } from './mailed-link.ts';
import { busyMessage, message, valuesAnywhere, type StatusMessage } from './messages.ts';
import { PageCache } from './page-cache.ts';
import { formAnswer, pageAnswer, type PageParts } from './page-request.ts';
import { PreviousPages } from './previous-pages.ts';
import { QrCodes } from './qr-codes.ts';
import { FormReceiver } from './receive.ts';
import type { Route } from './route.ts';
import { ShortAddresses } from './short-addresses.ts';
import { SignIn } from './sign-in.ts';
import { SignUp } from './sign-up.ts';
import { pageDataType, type Received } from './steps.ts';
import { VisitMemory } from './visit.ts';

/**
 * Answers every request to an app: what is no page (a file, a code, a short address) by a route of its own, a page by its
 * steps, a form by its kind.
 */
export class AppHost {
  readonly #assets: Assets;
  readonly #guard: LoadGuard;
  readonly #receiver: FormReceiver;
  readonly #routes: readonly Route[];
  readonly #pages: PageParts;
  readonly #signIn: SignIn;
  readonly #mailedLink: MailedLink;
  readonly #short: ShortAddresses;
  readonly #busyPages = new WeakMap<HostedApp, string>();

  constructor(parts: ServiceParts, guard: LoadGuard) {
    const { store, origins, sealer, post, webhooks, base, clock, files, promises, ledger } = parts;
    const { assets } = files;
    const cookies = new AppCookies(origins);
    this.#guard = guard;
    this.#assets = assets;
    this.#receiver = new FormReceiver(parts);
    this.#signIn = new SignIn(parts, cookies, guard);
    this.#mailedLink = new MailedLink(store, this.#signIn, post, base, clock);
    this.#short = new ShortAddresses(store, cookies, sealer, base, clock);
    this.#routes = [
      new FormerMountRoute(),
      new FileRoute(store),
      new LookRoute(),
      new QrCodes(base, clock),
      new FormRoute(),
      new SitemapRoute(store, base),
      this.#short,
    ];
    this.#pages = {
      store,
      promises,
      ledger,
      cookies,
      sealer,
      assets,
      base,
      visit: new VisitMemory(cookies, store.visits),
      previous: new PreviousPages(origins, cookies),
      cache: new PageCache(),
      saving: { store, cookies, sealer, post, mailLimits: new MailLimits(store.mails, clock), webhooks, base },
      signUp: new SignUp(store, this.#signIn, guard, parts.passwordTurns, clock),
    };
  }

  /** Answers a request to an app. Bodies are read before the request counts as one that is worked on. */
  async answer(hosted: HostedApp, request: Request, response: Response): Promise<void> {
    const { method } = request;
    if (method === 'POST') {
      const received = await this.#receiver.receive(hosted, request, response);
      if ('elsewhere' in received) await answer({ request, response }, received.elsewhere, this.#assets);
      else await this.#work(hosted, response, () => this.#send(hosted, received.form, request, response));
    } else if (method === 'GET' || method === 'HEAD') await this.#work(hosted, response, () => this.#get(hosted, request, response));
    else this.#takesNone(hosted, request, response);
  }

  /** That the service is busy, drawn once for each app: to say so must cost next to nothing. */
  busyPage(hosted: HostedApp): string {
    let page = this.#busyPages.get(hosted);
    if (page === undefined) this.#busyPages.set(hosted, (page = renderMessage(busyMessage(hosted).message, this.#assets)));
    return page;
  }

  /** Answers with a page that says something. */
  say(response: Response, said: StatusMessage): void {
    answerMessage(response, said, this.#assets);
  }

  async #work(hosted: HostedApp, response: Response, work: () => Promise<void>): Promise<void> {
    if ((await this.#guard.during(work)) === 'shed')
      response.status(503).setHeader('retry-after', '2').type('html').send(this.busyPage(hosted));
  }

  async #get(hosted: HostedApp, request: Request, response: Response): Promise<void> {
    const path = request.originalUrl.split('?')[0] ?? '';
    for (const route of this.#routes) {
      const handled = await route.get(hosted, path, request, response);
      if (handled === 'not-mine') continue;
      if (handled !== 'answered') this.say(response, handled);
      return;
    }
    const as = request.headers.accept === pageDataType ? 'data' : 'document';
    const received: Received = { hosted, request, response, as, form: undefined };
    await answer(received, await pageAnswer(received, this.#pages), this.#assets);
  }

  async #send(hosted: HostedApp, form: FormBody, request: Request, response: Response): Promise<void> {
    response.setHeader('cache-control', 'no-store');
    const sent = kindOfForm(hosted, request.originalUrl, form);
    switch (sent?.kind) {
      case 'page-form':
        await answer(
          { request, response },
          await formAnswer({ hosted, request, response, as: 'form', form }, sent.name, form, this.#pages),
          this.#assets,
        );
        return;
      case 'sign-in':
        return this.#signIn.signIn(hosted, form, request, response);
      case 'sign-out':
        return this.#signIn.signOut(hosted, form, request, response);
      case 'mailed-link':
        return this.#mailedLink.enter(hosted, sent.token, request, response);
      case 'mail-wanted':
        return this.#mailedLink.ask(hosted, sent.mail, sent.wanted, request, response);
      case 'short-address': {
        const said = await this.#short.take(hosted, sent.path, form, request, response);
        if (said) this.say(response, said);
        return;
      }
      case undefined:
        this.#takesNone(hosted, request, response);
    }
  }

  #takesNone(hosted: HostedApp, request: Request, response: Response): void {
    response.setHeader('allow', 'GET, HEAD');
    this.say(
      response,
      message(
        hosted,
        405,
        'This form cannot be sent here',
        ['The page does not have this form.'],
        valuesAnywhere(hosted, request.originalUrl),
      ),
    );
  }
}
