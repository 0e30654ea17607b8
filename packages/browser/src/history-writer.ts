/** The parts of `window` that writing the history needs; tests may hand in their own. */
export type HistoryWindow = Pick<
  Window,
  'history' | 'location' | 'addEventListener' | 'removeEventListener' | 'setTimeout' | 'clearTimeout'
>;

/** Milliseconds that replacements are gathered before the address is written. */
const gatherFor = 120;
/** Milliseconds until a refused write is tried again, doubled at each refusal up to the greatest. */
const firstRetry = 500;
const greatestRetry = 8000;

/**
 * Writes addresses into the browser's history, so that what is on the screen never waits for it. Replacements are
 * gathered; a browser that refuses (they limit how often the history may change) is asked again later; the last
 * address is never lost, and it is written before the page is left.
 */
export class HistoryWriter {
  readonly #window: HistoryWindow;
  readonly #stateOfStep: () => unknown;
  #pending: { address: string; step: boolean } | undefined;
  #timer: number | undefined;
  #retry = firstRetry;
  readonly #flush = () => {
    this.flush();
  };

  /** @param stateOfStep what a new entry of the history is to hold; nothing when left out */
  constructor(window: HistoryWindow, stateOfStep: () => unknown = () => null) {
    this.#window = window;
    this.#stateOfStep = stateOfStep;
    window.addEventListener('pagehide', this.#flush);
    window.addEventListener('beforeunload', this.#flush);
  }

  /** @param step whether Back undoes it */
  write(address: string, step: boolean): void {
    // A step begins from an address that is written, or Back would lead to an older one.
    if (step && this.#pending) this.flush();
    this.#pending = { address, step: step || (this.#pending?.step ?? false) };
    if (step) this.flush();
    else this.#schedule(gatherFor);
  }

  /** Writes what waits, now. */
  flush(): void {
    const pending = this.#pending;
    if (pending === undefined) return;
    this.#clear();
    try {
      if (pending.step) this.#window.history.pushState(this.#stateOfStep(), '', pending.address);
      else this.#window.history.replaceState(this.#window.history.state, '', pending.address);
      this.#pending = undefined;
      this.#retry = firstRetry;
    } catch {
      this.#schedule(this.#retry);
      this.#retry = Math.min(this.#retry * 2, greatestRetry);
    }
  }

  /** Forgets what waits: the person has gone elsewhere in the history. */
  forget(): void {
    this.#pending = undefined;
    this.#clear();
  }

  close(): void {
    this.flush();
    this.#clear();
    this.#window.removeEventListener('pagehide', this.#flush);
    this.#window.removeEventListener('beforeunload', this.#flush);
  }

  #schedule(delay: number): void {
    this.#timer ??= this.#window.setTimeout(this.#flush, delay);
  }

  #clear(): void {
    if (this.#timer !== undefined) this.#window.clearTimeout(this.#timer);
    this.#timer = undefined;
  }
}
