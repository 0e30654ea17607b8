import type { PagePayload } from '@pallmist/app/view';

/** The media type by which the browser asks for a page’s payload instead of its document. */
export const pageDataType = 'application/vnd.pallmist.page-data+json';
/** Milliseconds for which a page that was fetched ahead is fresh enough to be shown. */
const freshFor = 5000;

/** What asking for a page’s payload came to: the payload, or that the service has to answer with a document of its own. */
export type Fetched = { payload: PagePayload } | { document: true };

/**
 * Fetches a page’s payload. @throws when the service does not answer, or fails
 */
async function fetchPayload(address: string, signal?: AbortSignal): Promise<Fetched> {
  // Past the browser’s own cache, which takes longer to ask than the service.
  const response = await fetch(address, {
    headers: { accept: pageDataType },
    redirect: 'manual',
    cache: 'no-store',
    ...(signal ? { signal } : {}),
  });
  // A redirect to sign-in, an unknown record, an address of the past: each has a document that says so.
  if (response.type === 'opaqueredirect' || (response.status >= 400 && response.status < 500)) return { document: true };
  if (!response.ok) throw new Error(`status ${String(response.status)}`);
  if (!response.headers.get('content-type')?.startsWith(pageDataType)) return { document: true };
  return { payload: (await response.json()) as PagePayload };
}

/** Pages that a person seems about to open, fetched ahead. */
export class AheadFetcher {
  readonly #fetched = new Map<string, { at: number; answer: Promise<Fetched> }>();

  /** Begins to fetch an address, unless it was fetched a moment ago. */
  begin(address: string): void {
    const present = this.#fetched.get(address);
    if (present && performance.now() - present.at < freshFor) return;
    if (this.#fetched.size > 20) this.#fetched.clear();
    const answer = fetchPayload(address);
    answer.catch(() => this.#fetched.delete(address));
    this.#fetched.set(address, { at: performance.now(), answer });
  }

  /** What was fetched ahead, once; or else fetched now. */
  take(address: string, signal: AbortSignal): Promise<Fetched> {
    const ahead = this.#fetched.get(address);
    this.#fetched.delete(address);
    return ahead && performance.now() - ahead.at < freshFor ? ahead.answer : fetchPayload(address, signal);
  }

  /** Forgets everything: something has changed. */
  clear(): void {
    this.#fetched.clear();
  }
}
