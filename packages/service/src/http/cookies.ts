import type { Request, Response } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { Origins } from './origins.ts';

/** A cookie’s value (RFC 6265); the first one, which is the one with the longest path. */
export function readCookie(request: Request, name: string): string | undefined {
  for (const pair of (request.headers.cookie ?? '').split(';')) {
    const equals = pair.indexOf('=');
    if (equals > 0 && pair.slice(0, equals).trim() === name) return pair.slice(equals + 1).trim();
  }
  return undefined;
}

export interface CookiePlace {
  path: string;
  secure: boolean;
  sameSite: 'lax' | 'strict';
}

/** @param lifetime milliseconds; until the browser is closed when left out */
export function setCookie(response: Response, name: string, value: string, lifetime: number | undefined, place: CookiePlace): void {
  response.cookie(name, value, { httpOnly: true, ...(lifetime === undefined ? {} : { maxAge: lifetime }), ...place });
}

export function clearCookie(response: Response, name: string, place: CookiePlace): void {
  response.clearCookie(name, { httpOnly: true, ...place });
}

/** What an app remembers in a browser: who is signed in, a held form, the short addresses made there, the visit. */
export type AppCookie = 'person' | 'device' | 'held' | 'short' | 'previous' | 'visit' | 'once' | 'said' | 'language';

/** An app’s cookies have its name, for those of an app at “/” go to every other app too. */
const nameOf = ({ definition: { app }, draft }: HostedApp, kind: AppCookie) => `pallmist_${app}${draft ? '_draft' : ''}_${kind}`;

/** The cookies of an app, in its own path only. */
export class AppCookies {
  readonly #origins: Origins;

  constructor(origins: Origins) {
    this.#origins = origins;
  }

  read(hosted: HostedApp, request: Request, kind: AppCookie): string | undefined {
    return readCookie(request, nameOf(hosted, kind));
  }

  /** @param lifetime milliseconds; until the browser is closed when left out */
  set(hosted: HostedApp, response: Response, kind: AppCookie, value: string, lifetime?: number): void {
    setCookie(response, nameOf(hosted, kind), value, lifetime, this.#place(hosted));
  }

  clear(hosted: HostedApp, response: Response, kind: AppCookie): void {
    clearCookie(response, nameOf(hosted, kind), this.#place(hosted));
  }

  #place({ cookiePath, draft }: HostedApp): CookiePlace {
    return { path: cookiePath, secure: this.#origins.isSecure(draft), sameSite: 'lax' };
  }
}
