import { randomBytes, timingSafeEqual } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Request, Response } from 'express';
import { cookieNames, readCookie, setCookie, clearCookie, type CookiePlace } from '../host/cookies.ts';
import { isFromThisSite } from '../host/same-site.ts';
import type { Settings } from '../settings.ts';
import { hashToken } from '../store/sessions.ts';
import type { Store } from '../store/open-store.ts';

/** The console stays open for thirty days. */
const lasts = 30 * 24 * 60 * 60 * 1000;

/** The owner of the service: who may change apps. Known by the token on disk, or by the console’s session. */
export class Owner {
  readonly #store: Store;
  readonly #settings: Settings;
  readonly #token: string;
  /** Key of the one-time link that has not been used yet. */
  #key: string | undefined;

  constructor(store: Store, settings: Settings) {
    this.#store = store;
    this.#settings = settings;
    this.#token = keptToken(join(settings.data, 'api-token'));
  }

  /** Makes a one-time link to the console; the one before is void. Also written to a file for the owner alone. */
  newConsoleLink(base: string): string {
    this.#key = randomBytes(24).toString('base64url');
    // After “#”, so that it stands in no log and is sent to nobody.
    const link = `${base}/-/console/#key=${this.#key}`;
    writePrivately(join(this.#settings.data, 'console-link.txt'), link + '\n');
    return link;
  }

  /** Uses up the one-time key and begins a session. */
  async enter(key: string, response: Response): Promise<boolean> {
    if (this.#key === undefined || !equal(key, this.#key)) return false;
    this.#key = undefined;
    setCookie(
      response,
      cookieNames.owner,
      await this.#store.sessions.begin('owner', 'owner', { age: lasts, idle: lasts }),
      lasts,
      this.#place(),
    );
    return true;
  }

  async leave(request: Request, response: Response): Promise<void> {
    await this.#store.sessions.end(readCookie(request, cookieNames.owner));
    clearCookie(response, cookieNames.owner, this.#place());
  }

  /** Whether the owner asks: with the token, or from the console (then only from this very site). */
  async asks(request: Request): Promise<boolean> {
    const bearer = /^Bearer (.+)$/.exec(request.headers.authorization ?? '')?.[1];
    if (bearer !== undefined) return equal(bearer, this.#token);
    if (request.method !== 'GET' && request.method !== 'HEAD' && !isFromThisSite(request, this.#settings.publicUrl)) return false;
    return (await this.#store.sessions.login('owner', readCookie(request, cookieNames.owner))) !== undefined;
  }

  #place(): CookiePlace {
    return { path: '/-/', secure: this.#settings.publicUrl?.startsWith('https:') ?? false, sameSite: 'strict' };
  }
}

function keptToken(file: string): string {
  if (existsSync(file)) {
    const token = readFileSync(file, 'utf8').trim();
    if (token.length >= 32) return token;
  }
  const token = randomBytes(32).toString('base64url');
  writePrivately(file, token + '\n');
  return token;
}

const writePrivately = (file: string, text: string) => {
  writeFileSync(file, text, { mode: 0o600 });
};

const equal = (a: string, b: string) => timingSafeEqual(Buffer.from(hashToken(a)), Buffer.from(hashToken(b)));
