import { admissionOf, followBack, passGate, readAddress, signInAddress, writeAddress, type Person, type Reason } from '@pallmist/core';
import type { Request, Response } from 'express';
import type { Settings } from '../settings.ts';
import type { Store } from '../store/open-store.ts';
import { AttemptLimit } from './attempt-limit.ts';
import { appCookiePlace, clearCookie, cookieNames, readCookie, setCookie } from './cookies.ts';
import type { HostedApp } from './hosted-app.ts';

const attempts = { window: 10 * 60 * 1000, most: 30 };

/** Signs people in and out of apps. */
export class SignIn {
  readonly #store: Store;
  readonly #settings: Settings;
  readonly #limit = new AttemptLimit({ ...attempts, forgives: (response) => response.locals['signedIn'] === true });

  constructor(store: Store, settings: Settings) {
    this.#store = store;
    this.#settings = settings;
  }

  /** Whether a POST to this address is a sign-in or a sign-out. */
  handles(hosted: HostedApp, request: Request): 'in' | 'out' | undefined {
    const path = request.originalUrl.split('?')[0];
    if (path === `${hosted.compiled.mount}/~sign-out`) return 'out';
    const { page } = readAddress(hosted.compiled, request.originalUrl);
    return page !== undefined && page === hosted.definition.signIn?.page ? 'in' : undefined;
  }

  async signIn(hosted: HostedApp, request: Request, response: Response): Promise<void> {
    const signInPage = hosted.definition.signIn?.page ?? '';
    const field = (name: string) => request.form.texts[name] ?? '';
    const login = field('~name').trim();
    const back = followBack(hosted.compiled, signInPage, field('~back'));
    const again = (why: Reason) => {
      response.redirect(303, signInAddress(hosted.compiled, signInPage, back, why));
    };
    if (await this.isTooOften(request, response)) {
      again('busy');
      return;
    }
    if (login.length > 100 || !(await this.#store.people.mayEnter(hosted.definition.app, login, field('~password').slice(0, 200)))) {
      again('wrong');
      return;
    }
    await this.begin(hosted, login, request, response);
    const person = await this.#store.people.find(hosted.definition.app, login);
    response.redirect(303, back ?? firstAfterSignIn(hosted, person));
  }

  /** Whether somebody tries too often; each request counts that does not sign in. */
  isTooOften(request: Request, response: Response): Promise<boolean> {
    return this.#limit.isReached(request, response);
  }

  /** Signs somebody in. A new token each time: one that was planted before is worth nothing. */
  async begin(hosted: HostedApp, login: string, request: Request, response: Response): Promise<void> {
    response.locals['signedIn'] = true;
    await this.#store.sessions.end(readCookie(request, cookieNames.person));
    const { session } = this.#settings;
    const token = await this.#store.sessions.begin(hosted.scope, login, session);
    setCookie(response, cookieNames.person, token, session.age, appCookiePlace(hosted, this.#settings));
  }

  /** Signs out here, or, where the form says so, in every browser. */
  async signOut(hosted: HostedApp, request: Request, response: Response): Promise<void> {
    const token = readCookie(request, cookieNames.person);
    const everywhere = request.form.texts['~everywhere'] === 'yes';
    const login = everywhere ? await this.#store.sessions.login(hosted.scope, token) : undefined;
    if (login !== undefined) await this.#store.sessions.endAll(hosted.scope, login);
    await this.#store.sessions.end(token);
    clearCookie(response, cookieNames.person, appCookiePlace(hosted, this.#settings));
    const { signIn } = hosted.definition;
    const after = signIn?.afterSignOut && writeAddress(hosted.compiled, signIn.afterSignOut.page, signIn.afterSignOut.values ?? {}).address;
    response.redirect(303, after ?? (signIn ? signInAddress(hosted.compiled, signIn.page, undefined, 'left') : this.#home(hosted)));
  }

  #home(hosted: HostedApp): string {
    return hosted.compiled.mount === '' ? '/' : hosted.compiled.mount;
  }
}

/** Where one lands after sign-in when no other address was wanted: the app's own first page where the other is closed to one. */
export function firstAfterSignIn(hosted: HostedApp, person: Person | undefined): string {
  const { signIn, pages, gates } = hosted.definition;
  const first = signIn?.first;
  const open = first && passGate(admissionOf(pages[first.page]?.admit, gates), person, () => true) === 'admitted';
  return (open ? writeAddress(hosted.compiled, first.page, first.values ?? {}).address : undefined) ?? (hosted.compiled.mount || '/');
}
