import type { Request } from 'express';
import { networkOfRequest } from '../http/network.ts';
import { mostHashesAtOnce } from './passwords.ts';

/** Checks of one network that wait at a time, and networks that wait. */
const mostOfNetwork = 10;
const mostNetworks = 1000;

/**
 * Whose password is checked next: each network has its turn, one check at a time, so that a network that tries many passwords
 * keeps only itself waiting.
 */
export class PasswordTurns {
  /** What waits, by network; the network that had its turn goes to the end. */
  readonly #waiting = new Map<string, (() => void)[]>();
  #running = 0;

  /** @returns what the work gives; `too-many` where so many wait that a person would not wait for it either */
  async during<Result>(request: Request, work: () => Promise<Result>): Promise<Result | 'too-many'> {
    if (this.#running < mostHashesAtOnce) this.#running++;
    else if (!(await this.#turn(networkOfRequest(request)))) return 'too-many';
    try {
      return await work();
    } finally {
      if (!this.#wakeNext()) this.#running--;
    }
  }

  /** @returns whether it waited for its turn, and has it now */
  async #turn(network: string): Promise<boolean> {
    const own = this.#waiting.get(network) ?? [];
    if (own.length >= mostOfNetwork || (own.length === 0 && this.#waiting.size >= mostNetworks)) return false;
    await new Promise<void>((resolve) => {
      own.push(resolve);
      this.#waiting.set(network, own);
    });
    return true;
  }

  /** Hands a turn on. @returns whether anybody waited for it */
  #wakeNext(): boolean {
    const [next] = this.#waiting;
    if (next === undefined) return false;
    const [network, [wake, ...others]] = next;
    this.#waiting.delete(network);
    if (others.length > 0) this.#waiting.set(network, others);
    wake?.();
    return true;
  }
}
