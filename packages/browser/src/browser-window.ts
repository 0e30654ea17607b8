interface Events {
  addEventListener(type: string, listener: (event: Event) => void): void;
}

/** The parts of `window` that live state needs; `windowAt` makes one where there is no browser. */
export interface BrowserWindow extends Events {
  readonly location: Pick<Location, 'protocol' | 'host' | 'pathname' | 'search' | 'hash'> & { reload?(): void };
  readonly history: Pick<History, 'state' | 'pushState' | 'replaceState'>;
  /** The Navigation API, where the browser has it. */
  readonly navigation?: Events | undefined;
}
