import type { AddressProblem, LinkValues, Page, PageValues } from '@pallmist/address';
import type { BrowserWindow } from './browser-window.ts';
import type { Cause } from './shared-address.ts';

/** New values for some parameters; `undefined` or `null` returns one to its default. */
export type LiveChanges<P> = P extends Page<string, unknown> ? Partial<LinkValues<P>> : never;

export interface LiveOptions {
  /** The window whose address it is: the browser’s when left out. `windowAt` makes one for a server or a test. */
  window?: BrowserWindow | undefined;
}

export interface ChangeOptions {
  /** Whether Back undoes the change; what the changed parameters declare when left out. */
  step?: boolean | undefined;
  /** Changes in a row with the same mark are one step of the history: the letters of one word, the moves of one drag. */
  gesture?: unknown;
}

export interface Subscribe<P extends Page<string, unknown>> {
  /** Calls a function whenever a value has changed. @returns ends it */
  (listener: (values: PageValues<P>) => void): () => void;
  /** Calls a function whenever this value has changed; equal lists and ranges stay the same object. @returns ends it */
  <Name extends keyof PageValues<P>>(name: Name, listener: (value: PageValues<P>[Name]) => void): () => void;
}

/** The values of one page, in its address: read from it, changed by the program, brought back by Back and Forward. */
export interface Live<P extends Page<string, unknown>> {
  /** The page whose values they are. */
  readonly page: P;
  /**
   * All values by name; the same object until a value changes. At the address of another page, the values stay as they were.
   */
  readonly values: PageValues<P>;
  /**
   * `found`: the page can be shown with these values. `refused`: a value is missing or wrong that the page cannot do
   * without. `elsewhere`: the address belongs to another page.
   */
  readonly status: 'found' | 'refused' | 'elsewhere';
  /** What was wrong with the address. A change takes out of it what was wrong. */
  readonly problems: readonly AddressProblem[];
  /** Why the values changed last. */
  readonly cause: Cause;
  /** Gives `values`. With `subscribe` it is the pair that external-store hooks take; both can be passed on as they are. */
  readonly snapshot: () => PageValues<P>;
  /** One value. */
  get<Name extends keyof PageValues<P>>(name: Name): PageValues<P>[Name];
  /**
   * Changes one or several values: all of them, or none where one is refused. Whoever subscribes is told before it
   * returns; the address follows in the next task, and at the latest 150 milliseconds later.
   * @returns why nothing changed; empty where all is well
   */
  set(changes: LiveChanges<P>, options?: ChangeOptions): readonly AddressProblem[];
  /**
   * Shows values for a time, while something is dragged: they do not enter the address. `set` and `release` end it, and
   * so does Back.
   * @returns why nothing changed; empty where all is well
   */
  hold(changes: LiveChanges<P>): readonly AddressProblem[];
  /** Ends `hold`: the values are those of the address again. */
  release(): void;
  /**
   * The address after some changes, for a link. It keeps the fragment, and parameters that the page does not declare.
   * @throws AddressError where a value cannot be written
   */
  href(changes?: LiveChanges<P>): string;
  /**
   * Opens another address of this page without loading it.
   * @param options whether it is a step; it is when left out
   * @returns false where the address is not one of this page: then nothing has changed
   */
  go(address: string, options?: Pick<ChangeOptions, 'step'>): boolean;
  readonly subscribe: Subscribe<P>;
  /** Writes the address now. */
  flush(): void;
  /** Ends it: nobody is told any more, and changes have no effect. What it had in the address stays there. */
  close(): void;
}
