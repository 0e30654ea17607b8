import { randomBytes, timingSafeEqual } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Request, Response } from 'express';
import { clearCookie, readCookie, setCookie, type CookiePlace } from '../http/cookies.ts';
import { isFromThisSite } from '../http/same-site.ts';
import { knownFor } from '../people/known-browsers.ts';
import type { Origins } from '../http/origins.ts';
import type { Settings } from '../settings.ts';
import type { ApiToken } from '../store/api-tokens.ts';
import type { BuilderRole, BuilderRow } from '../store/builders.ts';
import type { Store } from '../store/store.ts';
import { hashToken } from '../store/tokens.ts';
import { writePrivately } from '../write-privately.ts';

/** The console stays open for thirty days. */
const lifetime = 30 * 24 * 60 * 60 * 1000;
/** Scope of the sessions by which a browser may look at drafts, and do nothing else. */
export const lookScope = 'look';
const consoleCookie = 'pallmist_owner';
const deviceCookie = 'pallmist_device';
/** Who signs in by the console’s link: the owner, without an account. */
const ownerId = 'owner';

/** Who works on apps in the console, or by the HTTP interface. */
export interface Builder {
  id: string;
  name: string;
  role: BuilderRole;
  /** What a program may do that called with a named token; people have none. */
  token?: Pick<ApiToken, 'scopes' | 'app'>;
}

/** The owner, as the log names who changed something by the command or before anyone signed in. */
export const theOwner: Builder = { id: ownerId, name: 'The owner', role: 'owner' };
const ranks: Record<BuilderRole, number> = { viewer: 0, builder: 1, owner: 2 };

/** Whether a role may do what takes another. */
export const mayAs = (role: BuilderRole, needed: BuilderRole): boolean => ranks[role] >= ranks[needed];

/**
 * The builders: who may look at drafts, change apps, and keep the service. The owner is known by the token on disk or by the
 * console’s link; others have accounts. A browser is known by the console’s session.
 */
export class Builders {
  readonly #store: Store;
  readonly #settings: Settings;
  readonly #origins: Origins;
  #token: string;
  /** Key of the one-time link that has not been used yet. */
  #key: string | undefined;

  constructor(store: Store, settings: Settings, origins: Origins) {
    this.#store = store;
    this.#settings = settings;
    this.#origins = origins;
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
    await this.begin(ownerId, response);
    return true;
  }

  /** Opens the console for a builder. */
  async begin(id: string, response: Response): Promise<void> {
    const token = await this.#store.sessions.begin('owner', id, { age: lifetime, idle: lifetime });
    setCookie(response, consoleCookie, token, lifetime, this.#place());
  }

  /** The mark of a browser in which a builder has signed in before. */
  deviceOf(request: Request): string | undefined {
    return readCookie(request, deviceCookie);
  }

  rememberDevice(mark: string, response: Response): void {
    setCookie(response, deviceCookie, mark, knownFor, this.#place());
  }

  /** Closes the console in this browser, and whatever shows drafts to its builder. */
  async leave(request: Request, response: Response): Promise<void> {
    const token = readCookie(request, consoleCookie);
    const id = await this.#store.sessions.login('owner', token);
    await this.#store.sessions.end(token);
    if (id !== undefined) await this.#store.sessions.endAll([lookScope], id);
    clearCookie(response, consoleCookie, this.#place());
  }

  /** Closes the console of a builder in every browser. @returns in how many it was open */
  async endSessions(id: string): Promise<number> {
    await this.#store.sessions.endAll([lookScope], id);
    return this.#store.sessions.endAll(['owner'], id);
  }

  /** Closes the console for everybody, in every browser. @returns in how many it was open */
  async endAllSessions(): Promise<number> {
    await this.#store.sessions.endScope(lookScope);
    return this.#store.sessions.endScope('owner');
  }

  /** Makes a new token; the one before is void at once. */
  renewToken(): string {
    const token = randomBytes(32).toString('base64url');
    writePrivately(join(this.#settings.data, 'api-token'), token + '\n');
    this.#token = token;
    return token;
  }

  /** Who asks: with the token, or from the console, then only from this very site; undefined for a stranger. */
  async who(request: Request): Promise<Builder | undefined> {
    const bearer = await this.withToken(request);
    if (bearer !== 'none') return bearer;
    if (request.method !== 'GET' && request.method !== 'HEAD' && !isFromThisSite(request, this.#origins.reached(request, false)))
      return undefined;
    const id = await this.#store.sessions.login('owner', readCookie(request, consoleCookie));
    return id === undefined ? undefined : this.find(id);
  }

  /** Who sent a token; “none” where a request has none, and undefined where the token is nobody’s. */
  async withToken(request: Request): Promise<Builder | undefined | 'none'> {
    const bearer = /^Bearer (.+)$/.exec(request.headers.authorization ?? '')?.[1];
    if (bearer === undefined) return 'none';
    if (equal(bearer, this.#token)) return theOwner;
    const token = await this.#store.apiTokens.use(bearer);
    // The scopes of a token decide what it may do, not this role.
    return token && { id: `token:${token.id}`, name: token.name, role: 'viewer', token };
  }

  async find(id: string): Promise<Builder | undefined> {
    if (id === ownerId) return theOwner;
    const row = await this.#store.builders.find(id);
    return row && asBuilder(row);
  }

  #place(): CookiePlace {
    return { path: '/~/', secure: this.#origins.isSecure(false), sameSite: 'strict' };
  }
}

export const asBuilder = ({ id, name, mail, role }: BuilderRow): Builder => ({ id, name: name === '' ? mail : name, role });

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
