import type { Request } from 'express';
import type { Settings } from '../settings.ts';

/**
 * The two origins of the service. Drafts have one of their own: what runs in a page of a draft cannot act for the builder who
 * looks at it, since browsers keep origins apart (HTML standard, same origin).
 */
export class Origins {
  readonly #public: string | undefined;
  readonly #drafts: string | undefined;
  readonly #host: string;
  #ports: { service: number; drafts: number } | undefined;

  constructor({ publicUrl, draftUrl, host }: Pick<Settings, 'publicUrl' | 'draftUrl' | 'host'>) {
    this.#public = publicUrl === undefined ? undefined : new URL(publicUrl).origin;
    this.#drafts = draftUrl === undefined ? undefined : new URL(draftUrl).origin;
    this.#host = host;
  }

  /** The ports are known as soon as the service listens. */
  listening(ports: { service: number; drafts: number }): void {
    this.#ports = ports;
  }

  /** Where the console and the published apps are, for the browser that asks. */
  ofConsole(request: Request): string {
    return this.#public ?? this.#beside(request, this.#ports?.service);
  }

  /**
   * Where drafts are, for the browser that asks.
   * @returns undefined behind a proxy of which only the public URL is known
   */
  ofDrafts(request: Request): string | undefined {
    return this.#drafts ?? (this.#public === undefined ? this.#beside(request, this.#ports?.drafts) : undefined);
  }

  /** The origin at which a request has arrived, as its browser names it. */
  reached({ headers }: Request, drafts: boolean): string {
    return (drafts ? this.#drafts : this.#public) ?? `http://${headers.host ?? ''}`;
  }

  /** Whether the public reaches it by https, so that cookies are sent encrypted only. */
  isSecure(drafts: boolean): boolean {
    return (drafts ? this.#drafts : this.#public)?.startsWith('https:') ?? false;
  }

  /** The same host as the browser asked, at another port. */
  #beside({ headers }: Request, port: number | undefined): string {
    const named = URL.canParse(`http://${headers.host ?? ''}`) ? new URL(`http://${headers.host ?? ''}`).hostname : this.#host;
    return new URL(`http://${named}:${String(port ?? 0)}`).origin;
  }
}

/** What to do where drafts have no origin. */
export const noDraftOrigin =
  'Drafts are shown at an address of their own. Give it a name in your proxy that leads to the port for drafts, and set PALLMIST_DRAFT_URL to it.';
