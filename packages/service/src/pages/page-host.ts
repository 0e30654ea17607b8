import { signUpForm, type FormState } from '@pallmist/app';
import { renderMessage, type Assets } from '@pallmist/pages/server';
import type { Request, Response } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';
import { AttemptLimit } from '../http/attempt-limit.ts';
import { BodyGate } from '../http/bodies.ts';
import { AppCookies } from '../http/cookies.ts';
import type { LoadGuard } from '../http/load-guard.ts';
import { isFromThisSite } from '../http/same-site.ts';
import { MailLimits } from '../mail/mail-limits.ts';
import type { ServiceParts } from '../service-parts.ts';
import { admit } from './admit.ts';
import { answerElsewhere, answerForm, answerMessage, answerPage } from './answer.ts';
import { sendFile, wantedFile } from './files.ts';
import { readForm, sendsFiles, type FormBody } from './form-body.ts';
import { load } from './load.ts';
import { recordSpace } from './load-data.ts';
import { MailedLink } from './mailed-link.ts';
import { busyMessage, message, type StatusMessage } from './messages.ts';
import { PageCache } from './page-cache.ts';
import { PreviousPages } from './previous-pages.ts';
import { codeKind, QrCodes } from './qr-codes.ts';
import { read } from './read.ts';
import { formNameIn, holdForm, save, type SaveOutcome, type SaveParts } from './save.ts';
import { shortPath, ShortAddresses } from './short-addresses.ts';
import { show } from './show.ts';
import { SignIn } from './sign-in.ts';
import { SignUp } from './sign-up.ts';
import {
  pageDataType,
  type Admitted,
  type AskedAs,
  type Elsewhere,
  type Loaded,
  type ReadRequest,
  type Received,
  type Step,
} from './steps.ts';
import { VisitMemory } from './visit.ts';

const filesOfNetwork = { window: 10 * 60_000, most: 60 };

/**
 * Answers every request to an app. A request for a page goes through named steps, each a function with what it gets and
 * what it gives:
 *
 *     receive ──▶ read ──▶ admit ──▶ (save) ──▶ load ──▶ show ──▶ answer
 *
 * What is no page (a file, a code, a short address, a sign-out) is a route of its own and takes none of them.
 */
export class PageHost {
  readonly #parts: ServiceParts;
  readonly #assets: Assets;
  readonly #guard: LoadGuard;
  readonly #bodies = new BodyGate();
  readonly #cache = new PageCache();
  readonly #cookies: AppCookies;
  readonly #visit: VisitMemory;
  readonly #previous: PreviousPages;
  readonly #signIn: SignIn;
  readonly #signUp: SignUp;
  readonly #mailedLink: MailedLink;
  readonly #short: ShortAddresses;
  readonly #codes: QrCodes;
  readonly #files: AttemptLimit;
  readonly #saving: SaveParts;
  readonly #busyPages = new WeakMap<HostedApp, string>();

  constructor(parts: ServiceParts, guard: LoadGuard) {
    const { store, settings, sealer, post, base, clock, files } = parts;
    this.#parts = parts;
    this.#guard = guard;
    this.#assets = files.assets;
    this.#cookies = new AppCookies(settings);
    this.#visit = new VisitMemory(this.#cookies, store.visits);
    this.#previous = new PreviousPages(settings, this.#cookies);
    this.#signIn = new SignIn(parts, this.#cookies, guard);
    this.#signUp = new SignUp(store, this.#signIn, guard, clock);
    this.#mailedLink = new MailedLink(store, this.#signIn, post, base, clock);
    this.#short = new ShortAddresses(store, this.#cookies, sealer, base, clock);
    this.#codes = new QrCodes(base, clock);
    this.#files = new AttemptLimit(filesOfNetwork, clock);
    this.#saving = { store, cookies: this.#cookies, sealer, post, mailLimits: new MailLimits(store.mails, clock), base };
  }

  /** Answers a request to an app. Bodies are read before the request counts as one that is worked on. */
  async answer(hosted: HostedApp, request: Request, response: Response): Promise<void> {
    const { method } = request;
    if (method !== 'GET' && method !== 'HEAD' && method !== 'POST') {
      this.#takesNone(hosted, response);
      return;
    }
    const form = method === 'POST' ? await this.#receive(hosted, request, response) : undefined;
    if (method === 'POST' && form === undefined) return;
    const worked = await this.#guard.during(() =>
      form ? this.#send(hosted, form, request, response) : this.#get(hosted, request, response),
    );
    if (worked === 'shed') {
      response.status(503).setHeader('retry-after', '2').type('html').send(this.busyPage(hosted));
    }
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

