import type { Logger } from 'pino';
import type { WallClock } from '../clock.ts';

/** Milliseconds until what did not go is tried again, doubled each time. */
const firstWait = 30_000;
const mostTries = 8;
/** What is on its way at a time. */
const atOnce = 3;
/** What is taken from the store at a time. */
const batch = 50;
/** Milliseconds until the store is looked at again when looking at it failed: a full disk, say. */
const afterFailure = 5000;
/** How often what is old is removed, in milliseconds. */
const sweepEvery = 60 * 60 * 1000;
const longestTimer = 2 ** 31 - 1;

/** Something that is to be sent, on disk before anybody is told that it is on its way. */
export interface Outgoing {
  number: number;
  /** How often it was tried. */
  tries: number;
}

/** What is noted once something was tried. */
export interface OutgoingNote {
  state: 'waiting' | 'sent' | 'failed';
  tries: number;
  problem: string;
  /** When it is tried next, in milliseconds since 1970. */
  dueAt?: number;
}

/** Where what is to be sent is kept. */
export interface OutboxStore<Item extends Outgoing> {
  /** What is due, the oldest first. */
  due(most: number): Promise<Item[]>;
  /** How many wait, and when the next one is due, in milliseconds since 1970. */
  waiting(): Promise<{ count: number; next: number | undefined }>;
  /** Notes what came of sending. @returns false where another process has noted it meanwhile */
  note(item: Pick<Item, 'number' | 'tries'>, note: OutgoingNote): Promise<boolean>;
  /** Removes what has been kept long enough. @returns how many */
  sweep(): Promise<number>;
}

/** How something is sent. */
export interface SendOptions<Item> {
  /** What is sent, for the log, such as “mail”. */
  what: string;
  /** Sends one. It throws where it did not go; what the error says is kept as the problem. */
  send: (item: Item) => Promise<void>;
}

/**
 * Sends what waits in a store, a few at a time, after a start too, and tries again what did not go. What goes wrong here is
 * logged and tried again, and stops nothing else.
 */
export class Outbox<Item extends Outgoing> {
  readonly #store: OutboxStore<Item>;
  readonly #log: Logger;
  readonly #clock: WallClock;
  readonly #options: SendOptions<Item> | undefined;
  #running: Promise<void> | undefined;
  /** Something was put in while it was being emptied. */
  #again = false;
  #timer: NodeJS.Timeout | undefined;
  #sweeper: NodeJS.Timeout | undefined;
  #closed = false;
  /** What is on its way now is noted by nobody any more: the store is closed. */
  #givenUp = false;
  /** What was taken and could not be noted as sent: it is not sent twice. */
  readonly #unnoted = new Map<number, OutgoingNote>();

  /** @param options left out where nothing can be sent: all stays where it is */
  constructor(store: OutboxStore<Item>, log: Logger, clock: WallClock, options: SendOptions<Item> | undefined) {
    this.#store = store;
    this.#log = log;
    this.#clock = clock;
    this.#options = options;
  }

  /** Begins to send what waits, and to remove what is old. */
  open(): void {
    this.wake();
    const sweep = () => {
      this.#store.sweep().catch((error: unknown) => {
        this.#log.error({ err: error }, 'what is old was not removed from the outbox');
      });
    };
    sweep();
    this.#sweeper = setInterval(sweep, sweepEvery).unref();
  }

  /** Sends what waits: called when something was put in. */
  wake(): void {
    if (this.#options === undefined || this.#closed) return;
    if (this.#running !== undefined) {
      this.#again = true;
      return;
    }
    clearTimeout(this.#timer);
    this.#running = this.#empty(this.#options)
      .catch((error: unknown) => {
        this.#log.error({ err: error }, 'the outbox cannot be emptied');
        this.#wakeIn(afterFailure);
      })
      .finally(() => {
        this.#running = undefined;
        if (this.#again) this.wake();
      });
  }

  /**
   * Waits for what is on its way; what waits still, or is not taken in time, is sent after the next start.
   * @param most milliseconds: a receiver that stalls does not hold up a stop
   */
  async close(most: number): Promise<void> {
    this.#closed = true;
    clearTimeout(this.#timer);
    clearInterval(this.#sweeper);
    let timer: NodeJS.Timeout | undefined;
    const late = new Promise<void>((resolve) => {
      timer = setTimeout(() => {
        this.#givenUp = true;
        resolve();
      }, most);
    });
    await Promise.race([this.#running, late]);
    clearTimeout(timer);
  }

  async #empty(options: SendOptions<Item>): Promise<void> {
    for (;;) {
      this.#again = false;
      const due = this.#closed ? [] : await this.#store.due(batch);
      if (due.length === 0) break;
      const rest = due.values();
      // A few at a time, each taking the next when it is done.
      await Promise.all(
        Array.from({ length: atOnce }, async () => {
          for (const item of rest) if (!this.#closed) await this.#send(item, options);
        }),
      );
    }
    if (this.#closed) return;
    const { next } = await this.#store.waiting();
    if (next !== undefined) this.#wakeIn(Math.max(1000, next - this.#clock()));
  }

  async #send(item: Item, { what, send }: SendOptions<Item>): Promise<void> {
    const { number } = item;
    const tries = item.tries + 1;
    if (!this.#unnoted.has(number)) {
      try {
        await send(item);
        this.#unnoted.set(number, { state: 'sent', tries, problem: '' });
      } catch (error) {
        if (this.#givenUp) return;
        const problem = (error instanceof Error ? error.message : String(error)).slice(0, 500);
        this.#log.warn({ [what]: number, tries, problem }, `a ${what} was not taken`);
        const dueAt = this.#clock() + firstWait * 2 ** item.tries;
        await this.#store.note(item, { state: tries >= mostTries ? 'failed' : 'waiting', tries, problem, dueAt });
        return;
      }
    }
    if (this.#givenUp) return;
    const note = this.#unnoted.get(number);
    if (note !== undefined) await this.#store.note(item, note);
    this.#unnoted.delete(number);
  }

  #wakeIn(milliseconds: number): void {
    if (this.#closed) return;
    clearTimeout(this.#timer);
    this.#timer = setTimeout(
      () => {
        this.wake();
      },
      Math.min(milliseconds, longestTimer),
    ).unref();
  }
}
