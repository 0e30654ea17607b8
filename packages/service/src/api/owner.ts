import { randomBytes, timingSafeEqual } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Request, Response } from 'express';
import { clearCookie, readCookie, setCookie, type CookiePlace } from '../http/cookies.ts';
import { isFromThisSite } from '../http/same-site.ts';
import type { Settings } from '../settings.ts';
import type { Store } from '../store/store.ts';
import { hashToken } from '../store/tokens.ts';
import { writePrivately } from '../write-privately.ts';

/** The console stays open for thirty days. */
const lifetime = 30 * 24 * 60 * 60 * 1000;
const ownerCookie = 'pallmist_owner';

/** The owner of the service: who may change apps. Known by the token on disk, or by the console’s session. */
export class Owner {
  readonly #store: Store;
  readonly #settings: Settings;
  #token: string;
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
    const link = `${base}/~/console/#key=${this.#key}`;
    writePrivately(join(this.#settings.data, 'console-link.txt'), link + '\n');
    return link;
  }

  /** Uses up the one-time key and begins a session. */
  async enter(key: string, response: Response): Promise<boolean> {
    if (this.#key === undefined || !equal(key, this.#key)) return false;
    this.#key = undefined;
    setCookie(
      response,
      ownerCookie,
      await this.#store.sessions.begin('owner', 'owner', { age: lifetime, idle: lifetime }),
      lifetime,
      this.#place(),
    );
    return true;
  }

  async leave(request: Request, response: Response): Promise<void> {
    await this.#store.sessions.end(readCookie(request, ownerCookie));
    clearCookie(response, ownerCookie, this.#place());
  }

  /** Closes the console in every browser. @returns in how many it was open */
  endSessions(): Promise<number> {
    return this.#store.sessions.endAll(['owner'], 'owner');
  }

  /** Makes a new token; the one before is void at once. */
  renewToken(): string {
    const token = randomBytes(32).toString('base64url');
    writePrivately(join(this.#settings.data, 'api-token'), token + '\n');
    this.#token = token;
    return token;
  }

  /** Whether the owner asks: with the token, or from the console (then only from this very site). */
  async asks(request: Request): Promise<boolean> {
    const bearer = /^Bearer (.+)$/.exec(request.headers.authorization ?? '')?.[1];
    if (bearer !== undefined) return equal(bearer, this.#token);
    if (request.method !== 'GET' && request.method !== 'HEAD' && !isFromThisSite(request, this.#settings.publicUrl)) return false;
    return (await this.#store.sessions.login('owner', readCookie(request, ownerCookie))) !== undefined;
  }

  #place(): CookiePlace {
    return { path: '/~/', secure: this.#settings.publicUrl?.startsWith('https:') ?? false, sameSite: 'strict' };
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

const equal = (a: string, b: string) => timingSafeEqual(Buffer.from(hashToken(a)), Buffer.from(hashToken(b)));
