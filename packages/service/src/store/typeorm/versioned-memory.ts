/** Most things that are remembered of one space. */
const mostKept = 2000;

/** Remembers what was read of a space’s records, until one of them changes. */
export class VersionedMemory {
  readonly #version: (space: string) => number;
  readonly #spaces = new Map<string, { version: number; values: Map<string, Promise<unknown>> }>();

  /** @param version another number whenever a record of the space has changed */
  constructor(version: (space: string) => number) {
    this.#version = version;
  }

  /** What is remembered under a name, or what is made now and remembered. */
  get<Value>(space: string, name: string, make: () => Promise<Value>): Promise<Value> {
    const version = this.#version(space);
    let present = this.#spaces.get(space);
    if (present?.version !== version) this.#spaces.set(space, (present = { version, values: new Map() }));
    const { values } = present;
    let value = values.get(name);
    if (value === undefined) {
      if (values.size >= mostKept) values.clear();
      value = make();
      values.set(name, value);
      value.catch(() => values.delete(name));
    }
    return value as Promise<Value>;
  }

  clear(): void {
    this.#spaces.clear();
  }
}
