import type { Problem } from '@pallmist/app';
import type { Logger } from 'pino';
import type { WallClock } from '../clock.ts';
import type { EditionRow } from '../store/apps.ts';
import type { Store } from '../store/store.ts';
import type { DraftKeeper } from './draft-keeper.ts';
import { hostApp, hostBeside, hostChecked, type HostedApp } from './hosted-app.ts';

/** An app whose newest edition cannot be served, and why. */
export interface StuckApp {
  app: string;
  edition: number;
  problems: Problem[];
}

/** The published apps, by their mounts, and the drafts that are looked at. */
export class LiveApps {
  readonly #store: Store;
  readonly #clock: WallClock;
  readonly #log: Logger;
  readonly #keeper: DraftKeeper;
  readonly #byName = new Map<string, HostedApp>();
  readonly #stuck = new Map<string, StuckApp>();
  readonly #beside = new WeakMap<HostedApp, HostedApp>();
  readonly #drafts = new Map<string, { revision: number; hosted: ReturnType<typeof hostApp> }>();
  /** Longest mounts first, so that an app inside another's path is found. */
  #mounts: { mount: string; hosted: HostedApp; former: boolean }[] = [];

  constructor(store: Store, clock: WallClock, log: Logger, keeper: DraftKeeper) {
    this.#keeper = keeper;
    this.#store = store;
    this.#clock = clock;
    this.#log = log;
  }

  /** Serves every app's newest edition. One that cannot be served stops no other. */
  async load(): Promise<void> {
    for (const edition of await this.#store.apps.editions()) await this.serve(edition);
  }

  /** Serves an edition from now on; where it cannot be, that is noted, and the app is not served. */
  async serve({ app, number, source }: EditionRow): Promise<void> {
    const stuck = (problems: Problem[]) => {
      this.#stuck.set(app, { app, edition: number, problems });
      this.#byName.delete(app);
      this.#log.error({ app, edition: number, problems: problems.slice(0, 3).map(({ message }) => message) }, 'an app cannot be served');
    };
    try {
      const hosted = hostApp({ source, edition: number }, this.#clock);
      if ('problems' in hosted) stuck(hosted.problems);
      else {
        await this.#store.records.prepare(app, hosted.definition.collections ?? {});
        this.#byName.set(app, hosted);
        this.#stuck.delete(app);
      }
    } catch (error) {
      const message = error instanceof Error ? error.message : String(error);
      stuck([{ code: 'not-served', severity: 'error', message: `Its tables cannot be made: ${message}` }]);
    }
    this.#sortMounts();
  }

  #sortMounts(): void {
    this.#mounts = [...this.#byName.values()]
      .flatMap((hosted) => {
        const { mount, formerMounts } = hosted.compiled;
        return [{ mount, hosted, former: false }, ...formerMounts.map((one) => ({ mount: one, hosted, former: true }))];
      })
      // An app that stands at a place today goes before one that stood there once.
      .sort((a, b) => b.mount.length - a.mount.length || Number(a.former) - Number(b.former));
  }

  /** Serves an app no more. */
  forget(app: string): void {
    this.#byName.delete(app);
    this.#stuck.delete(app);
    this.#drafts.delete(app);
    this.#sortMounts();
  }

  byName(app: string): HostedApp | undefined {
    return this.#byName.get(app);
  }

  /** How many apps are served. */
  get size(): number {
    return this.#byName.size;
  }

  /** Apps whose newest edition cannot be served. */
  get stuck(): readonly StuckApp[] {
    return [...this.#stuck.values()];
  }

  /** The apps that are served. */
  all(): HostedApp[] {
    return [...this.#byName.values()];
  }

  /** The app whose mount, or former mount, a path is in. */
  at(path: string): HostedApp | undefined {
    return this.#mounts.find(({ mount }) => path === mount || path.startsWith(`${mount}/`))?.hosted;
  }

  /** The published app as builders look at it beside the draft; undefined when there is none. */
  beside(app: string): HostedApp | undefined {
    const hosted = this.#byName.get(app);
    if (hosted === undefined) return undefined;
    let beside = this.#beside.get(hosted);
    if (beside === undefined) this.#beside.set(hosted, (beside = hostBeside(hosted, this.#clock)));
    return beside;
  }

  /** The draft as it is now; undefined when there is none. */
  async draft(app: string): Promise<ReturnType<typeof hostApp> | undefined> {
    const row = await this.#store.apps.draft(app);
    if (!row) return undefined;
    const kept = this.#drafts.get(app);
    if (kept?.revision === row.revision) return kept.hosted;
    const hosted = hostChecked(this.#keeper.checked(row), 0, this.#clock);
    if (!('problems' in hosted)) {
      const { collections = {} } = hosted.definition;
      const { records } = this.#store;
      // Visitors go on with what was computed for them until the draft is published.
      await records.prepare(app, collections, !this.#byName.has(app));
      const space = records.draftSpace(app);
      if (space !== app) await records.prepare(space, collections, true);
    }
    this.#drafts.set(app, { revision: row.revision, hosted });
    return hosted;
  }
}
