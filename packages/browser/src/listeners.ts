interface Entry {
  /** Missing once it is to be told no more. */
  listener: ((value: unknown) => void) | undefined;
  /** What it was told last, or could see when it began to listen. */
  told: unknown;
}

/** More than this in one go can only be listeners that answer each other without end. */
const mostRounds = 1000;

/**
 * Who is told when something changes. A listener that throws keeps nobody else from being told; one that changes
 * something has everybody told of the newest, once.
 */
export class Listeners {
  /** The present state of what has a name. */
  readonly #get: (name: string) => unknown;
  readonly #entries = new Map<string, Entry[]>();
  /** What may have changed, in the order in which it is told. */
  #pending: string[] = [];
  #telling = false;

  constructor(get: (name: string) => unknown) {
    this.#get = get;
  }

  /** @returns ends it */
  add(name: string, listener: (value: unknown) => void): () => void {
    const entry: Entry = { listener, told: this.#get(name) };
    const entries = this.#entries.get(name);
    if (entries === undefined) this.#entries.set(name, [entry]);
    else entries.push(entry);
    return () => {
      entry.listener = undefined;
      this.#entries.set(
        name,
        (this.#entries.get(name) ?? []).filter((other) => other !== entry),
      );
    };
  }

  /** Tells whom it concerns. Called by one of them, it only notes what they are to be told next. */
  tell(names: readonly string[]): void {
    const pending = this.#pending;
    pending.push(...names);
    if (this.#telling) return;
    this.#telling = true;
    for (let i = 0; i < pending.length; i++) {
      const name = pending[i] as string;
      if (i > mostRounds) {
        report(new Error('Listeners change values without end.'));
        break;
      }
      // Whoever begins to listen meanwhile knows the newest.
      const entries = this.#entries.get(name) ?? [];
      for (let at = 0, { length } = entries; at < length;) at = this.#tellFrom(at, length, entries, this.#get(name));
    }
    this.#pending = [];
    this.#telling = false;
  }

  /** @returns the place of the first who is to be told something newer */
  #tellFrom(at: number, length: number, entries: readonly Entry[], value: unknown): number {
    const { length: pending } = this.#pending;
    while (at < length) {
      const entry = entries[at++] as Entry;
      if (value === entry.told) continue;
      entry.told = value;
      try {
        entry.listener?.(value);
      } catch (error) {
        report(error);
      }
      if (this.#pending.length !== pending) break;
    }
    return at;
  }

  end(): void {
    this.#entries.clear();
  }
}

/** Reports an error as one that nobody caught, without stopping what goes on. */
function report(error: unknown): void {
  queueMicrotask(() => {
    throw error;
  });
}
