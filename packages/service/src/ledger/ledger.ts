import { maskedPath, tellSightings, type CompiledPage, type Finding, type Reading } from '@pallmist/app';
import type { Request } from 'express';
import type { Logger } from 'pino';
import type { WallClock } from '../clock.ts';
import type { LedgerRow, LedgerStore, TriedAddress } from '../store/ledger.ts';
import { WaitingCounts } from './waiting-counts.ts';
import { WaitingTries } from './waiting-tries.ts';

/** Milliseconds between two writings. */
const every = 60_000;
/** Counts that are written in one go: other writes wait for it. */
const atOnce = 200;
/** Days that are kept one by one. */
const daysKept = 90;

const robots = /bot|crawl|spider|slurp|preview|curl|wget|python|monitor/i;
/** Paths that programs try on every site: files, hidden folders, the doors of other software. */
const triedByRobots = /\.[a-z0-9]{2,5}$|\/\.|\/(?:wp-|cgi-bin)/i;

/**
 * Counts what visitors' addresses have, to tell a builder what a change would concern: each parameter by itself, no texts,
 * no keys, no persons. Counts gather in memory and are written each minute and at a stop.
 */
export class Ledger {
  readonly #store: LedgerStore;
  readonly #clock: WallClock;
  readonly #log: Logger;
  readonly #on: boolean;
  readonly #waiting = new WaitingCounts();
  readonly #tries = new WaitingTries();
  #timer: NodeJS.Timeout | undefined;
  #writing: Promise<void> = Promise.resolve();
  #compacted = '';
  #day = { since: -1, text: '' };

  constructor(store: LedgerStore, { ledger }: { ledger: boolean }, log: Logger, clock: WallClock) {
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
  count(app: string, page: CompiledPage, reading: Reading, request: Pick<Request, 'method' | 'headers'>): void {
    if (!this.#counts(request)) return;
    const add = this.#waiting.of({ app, day: this.#today(), page: page.name, referrer: referrerOf(request) });
    add('', reading.former ? 'former' : reading.status, '');
    tellSightings(page, reading, add);
  }

  /** Counts an address that no page has. @param literals segments that stand in clear */
  countUnknown(app: string, literals: ReadonlySet<string>, request: Request): void {
    const path = request.originalUrl.replace(/[?#].*$/s, '');
    if (!this.#counts(request) || triedByRobots.test(path)) return;
    const day = this.#today();
    this.#waiting.of({ app, day, page: '', referrer: referrerOf(request) })(maskedPath(path, literals), 'unknown-page', '');
    this.#tries.add(app, path, day);
  }

  /** What was seen in the last days, with what waits to be written. */
  async lately(app: string, days: number): Promise<LedgerRow[]> {
    await this.flush();
    return this.#store.list(app, this.#dayBefore(days));
  }

  /** Addresses that no page has and that visitors keep trying, the most frequent first. */
  async tried(app: string): Promise<TriedAddress[]> {
    await this.flush();
    return this.#store.tried(app);
  }

  /** Writes the counts that have gathered. If that fails, they wait for the next time, and the log has the error. */
  flush(): Promise<void> {
    return (this.#writing = this.#writing.then(async () => {
      const [rows, tries] = [this.#waiting.take(), this.#tries.take()];
      try {
        while (rows.length > 0 || tries.length > 0) {
          await this.#store.add(rows.slice(0, atOnce), tries.slice(0, atOnce));
          rows.splice(0, atOnce);
          tries.splice(0, atOnce);
        }
      } catch (error) {
        this.#log.error({ err: error }, 'the ledger was not written; its counts wait');
        for (const row of rows) this.#waiting.of(row)(row.parameter, row.state, row.bucket, row.count);
        this.#tries.putBack(tries);
        return;
      }
      const before = this.#dayBefore(daysKept);
      if (this.#compacted === before) return;
      try {
        await this.#store.compact(before);
        this.#compacted = before;
      } catch (error) {
        this.#log.error({ err: error }, 'the days of the ledger were not turned into months');
      }
    }));
  }

  #counts = (request: Pick<Request, 'method' | 'headers'>) =>
    this.#on && request.method === 'GET' && !isRobot(request.headers['user-agent'] ?? '');

  #dayBefore = (days: number) => new Date(this.#clock() - days * millisecondsOfDay).toISOString().slice(0, 10);

  /** Today in UTC; made once a day. */
  #today(): string {
    const since = Math.floor(this.#clock() / millisecondsOfDay);
    if (this.#day.since !== since) this.#day = { since, text: this.#dayBefore(0) };
    return this.#day.text;
  }
}

const millisecondsOfDay = 86_400_000;

/** What was found of the names that browsers and robots give themselves: there are few, and each comes again and again. */
const known = new Map<string, boolean>();
const mostKnown = 1000;

function isRobot(agent: string): boolean {
  let is = known.get(agent);
  if (is !== undefined) return is;
  is = robots.test(agent);
  if (known.size >= mostKnown) known.clear();
  known.set(agent, is);
  return is;
}

function referrerOf({ headers: { referer, host } }: Pick<Request, 'headers'>): string {
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
