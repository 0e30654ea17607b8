interface Events {
  addEventListener(type: string, listener: (event: Event) => void): void;
}

/** The parts of `window` that live state needs; `windowAt` makes one where there is no browser. */
export interface BrowserWindow extends Events {
  readonly location: Pick<Location, 'protocol' | 'host' | 'pathname' | 'search' | 'hash'>;
  readonly history: Pick<History, 'state' | 'pushState' | 'replaceState'>;
  /** Absent on servers; reading it throws where the document may keep nothing. */
  readonly sessionStorage?: Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>;
  readonly performance?: Pick<Performance, 'getEntriesByType'>;
  /** The Navigation API, where the browser has it. */
  readonly navigation?: Events | undefined;
}
