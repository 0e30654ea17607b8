import type { Request, Response } from 'express';
import { networkOfRequest } from './network.ts';

export interface AttemptLimits {
  /** Milliseconds in which attempts are counted. */
  window: number;
  /** Most attempts within it. */
  most: number;
}

/** Names that are counted at a time; beyond that the oldest are forgotten, and the memory stays bounded. */
const mostNames = 50_000;

/** Notices who tries something too often. Nobody is locked out for ever: the count begins again when its time is over. */
export class AttemptLimit {
  readonly #limits: AttemptLimits;
  /** Milliseconds that only ever go on. */
  readonly #steady: () => number;
  readonly #counts = new Map<string, { count: number; until: number }>();

  /** @param steady milliseconds of a monotonic clock: when the system time is set back, nobody has to wait longer */
  constructor(limits: AttemptLimits, steady: () => number) {
    this.#limits = limits;
    this.#steady = steady;
  }

  /** Counts an attempt. @returns whether there were too many */
  isReached(name: string): boolean {
    const now = this.#steady();
    let entry = this.#counts.get(name);
    if (entry === undefined || entry.until <= now) {
      this.#counts.delete(name);
      this.#forget(now);
      entry = { count: 0, until: now + this.#limits.window };
      this.#counts.set(name, entry);
    }
    entry.count++;
    return entry.count > this.#limits.most;
  }

  /** Whether the next attempt would be too many; counts nothing. */
  isFull(name: string): boolean {
    const entry = this.#counts.get(name);
    return entry !== undefined && entry.until > this.#steady() && entry.count >= this.#limits.most;
  }

  /** Counts an attempt from the network of a request, and tells the answer how long to wait. */
  isReachedBy(request: Request, response: Response): boolean {
    const network = networkOfRequest(request);
    const reached = this.isReached(network);
    if (reached) this.tellWait(network, response);
    return reached;
  }

  /** Says when to try again (RFC 9110, Retry-After). */
  tellWait(name: string, response: Response): void {
    response.setHeader('retry-after', String(this.waitOf(name)));
  }

  /** Seconds until attempts are counted from the beginning again. */
  waitOf(name: string): number {
    const until = this.#counts.get(name)?.until ?? this.#steady();
    return Math.max(1, Math.ceil((until - this.#steady()) / 1000));
  }

  /** An attempt that was right does not count. */
  forgive(name: string): void {
    const entry = this.#counts.get(name);
    if (entry !== undefined && entry.count > 0) entry.count--;
  }

  /** All names are counted for the same time, so that those that stand first are over first. */
  #forget(now: number): void {
    for (const [name, { until }] of this.#counts) {
      if (until > now && this.#counts.size < mostNames) return;
      this.#counts.delete(name);
    }
  }
}
