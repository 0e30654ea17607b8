import { maskedPath, sightings, type CompiledPage, type Finding, type Reading } from '@pallmist/app';
import type { Request } from 'express';
import type { Logger } from 'pino';
import type { Clock } from '../clock.ts';
import { utcDay } from '../clock.ts';
import type { LedgerRow, LedgerStore } from '../store/ledger.ts';

/** Milliseconds between two writings. */
const every = 60_000;
/** Most different counts that wait to be written; what is new beyond them is counted together. */
const mostWaiting = 5000;
/** Days that are kept one by one. */
const daysKept = 90;

const robots = /bot|crawl|spider|slurp|preview|curl|wget|python|monitor/i;

/**
 * Counts what visitors' addresses have, to tell a builder what a change would concern: each parameter by itself, no texts,
 * no keys, no persons. Counts gather in memory and are written each minute and at a stop.
 */
export class Ledger {
  readonly #store: LedgerStore;
  readonly #clock: Clock;
  readonly #log: Logger;
  readonly #on: boolean;
  #waiting = new Map<string, LedgerRow>();
  #timer: NodeJS.Timeout | undefined;
  #writing: Promise<void> = Promise.resolve();
  #compacted = '';

  constructor(store: LedgerStore, { ledger }: { ledger: boolean }, log: Logger, clock: Clock) {
    this.#store = store;
    this.#clock = clock;
    this.#log = log;
    this.#on = ledger;
  }

  open(): void {
    if (!this.#on) return;
    this.#timer = setInterval(() => void this.flush(), every);
    this.#timer.unref();
  }

  async close(): Promise<void> {
    clearInterval(this.#timer);
    await this.flush();
  }

  /** Counts an address that was read as one of a page. */
  count(app: string, page: CompiledPage, reading: Reading, request: Request): void {
    if (!this.#counts(request)) return;
    const referrer = referrerOf(request);
    this.#add(app, page.name, '', reading.former ? 'former' : reading.status, '', referrer);
    for (const { parameter, state, bucket } of sightings(page, reading)) this.#add(app, page.name, parameter, state, bucket, referrer);
  }

  /** Counts an address that no page has. @param literals segments that stand in clear */
  countUnknown(app: string, literals: ReadonlySet<string>, request: Request): void {
    const path = request.originalUrl.replace(/[?#].*$/s, '');
    // What robots try says nothing of the app's links.
    if (!this.#counts(request) || /\.[a-z0-9]{2,5}$/i.test(path)) return;
    this.#add(app, '', maskedPath(path, literals), 'unknown-page', '', referrerOf(request));
  }

  /** What was seen in the last days, with what waits to be written. */
  async lately(app: string, days: number): Promise<LedgerRow[]> {
    const since = new Date(this.#clock() - days * 86_400_000).toISOString().slice(0, 10);
    await this.flush();
    return this.#store.list(app, since);
  }

  /** Writes the counts that have gathered. If that fails, they are lost and the log has the error. */
  flush(): Promise<void> {
    return (this.#writing = this.#writing.then(async () => {
      const rows = [...this.#waiting.values()];
      this.#waiting = new Map();
      try {
        await this.#store.add(rows);
        const before = new Date(this.#clock() - daysKept * 86_400_000).toISOString().slice(0, 10);
        if (this.#compacted !== before) await this.#store.compact(before);
        this.#compacted = before;
      } catch (error) {
        this.#log.error({ err: error }, 'the ledger was not written');
      }
    }));
  }

  #counts = (request: Request) => this.#on && request.method === 'GET' && !robots.test(request.headers['user-agent'] ?? '');

  #add(app: string, page: string, parameter: string, state: string, bucket: string, referrer: string): void {
    const day = utcDay(this.#clock);
    const key = `${app}\n${day}\n${page}\n${parameter}\n${state}\n${bucket}\n${referrer}`;
    const known = this.#waiting.get(key);
    if (known !== undefined) known.count++;
    else if (this.#waiting.size < mostWaiting || bucket === '(others)')
      this.#waiting.set(key, { app, day, page, parameter, state, bucket, referrer, count: 1 });
    else this.#add(app, page, page === '' ? '*' : parameter, 'others', '(others)', 'none');
  }
}

function referrerOf({ headers: { referer, host } }: Request): string {
  if (referer === undefined) return 'none';
  const from = /^https?:\/\/([^/?#]+)/i.exec(referer)?.[1];
  if (from === undefined) return 'other';
  return from === host ? 'own' : /mail|outlook/i.test(from) ? 'mail' : 'other';
}

/** How many visits a finding concerns: those to its page, with the parameter or without it as it says. */
export function visitsOf({ page, parameter, kind }: Pick<Finding, 'page' | 'parameter' | 'kind'>, seen: readonly LedgerRow[]): number {
  const isConcerned = (row: LedgerRow) => {
    if (kind === 'app-moved') return row.page !== '' && row.parameter === '';
    if (row.page !== page) return false;
    if (parameter === undefined || kind === 'missing-value') return row.parameter === '';
    if (row.parameter !== parameter) return false;
    return kind === 'other-default' ? row.state === 'absent' : row.state === 'given' || row.state === 'corrected' || row.state === 'blank';
  };
  return seen.filter(isConcerned).reduce((sum, { count }) => sum + count, 0);
}
