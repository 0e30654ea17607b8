import type { Request, Response } from 'express';
import type { Settings } from '../settings.ts';
import type { HostedApp } from './hosted-app.ts';

/** The cookies’ names: the console’s session and an app’s are never the same. */
export const cookieNames = {
  owner: 'pallmist_owner',
  person: 'pallmist_person',
  heldForm: 'pallmist_held',
  shortMaker: 'pallmist_short',
} as const;

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

/** @param lasts milliseconds */
export function setCookie(response: Response, name: string, value: string, lasts: number, place: CookiePlace): void {
  response.cookie(name, value, { httpOnly: true, maxAge: lasts, ...place });
}

export function clearCookie(response: Response, name: string, place: CookiePlace): void {
  response.clearCookie(name, { httpOnly: true, ...place });
}

/** Where the cookies of an app hold: in its own path only. */
export function appCookiePlace({ cookiePath }: Pick<HostedApp, 'cookiePath'>, { publicUrl }: Pick<Settings, 'publicUrl'>): CookiePlace {
  return { path: cookiePath, secure: publicUrl?.startsWith('https:') ?? false, sameSite: 'lax' };
}
