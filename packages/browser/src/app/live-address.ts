import type { Values } from '@pallmist/address/declare';
import { type AppChange, changeValues, type CompiledApp, readAddress, type Reading, writeAddress } from '@pallmist/address/pages';
import type { BrowserWindow } from '../browser-window.ts';
import { SharedAddress, type AddressPart, type Cause } from '../shared-address.ts';

/** Told when the values have changed: by `change`, by Back or Forward, or by another program. */
export type Listener = (reading: Reading, cause: Cause) => void;

/**
 * The address of a whole app with many pages, live: values can be read and changed, the address follows, and Back and
 * Forward bring values back. What the app does not declare leaves the address with the next change.
 */
export class LiveAddress implements AddressPart {
  readonly order = '/';
  readonly #app: CompiledApp;
  readonly #shared: SharedAddress;
  readonly #listeners = new Set<Listener>();
  #reading: Reading;
  /** Path and query of what it shows. */
  #address: string;

  /** @param stateOfStep what a new entry of the history is to hold; what the present one holds when left out */
  constructor(app: CompiledApp, window: BrowserWindow, stateOfStep?: () => unknown) {
    this.#app = app;
    this.#shared = SharedAddress.of(window);
    if (stateOfStep !== undefined) this.#shared.stateOfStep = stateOfStep;
    const here = this.#shared.join(this);
    this.#address = withoutFragment(here);
    this.#reading = readAddress(app, here);
    this.#dropWhatActsOnce();
  }

  /** How the present address is read. */
  get reading(): Reading {
    return this.#reading;
  }

  /**
   * Changes values of the present page; listeners are told before the address is written.
   * @param gesture changes in a row with the same mark are one step of the history: the letters of one word, say
   * @returns what came of it; its `written` holds the problems when a value was refused, and then nothing has changed
   */
  change(changes: Values, gesture?: unknown): AppChange | undefined {
    const { page, values } = this.#reading;
    if (page === undefined) return undefined;
    const change = changeValues(this.#app, page, values, changes);
    const { address } = change.written;
    if (address === undefined || change.entry === 'none') return change;
    this.#shared.beforeChange(change.entry === 'new');
    this.#address = address;
    this.#shared.changed(change.entry === 'new', gesture);
    this.#take(readAddress(this.#app, address), 'change');
    return change;
  }

  /**
   * Opens another address of the app, of any page, without loading anything.
   * @param step whether Back leads back
   */
  open(address: string, step = true): void {
    this.#shared.go(address, step, () => true);
  }

  /** @returns a function that ends it */
  subscribe(listener: Listener): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  /** Writes a waiting address now. */
  flush(): void {
    this.#shared.flush();
  }

  close(): void {
    this.#shared.leave(this);
    this.#listeners.clear();
  }

  address(): string {
    return this.#address;
  }

  owns(): boolean {
    return true;
  }

  follow(here: string, cause: Cause): void {
    this.#address = withoutFragment(here);
    this.#take(readAddress(this.#app, here), cause);
  }

  /** Takes values that act once out of the address, so that reload and sharing do not repeat them; here they still hold. */
  #dropWhatActsOnce(): void {
    const { page, status, values, parameters } = this.#reading;
    const once = this.#app.pages.get(page ?? '');
    if (page === undefined || status !== 'found' || once?.leavesAddress !== true) return;
    const leaves = (name: string) => once.byName.get(name)?.declaration.once === true || once.byName.get(name)?.remembered === true;
    if (!parameters.some(({ name, text }) => text !== undefined && leaves(name))) return;
    const { address } = writeAddress(this.#app, page, values, { afterArrival: true });
    if (address === undefined) return;
    this.#address = address;
    this.#shared.changed(false);
  }

  #take(reading: Reading, cause: Cause): void {
    this.#reading = reading;
    for (const listener of this.#listeners) listener(reading, cause);
  }
}

const withoutFragment = (address: string) => address.replace(/#.*/s, '');
