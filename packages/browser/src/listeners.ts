interface Entry {
  /** Missing once it is to be told no more. */
  listener: ((value: unknown) => void) | undefined;
  /** The number of the value that it was told last, or could see when it began to listen: writing numbers costs less than values. */
  told: number;
}

/** Who listens to one name. */
interface Group {
  entries: readonly Entry[];
  /** The values that it had since all were told the same, which have numbers in a row, from `first` on. */
  seen: unknown[];
  first: number;
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
  readonly #groups = new Map<string, Group>();
  /** What may have changed, in the order in which it is told. */
  #pending: string[] = [];
  #telling = false;

  constructor(get: (name: string) => unknown) {
    this.#get = get;
  }

  /** @returns ends it */
  add(name: string, listener: (value: unknown) => void): () => void {
    const group = this.#groups.get(name) ?? { entries: [], seen: [], first: 0 };
    this.#groups.set(name, group);
    const entry: Entry = { listener, told: numberOf(this.#get(name), group) };
    group.entries = [...group.entries, entry];
    return () => {
      entry.listener = undefined;
      group.entries = group.entries.filter((other) => other !== entry);
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
      const group = this.#groups.get(name);
      if (group !== undefined) this.#tellGroup(name, group);
    }
    this.#pending = [];
    this.#telling = false;
  }

  #tellGroup(name: string, group: Group): void {
    const pending = this.#pending;
    let value = this.#get(name);
    let number = numberOf(value, group);
    let noted = pending.length;
    // Whoever begins to listen meanwhile knows the newest.
    for (const entry of group.entries) {
      if (entry.told === number) continue;
      entry.told = number;
      try {
        entry.listener?.(value);
      } catch (error) {
        report(error);
      }
      if (pending.length === noted) continue;
      // It changed something: all others are told the newest.
      noted = pending.length;
      value = this.#get(name);
      number = numberOf(value, group);
    }
    group.seen = [value];
    group.first = number;
  }

  end(): void {
    this.#groups.clear();
  }
}

/** The number of a value, the same for the same value. */
function numberOf(value: unknown, { seen, first }: Group): number {
  const at = seen.indexOf(value);
  return first + (at < 0 ? seen.push(value) - 1 : at);
}

/** Reports an error as one that nobody caught, without stopping what goes on. */
function report(error: unknown): void {
  queueMicrotask(() => {
    throw error;
  });
}
