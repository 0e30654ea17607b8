import { monitorEventLoopDelay } from 'node:perf_hooks';

/** Milliseconds of work of this process that a request waits for before it is told that the service is busy. */
const longestWait = 400;
/** Milliseconds that nobody waits longer, however little of the machine this process gets. */
const patience = 8000;
/** Where fewer wait, each is worked on, however long that takes. */
const fewWaiting = 8;
/** Requests that wait for their turn at a time. */
const mostWaiting = 2000;
/** Milliseconds of work after which the event loop goes on: new requests are heard of, and health answers. */
const budget = 25;
/** Milliseconds between two looks at how late the event loop is. */
const measureEvery = 500;

/** How much each request counts for what requests take of late, and milliseconds beyond which one counts as no more. */
const weight = 0.05;
const longestCounted = 100;

/** A moment, by the clock and by the processor time that this process has had. */
interface Moment {
  clock: number;
  processor: number;
}

function present(): Moment {
  const { user, system } = process.cpuUsage();
  return { clock: performance.now(), processor: (user + system) / 1000 };
}

/**
 * Milliseconds that this process has worked since a moment. Time in which other processes had the machine does not count:
 * that the neighbours are busy is no reason to turn visitors away. Nor does it count twice what two threads did side by side.
 */
const workSince = (then: Moment, now = present()): number => Math.min(now.clock - then.clock, now.processor - then.processor);

interface Waiting {
  since: Moment;
  go: (turn: 'work' | 'shed') => void;
}

/**
 * Lets requests be worked on one after the other as long as the event loop is not held up by it, and not too many at a
 * time. The others wait for their turn; those that wait too long are told that the service is busy, which costs next to
 * nothing: so it goes on answering at whatever load.
 */
export class LoadGuard {
  readonly #most: number;
  readonly #queue: Waiting[] = [];
  readonly #delay = monitorEventLoopDelay({ resolution: 10 });
  readonly #measurer: NodeJS.Timeout;
  #underWay = 0;
  #late = 0;
  /** Milliseconds that a request took of late. */
  #meanWork = 1;
  /** When the first request of this turn of the event loop began; undefined where there was none yet. */
  #turnBegan: number | undefined;

  /** @param most requests that are worked on at the same time */
  constructor(most: number) {
    this.#most = most;
    this.#delay.enable();
    this.#measurer = setInterval(() => {
      this.#late = Math.max(0, this.#delay.mean / 1e6 - 10);
      this.#delay.reset();
    }, measureEvery).unref();
  }

  /** How late the event loop was of late, in milliseconds. */
  get delay(): number {
    return Number.isFinite(this.#late) ? this.#late : 0;
  }

  /** Whether a request that comes now would wait too long, so that it need not even be looked at. */
  get isOverloaded(): boolean {
    return this.#queue.length > fewWaiting && this.#queue.length * this.#meanWork > longestWait;
  }

  /** Does the work when its turn comes; `shed` where it does not come in time, and nothing was done. */
  async during(work: () => Promise<void>): Promise<'worked' | 'shed'> {
    if (!this.#hasRoom() || this.#queue.length > 0) {
      if (this.#queue.length >= mostWaiting) return 'shed';
      const turn = await new Promise<'work' | 'shed'>((resolve) => {
        this.#queue.push({ since: present(), go: resolve });
      });
      if (turn === 'shed') return 'shed';
    } else this.#underWay++;
    const began = present();
    try {
      await work();
      return 'worked';
    } finally {
      this.#meanWork += (Math.min(workSince(began), longestCounted) - this.#meanWork) * weight;
      this.#underWay--;
      this.#next();
    }
  }

  /** Waits for something that is worked on elsewhere: meanwhile another request has the turn. */
  async aside<Result>(work: () => Promise<Result>): Promise<Result> {
    this.#underWay--;
    this.#next();
    try {
      return await work();
    } finally {
      this.#underWay++;
    }
  }

  close(): void {
    clearInterval(this.#measurer);
    this.#delay.disable();
  }

  /** Whether another request can begin in this turn of the event loop. */
  #hasRoom(): boolean {
    const now = performance.now();
    if (this.#turnBegan === undefined) {
      this.#turnBegan = now;
      setImmediate(() => {
        this.#turnBegan = undefined;
        this.#next();
      });
    }
    return this.#underWay < this.#most && now - this.#turnBegan < budget;
  }

  /** Gives the turn to the one that waits longest, and tells those that have waited too long. */
  #next(): void {
    if (this.#queue.length === 0) return;
    const now = present();
    const isTooLate = ({ since }: Waiting) => workSince(since, now) > longestWait || now.clock - since.clock > patience;
    while (this.#queue[0] !== undefined && this.#queue.length > fewWaiting && isTooLate(this.#queue[0])) this.#queue.shift()?.go('shed');
    if (this.#queue.length === 0 || !this.#hasRoom()) return;
    this.#underWay++;
    this.#queue.shift()?.go('work');
  }
}
