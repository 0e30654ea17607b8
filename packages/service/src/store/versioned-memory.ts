/** Remembers what was read of an app's records, until one of them is another. */
export class VersionedMemory {
  readonly #version: (app: string) => number;
  readonly #apps = new Map<string, { version: number; values: Map<string, unknown> }>();

  /** @param version another number whenever a record of the app has changed */
  constructor(version: (app: string) => number) {
    this.#version = version;
  }

  /** What is remembered under a name, or what is made now and remembered. */
  get<Value>(app: string, name: string, make: () => Value): Value {
    const version = this.#version(app);
    let present = this.#apps.get(app);
    if (present?.version !== version) this.#apps.set(app, (present = { version, values: new Map() }));
    if (!present.values.has(name)) present.values.set(name, make());
    return present.values.get(name) as Value;
  }

  clear(): void {
    this.#apps.clear();
  }
}
