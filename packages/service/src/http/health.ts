import type { Readiness } from '@pallmist/api';
import type { ServiceParts } from '../service-parts.ts';
import { version } from '../version.ts';
import type { LoadGuard } from './load-guard.ts';

/** Milliseconds that the database has to answer. */
const longestProbe = 2000;

/** Milliseconds for which an answer of the database holds: each costs a write, and anybody may ask. */
const holds = 1000;

/** Asks the database whether it can be read and written, at most once a second. */
export class DatabaseProbe {
  readonly #ask: () => Promise<void>;
  readonly #steady: () => number;
  #asked = -Infinity;
  #answer: Promise<string | undefined> = Promise.resolve(undefined);

  constructor({ store, clock }: Pick<ServiceParts, 'store' | 'clock'>) {
    this.#ask = () => store.probe();
    this.#steady = clock.steady;
  }

  /** @returns what is wrong; undefined where nothing is */
  problem(): Promise<string | undefined> {
    const now = this.#steady();
    if (now - this.#asked >= holds) {
      this.#asked = now;
      this.#answer = probe(this.#ask);
    }
    return this.#answer;
  }
}

/** Whether the service can do its work: read and write, serve its apps, send its mails. */
export async function checkReadiness({ store, live, settings }: ServiceParts, asked: DatabaseProbe, guard: LoadGuard): Promise<Readiness> {
  const database = await asked.problem();
  const mails = database === undefined ? await store.mails.waiting() : { count: 0 };
  const stuck = live.stuck.map(({ app, edition, problems }) => ({
    app,
    edition,
    problem: problems[0]?.message ?? 'It cannot be read.',
  }));
  return {
    status: database === undefined ? 'ready' : 'not-ready',
    version,
    database: database === undefined ? { ok: true } : { ok: false, problem: database },
    apps: { served: live.size, stuck },
    mails: { waiting: mails.count, sending: settings.smtpUrl !== undefined },
    loopDelayMs: Math.round(guard.delay),
  };
}

/** @returns what went wrong, without anything secret; undefined where nothing did */
async function probe(work: () => Promise<void>): Promise<string | undefined> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<string>((resolve) => {
    timer = setTimeout(() => {
      resolve('The database does not answer.');
    }, longestProbe);
  });
  const asked = work().then(
    () => undefined,
    (error: unknown) => (error instanceof Error ? (error.message.split('\n')[0] ?? '') : 'The database cannot be used.'),
  );
  const problem = await Promise.race([asked, late]);
  clearTimeout(timer);
  return problem;
}
