import type { Store } from '../store/open-store.ts';
import { hostApp, type HostedApp } from './hosted-app.ts';

/** The published apps, by their mounts, and the drafts that somebody looks at. */
export class LiveApps {
  readonly #store: Store;
  readonly #byName = new Map<string, HostedApp>();
  readonly #drafts = new Map<string, { revision: number; hosted: ReturnType<typeof hostApp> }>();
  /** Longest mounts first, so that an app inside another's path is found. */
  #mounts: { mount: string; hosted: HostedApp }[] = [];

  constructor(store: Store) {
    this.#store = store;
  }

  /** Reads every app's newest edition. */
  async load(): Promise<void> {
    for (const edition of await this.#store.apps.editions()) this.put(edition.app, edition.source);
  }

  /** Serves this text as the app's edition from now on. */
  put(app: string, source: string): void {
    const hosted = hostApp(source, false);
    // What was published has been checked; a later Pallmist that reads it otherwise leaves it out rather than fail.
    if ('problems' in hosted) return;
    this.#store.writer.prepare(app, hosted.definition.collections ?? {});
    this.#byName.set(app, hosted);
    this.#mounts = [...this.#byName.values()]
      .map((entry) => ({ mount: entry.compiled.mount, hosted: entry }))
      .sort((a, b) => b.mount.length - a.mount.length);
  }

  byName(app: string): HostedApp | undefined {
    return this.#byName.get(app);
  }

  /** How many apps are published. */
  get size(): number {
    return this.#byName.size;
  }

  /** Names and mounts of the published apps. */
  all(): HostedApp[] {
    return [...this.#byName.values()];
  }

  /** The app whose mount a path is in. */
  at(path: string): HostedApp | undefined {
    return this.#mounts.find(({ mount }) => path === mount || path.startsWith(`${mount}/`))?.hosted;
  }

  /** The draft as it is now; undefined when there is none. */
  async draft(app: string): Promise<ReturnType<typeof hostApp> | undefined> {
    const row = await this.#store.apps.draft(app);
    if (!row) return undefined;
    const kept = this.#drafts.get(app);
    if (kept?.revision === row.revision) return kept.hosted;
    const hosted = hostApp(row.source, true);
    if (!('problems' in hosted)) {
      const { collections = {} } = hosted.definition;
      this.#store.writer.prepare(app, collections);
      this.#store.trials.follow(app, collections);
    }
    this.#drafts.set(app, { revision: row.revision, hosted });
    return hosted;
  }
}