  /** GET and HEAD: a file, a code, a short address, or a page. */
  async #get(hosted: HostedApp, request: Request, response: Response): Promise<void> {
    const path = request.originalUrl.split('?')[0] ?? '';
    const file = wantedFile(hosted, path);
    if (file !== undefined) {
      if (!(await sendFile(this.#parts.store, hosted, file, response)))
        this.say(response, message(hosted, 404, 'There is no such file', ['It may have been renamed or taken away.']));
      return;
    }
    const kind = codeKind(hosted, path);
    const short = shortPath(hosted, path);
    if (kind !== undefined) this.#sayIf(response, this.#codes.answer(hosted, kind, request, response));
    else if (short?.code !== undefined) this.#sayIf(response, await this.#short.answer(hosted, short, request, response));
    else
      await this.#page({ hosted, request, response, as: request.headers.accept === pageDataType ? 'data' : 'document', form: undefined });
  }

  /** A page: read, admitted, loaded, shown, or, where nothing has changed, as it was shown before. */
  async #page(received: Received): Promise<void> {
    const { hosted, request, response, as } = received;
    response.setHeader('cache-control', 'private, no-cache');
    response.vary('Accept');
    response.vary('Cookie');
    const admitted = await this.#admitted(received);
    if ('elsewhere' in admitted) {
      this.#elsewhere(received, admitted.elsewhere);
      return;
    }
    const dataVersion = this.#parts.store.records.version(recordSpace(this.#parts.store, hosted));
    const key = admitted.repeats ? PageCache.keyOf(as, request.originalUrl, admitted) : undefined;
    const kept = key === undefined ? undefined : this.#cache.find(hosted, dataVersion, key);
    if (kept !== undefined) {
      answerPage(received, as, kept);
      return;
    }
    const loaded = await this.#loaded(admitted);
    if ('elsewhere' in loaded) {
      this.#elsewhere(received, loaded.elsewhere);
      return;
    }
    const body = show(loaded, as, this.#assets);
    if (key !== undefined && loaded.repeats) this.#cache.keep(hosted, dataVersion, key, body);
    answerPage(received, as, body);
  }

  /** Takes what a form sends; undefined where it has answered already. */
  async #receive(hosted: HostedApp, request: Request, response: Response): Promise<FormBody | undefined> {
    if (!isFromThisSite(request, this.#parts.settings.publicUrl)) {
      this.say(
        response,
        message(hosted, 403, 'That came from another site', ['The form was not sent from this site, so it was not taken.']),
      );
      return undefined;
    }
    if (sendsFiles(request) && this.#files.isReachedBy(request, response)) {
      this.say(
        response,
        message(hosted, 429, 'Too many files', ['So many files came from your network that no more are taken for a while.']),
      );
      return undefined;
    }
    return this.#bodies.during(request, () => readForm(request, hosted.greatestFile));
  }

  /** POST: a sign-out, a short address, a form of a page, or a sign-in. What kind it is, is decided here. */
  async #send(hosted: HostedApp, form: FormBody, request: Request, response: Response): Promise<void> {
    response.setHeader('cache-control', 'no-store');
    const action = this.#signIn.handles(hosted, request);
    const short = shortPath(hosted, request.originalUrl.split('?')[0] ?? '');
    const name = formNameIn(form);
    if (action === 'out') await this.#signIn.signOut(hosted, form, request, response);
    else if (short !== undefined && !short.about) this.#sayIf(response, await this.#short.take(hosted, short, form, request, response));
    else if (name !== undefined) await this.#form({ hosted, request, response, as: 'form', form }, name, form);
    else if (action === 'in') await this.#comeIn(hosted, form, request, response);
    else this.#takesNone(hosted, response);
  }

  /** A form of a page: read, admitted, loaded, saved; then it leads on, or the page shows what is wrong. */
  async #form(received: Received, name: string, form: FormBody): Promise<void> {
    const as: AskedAs = received.request.headers.accept === pageDataType ? 'data' : 'document';
    const loaded = await this.#through(received);
    if ('elsewhere' in loaded) {
      const { elsewhere } = loaded;
      if ('redirect' in elsewhere) {
        if (elsewhere.needsSignIn) await holdForm(received, this.#saving);
        answerForm(received, { document: elsewhere.redirect.to });
      } else this.say(received.response, elsewhere.say);
      return;
    }
    const outcome: Step<SaveOutcome> = await (name === signUpForm
      ? this.#signUp.join(loaded, form)
      : save(loaded, name, form, this.#saving));
    if ('elsewhere' in outcome) this.#elsewhere(received, outcome.elsewhere);
    else if ('saved' in outcome) answerForm(received, outcome);
    else this.#again(loaded, as, outcome.again);
  }

  /** The page again, with what was typed and what is wrong with it. */
  #again(loaded: Loaded, as: AskedAs, again: Record<string, FormState>): void {
    const body = show(loaded, as, this.#assets, again);
    if (as === 'document') answerPage(loaded, as, body, 422);
    else answerPage(loaded, as, `{"material":${body}}`);
  }

  async #comeIn(hosted: HostedApp, form: FormBody, request: Request, response: Response): Promise<void> {
    const { '~mail': mail, '~enter': token, '~wanted': wanted = '' } = form.texts;
    const byMail = hosted.definition.signIn?.byMail !== undefined;
    if (byMail && token !== undefined) await this.#mailedLink.enter(hosted, token, request, response);
    else if (byMail && mail !== undefined) await this.#mailedLink.ask(hosted, mail, wanted, request, response);
    else await this.#signIn.signIn(hosted, form, request, response);
  }

  async #read(received: Received): Promise<Step<ReadRequest>> {
    return read(received, this.#parts.sealer, this.#visit);
  }

  async #admitted(received: Received): Promise<Step<Admitted>> {
    const readRequest = await this.#read(received);
    if ('elsewhere' in readRequest) return readRequest;
    return admit(readRequest, { store: this.#parts.store, cookies: this.#cookies, visit: this.#visit, previous: this.#previous });
  }

  #loaded(admitted: Admitted): Promise<Step<Loaded>> {
    return load(admitted, { store: this.#parts.store, cookies: this.#cookies, sealer: this.#parts.sealer });
  }

  async #through(received: Received): Promise<Step<Loaded>> {
    const admitted = await this.#admitted(received);
    return 'elsewhere' in admitted ? admitted : this.#loaded(admitted);
  }

  #elsewhere(received: Received, elsewhere: Elsewhere): void {
    answerElsewhere(received, elsewhere, this.#assets);
  }

  #sayIf(response: Response, said: StatusMessage | undefined): void {
    if (said) this.say(response, said);
  }

  #takesNone(hosted: HostedApp, response: Response): void {
    response.setHeader('allow', 'GET, HEAD');
    this.say(response, message(hosted, 405, 'That cannot be sent here', ['The page takes no such form.']));
  }
}
