import type { Values } from '@pallmist/address/declare';
import { type AppChange, changeValues, type CompiledApp, readAddress, type Reading, writeAddress } from '@pallmist/address/pages';
import { HistoryWriter, type HistoryWindow } from './history-writer.ts';

/** Told when the values have changed: by `change`, or because the person went Back or Forward. */
export type Listener = (reading: Reading, cause: 'change' | 'history') => void;

/**
 * The state that a page keeps in its address, live: values can be read and changed, the address follows, and Back and
 * Forward bring values back. It draws nothing, so any front end can stand on it.
 */
export class LiveAddress {
  readonly #app: CompiledApp;
  readonly #window: HistoryWindow;
  readonly #writer: HistoryWriter;
  readonly #listeners = new Set<Listener>();
  #reading: Reading;
  /** The mark of the change before. */
  #coalesceKey: unknown;
  readonly #moved = () => {
    this.#writer.forget();
    this.#coalesceKey = undefined;
    this.#take(this.#readLocation(), 'history');
  };

  /** @param stateOfStep what a new entry of the history is to hold; nothing when left out */
  constructor(app: CompiledApp, window: HistoryWindow, stateOfStep?: () => unknown) {
    this.#app = app;
    this.#window = window;
    this.#writer = new HistoryWriter(window, stateOfStep);
    this.#reading = this.#readLocation();
    window.addEventListener('popstate', this.#moved);
    this.#dropWhatActsOnce();
  }

  /** How the present address is read. */
  get reading(): Reading {
    return this.#reading;
  }

  /**
   * Changes values of the present page; listeners are told before the address is written.
   * @param coalesceKey changes in a row with the same mark are one step of the history: the letters of one word, say
   * @returns what came of it; its `written` holds the problems when a value was refused, and then nothing has changed
   */
  change(changes: Values, coalesceKey?: unknown): AppChange | undefined {
    const { page, values } = this.#reading;
    if (page === undefined) return undefined;
    const change = changeValues(this.#app, page, values, changes);
    const { address } = change.written;
    if (address === undefined || change.entry === 'none') return change;
    this.#take(readAddress(this.#app, address), 'change');
    const goesOn = coalesceKey !== undefined && coalesceKey === this.#coalesceKey;
    this.#coalesceKey = coalesceKey;
    this.#writer.write(address, change.entry === 'new' && !goesOn);
    return change;
  }

  /**
   * Opens another address of the app, of any page, without loading anything.
   * @param step whether Back leads back
   */
  open(address: string, step = true): void {
    this.#take(readAddress(this.#app, address), 'change');
    this.#writer.write(address, step);
  }

  /** @returns a function that ends it */
  subscribe(listener: Listener): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  /** Writes a waiting address now. */
  flush(): void {
    this.#writer.flush();
  }

  close(): void {
    this.#writer.close();
    this.#window.removeEventListener('popstate', this.#moved);
    this.#listeners.clear();
  }

  /** Takes values that act once out of the address, so that reload and sharing do not repeat them; here they still hold. */
  #dropWhatActsOnce(): void {
    const { page, status, values, parameters } = this.#reading;
    const once = this.#app.pages.get(page ?? '');
    if (page === undefined || status !== 'found' || once?.leavesAddress !== true) return;
    const leaves = (name: string) => once.byName.get(name)?.declaration.once === true || once.byName.get(name)?.remembered === true;
    if (!parameters.some(({ name, text }) => text !== undefined && leaves(name))) return;
    const { address } = writeAddress(this.#app, page, values, { afterArrival: true });
    if (address !== undefined) this.#writer.write(address + this.#window.location.hash, false);
  }

  #readLocation(): Reading {
    const { pathname, search, hash } = this.#window.location;
    return readAddress(this.#app, pathname + search + hash);
  }

  #take(reading: Reading, cause: 'change' | 'history'): void {
    this.#reading = reading;
    for (const listener of this.#listeners) listener(reading, cause);
  }
}
