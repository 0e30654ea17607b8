import { own, admissionOf, followBack, passGate, signInAddress, writeAddress, type Person, type Reason } from '@pallmist/app';
import type { Request, Response } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';
import { AttemptLimit } from '../http/attempt-limit.ts';
import type { AppCookies } from '../http/cookies.ts';
import type { LoadGuard } from '../http/load-guard.ts';
import { networkOfRequest } from '../http/network.ts';
import { loginKey } from '../people/login-names.ts';
import { KnownBrowsers, knownFor } from '../people/known-browsers.ts';
import type { PasswordTurns } from '../people/password-turns.ts';
import type { ServiceParts } from '../service-parts.ts';
import type { Settings } from '../settings.ts';
import type { Store } from '../store/store.ts';
import type { FormBody } from './form-body.ts';
import { redirect } from '../http/location.ts';

const minute = 60_000;
/** Tries from one network that do not sign in. */
const triesOfNetwork = { window: 10 * minute, most: 30 };
/** Signs people in and out of apps. */
export class SignIn {
  readonly #store: Store;
  readonly #settings: Settings;
  readonly #cookies: AppCookies;
  readonly #guard: LoadGuard;
  readonly #networks: AttemptLimit;
  readonly #browsers: KnownBrowsers;
  readonly #turns: PasswordTurns;

  constructor(
    { store, settings, sealer, clock, passwordTurns }: Pick<ServiceParts, 'store' | 'settings' | 'sealer' | 'clock' | 'passwordTurns'>,
    cookies: AppCookies,
    guard: LoadGuard,
  ) {
    this.#turns = passwordTurns;
    this.#guard = guard;
    this.#store = store;
    this.#settings = settings;
    this.#cookies = cookies;
    this.#networks = new AttemptLimit(triesOfNetwork, clock.steady);
    this.#browsers = new KnownBrowsers(sealer, clock);
  }

  async signIn(hosted: HostedApp, { texts }: FormBody, request: Request, response: Response): Promise<void> {
    const signInPage = hosted.definition.signIn?.page ?? '';
    const field = (name: string) => own(texts, name) ?? '';
    const login = field('~name').trim();
    const wanted = followBack(hosted.compiled, signInPage, field('~wanted'));
    const again = (why: Reason) => {
      redirect(response, 303, signInAddress(hosted.compiled, signInPage, wanted, why));
    };
    const account = loginKey(login.slice(0, 200));
    if (this.isTooOften(request, response)) {
      again('too-many-tries');
      return;
    }
    const tried = await this.#browsers.try(hosted.scope, account, this.#cookies.read(hosted, request, 'device'));
    if ('wait' in tried) {
      response.setHeader('retry-after', String(tried.wait));
      again('too-many-tries');
      return;
    }
    const password = field('~password').slice(0, 200);
    const { app } = hosted.definition;
    // A password takes its time, in a thread of its own.
    const check = () => this.#guard.aside(() => this.#store.people.signIn(app, login, password));
    const person = login.length > 100 ? undefined : await this.#turns.during(request, check);
    if (person === undefined || person === 'too-many') {
      again(person === undefined ? 'wrong-password' : 'too-many-tries');
      return;
    }
    tried.forgive();
    this.#cookies.set(hosted, response, 'device', await this.#browsers.mark(hosted.scope, account), knownFor);
    await this.begin(hosted, person.login, request, response);
    redirect(response, 303, wanted ?? firstAfterSignIn(hosted, person));
  }

  /** Whether too much is tried from a network; what signs in does not count. */
  isTooOften(request: Request, response: Response): boolean {
    return this.#networks.isReachedBy(request, response);
  }

  /** Signs a person in. A new token each time: one that was planted before is worth nothing. */
  async begin(hosted: HostedApp, login: string, request: Request, response: Response): Promise<void> {
    this.#networks.forgive(networkOfRequest(request));
    await this.#store.sessions.end(this.#cookies.read(hosted, request, 'person'));
    const { session } = this.#settings;
    const token = await this.#store.sessions.begin(hosted.scope, login, session);
    this.#cookies.set(hosted, response, 'person', token, session.age);
  }

  /** Signs out here, or, where the form says so, in every browser. What was typed and not saved goes too. */
  async signOut(hosted: HostedApp, { texts }: FormBody, request: Request, response: Response): Promise<void> {
    const { sessions, heldForms } = this.#store;
    const token = this.#cookies.read(hosted, request, 'person');
    const login = texts['~everywhere'] === 'yes' ? await sessions.login(hosted.scope, token) : undefined;
    if (login !== undefined) await sessions.endAll([hosted.scope], login);
    await sessions.end(token);
    const held = this.#cookies.read(hosted, request, 'held');
    if (held !== undefined) await heldForms.forget(held);
    this.#cookies.clear(hosted, response, 'held');
    this.#cookies.clear(hosted, response, 'person');
    const { signIn } = hosted.definition;
    const after = signIn?.afterSignOut && writeAddress(hosted.compiled, signIn.afterSignOut.page, signIn.afterSignOut.values ?? {}).address;
    redirect(response, 303, after ?? (signIn ? signInAddress(hosted.compiled, signIn.page, undefined, 'signed-out') : this.#home(hosted)));
  }

  #home(hosted: HostedApp): string {
    return hosted.compiled.mount === '' ? '/' : hosted.compiled.mount;
  }
}

/** Where a person lands after sign-in who did not mean to go anywhere else: the app's own first page where the other is closed. */
export function firstAfterSignIn(hosted: HostedApp, person: Person | undefined): string {
  const { signIn, pages, gates } = hosted.definition;
  const first = signIn?.afterSignIn;
  const open = first && passGate(admissionOf(own(pages, first.page)?.admit, gates), person, () => true) === 'admitted';
  return (open ? writeAddress(hosted.compiled, first.page, first.values ?? {}).address : undefined) ?? (hosted.compiled.mount || '/');
}
