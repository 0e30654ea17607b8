import type { Request, Response } from 'express';
import type { LiveApps } from '../apps/live-apps.ts';
import type { AppCookies } from '../http/cookies.ts';
import type { Settings } from '../settings.ts';
import type { Store } from '../store/store.ts';

/** Builders try a draft as a person of the app sees it, without that person’s password. */
export class Trials {
  readonly #live: LiveApps;
  readonly #store: Store;
  readonly #cookies: AppCookies;
  readonly #session: Settings['session'];

  constructor({ live, store, cookies, settings }: { live: LiveApps; store: Store; cookies: AppCookies; settings: Settings }) {
    this.#live = live;
    this.#store = store;
    this.#cookies = cookies;
    this.#session = settings.session;
  }

  /** Signs the browser out of the draft, and in again as a person. @param login null stays signed out */
  async signIn(app: string, login: string | null, request: Request, response: Response): Promise<void> {
    const hosted = await this.#live.draft(app);
    if (hosted === undefined || 'problems' in hosted) return;
    await this.#store.sessions.end(this.#cookies.read(hosted, request, 'person'));
    const person = login === null ? undefined : await this.#store.people.find(app, login);
    if (person === undefined) this.#cookies.clear(hosted, response, 'person');
    else {
      const token = await this.#store.sessions.begin(hosted.scope, person.login, this.#session);
      this.#cookies.set(hosted, response, 'person', token, this.#session.age);
    }
  }
}
