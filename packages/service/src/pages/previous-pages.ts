import { readAddress, staysOnSite, type PreviousPage } from '@pallmist/app';
import type { Request, Response } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { AppCookies } from '../http/cookies.ts';
import type { Origins } from '../http/origins.ts';

const mostCharacters = 2000;

/** Knows the page of the app that the visitor came from, as browsers say (Referer, RFC 9110), and remembers it. */
export class PreviousPages {
  readonly #origins: Origins;
  readonly #cookies: AppCookies;

  constructor(origins: Origins, cookies: AppCookies) {
    this.#origins = origins;
    this.#cookies = cookies;
  }

  /**
   * The page from which the visitor came to the present page. While the visitor stays on a page (changes a tab, say), the way back stays.
   * @param present name of the page that is asked for
   * @param asDocument remember it: a browser that has taken a page over knows it by its history
   */
  of(hosted: HostedApp, request: Request, response: Response, present: string, asDocument: boolean): PreviousPage | undefined {
    const from = this.#referring(hosted, request);
    if (from === undefined || from.page === hosted.definition.signIn?.page) return undefined;
    const previous = from.page === present ? this.#kept(hosted, request, pathOf(from.address)) : from;
    if (previous !== undefined && asDocument) this.#keep(hosted, response, pathOf(request.originalUrl), previous.address);
    return previous?.page === present ? undefined : previous;
  }

  #keep(hosted: HostedApp, response: Response, path: string, address: string): void {
    const kept = Buffer.from(`${path} ${address}`).toString('base64url');
    if (kept.length <= mostCharacters) this.#cookies.set(hosted, response, 'previous', kept);
  }

  /** A page of this app, from its address alone: cookies and headers are written by strangers. */
  #pageAt(hosted: HostedApp, address: string): PreviousPage | undefined {
    const { page } = readAddress(hosted.compiled, address);
    return page === undefined || !staysOnSite(address) ? undefined : { page, address };
  }

  #referring(hosted: HostedApp, request: Request): PreviousPage | undefined {
    const { referer } = request.headers;
    if (referer === undefined || !URL.canParse(referer)) return undefined;
    const url = new URL(referer);
    // A proxy may ask under a name of its own.
    return url.origin === this.#origins.reached(request, hosted.draft) ? this.#pageAt(hosted, url.pathname + url.search) : undefined;
  }

  /** What was remembered on the page at a path. */
  #kept(hosted: HostedApp, request: Request, path: string): PreviousPage | undefined {
    const [of, address = ''] = Buffer.from(this.#cookies.read(hosted, request, 'previous') ?? '', 'base64url')
      .toString('utf8')
      .split(' ');
    return of === path ? this.#pageAt(hosted, address) : undefined;
  }
}

const pathOf = (address: string) => address.split('?')[0] ?? '';
