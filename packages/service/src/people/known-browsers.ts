import type { Clock } from '../clock.ts';
import { AttemptLimit } from '../http/attempt-limit.ts';
import type { Sealer } from '../seals/sealer.ts';

const minute = 60_000;
/** Tries for one account from browsers that have never signed in to it: more than one network makes. */
const triesOfAccount = { window: 15 * minute, most: 60 };
/** Days for which a browser that has signed in to an account is known: who tries a password elsewhere does not lock it out. */
const knownDays = 365;
export const knownFor = knownDays * 24 * 60 * minute;

/** What the mark of a known browser is sealed as: no page or parameter is called so. */
const deviceMark = { page: '~sign-in', parameter: '~device' };

/** Limits the tries for each account, of all browsers but those that have signed in to it before. */
export class KnownBrowsers {
  readonly #sealer: Sealer;
  readonly #accounts: AttemptLimit;

  constructor(sealer: Sealer, clock: Clock) {
    this.#sealer = sealer;
    this.#accounts = new AttemptLimit(triesOfAccount, clock.steady);
  }

  /**
   * Counts a try.
   * @param scope what the account belongs to: an app, its draft, the console
   * @param mark of the browser, from its cookie
   * @returns how many seconds to wait where there were too many, and else what to call when the password was right
   */
  async try(scope: string, account: string, mark: string | undefined): Promise<{ wait: number } | { forgive: () => void }> {
    const opened = mark === undefined ? undefined : await this.#sealer.open(scope, mark);
    if (opened?.parameter === deviceMark.parameter && opened.text === account) return { forgive: () => undefined };
    const name = `${scope} ${account}`;
    if (this.#accounts.isReached(name)) return { wait: this.#accounts.waitOf(name) };
    return {
      forgive: () => {
        this.#accounts.forgive(name);
      },
    };
  }

  /** The mark of a browser that has signed in. */
  mark(scope: string, account: string): Promise<string> {
    return this.#sealer.seal(scope, { ...deviceMark, text: account }, knownDays);
  }
}
