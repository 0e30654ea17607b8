import type { Request, Response } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { AppCookies } from '../http/cookies.ts';

/** Milliseconds within which a browser asks for the page that it is redirected to. */
const lifetime = 60_000;
/** A cookie holds no more (RFC 6265, section 6.1), with some room for its name. */
const mostBytes = 2000;

/** Keeps what is to be said of a saved form for the page that the browser is led to. */
export function keepSaid(cookies: AppCookies, hosted: HostedApp, response: Response, said: string): void {
  const bytes = Buffer.from(said);
  if (bytes.length <= mostBytes) cookies.set(hosted, response, 'said', bytes.toString('base64url'), lifetime);
}

/** The message for this page. It is shown once. */
export function takeSaid(cookies: AppCookies, hosted: HostedApp, request: Request, response: Response): string | undefined {
  const kept = cookies.read(hosted, request, 'said');
  if (kept === undefined) return undefined;
  cookies.clear(hosted, response, 'said');
  return Buffer.from(kept, 'base64url').toString().slice(0, mostBytes);
}
