import type { DraftChanged, DraftChange } from '@pallmist/api';
import { placesMeet, ProblemError, touchedPlaces, type PatchOperation } from '@pallmist/app';
import { Mutex } from 'async-mutex';
import { Refused } from '../api/problem-details.ts';
import type { Builder } from '../builders/builders.ts';
import type { DraftEvents } from '../builders/draft-events.ts';
import type { DraftChangeRow } from '../store/apps.ts';
import type { Store } from '../store/store.ts';
import type { DraftKeeper } from './draft-keeper.ts';

/** A change that a builder makes to a draft. */
export interface WantedChange {
  /** The revision that the builder has seen. */
  revision: number;
  patch: readonly PatchOperation[];
  /** What it does, in words. */
  what: string;
}

/**
 * Changes drafts by patches, for several builders at once: what touches other places than the changes that the builder has
 * not seen yet is made on top of them; what touches the same is not made, and the builder is asked.
 */
export class DraftChanges {
  readonly #store: Store;
  readonly #keeper: DraftKeeper;
  readonly #events: DraftEvents;
  readonly #locks = new Map<string, Mutex>();

  constructor(store: Store, keeper: DraftKeeper, events: DraftEvents) {
    this.#store = store;
    this.#keeper = keeper;
    this.#events = events;
  }

  /** @throws Refused where there is no such draft, or the patch cannot be carried out */
  change(app: string, wanted: WantedChange, builder: Builder): Promise<DraftChanged> {
    const lock = this.#locks.get(app) ?? new Mutex();
    this.#locks.set(app, lock);
    return lock.runExclusive(() => this.#change(app, wanted, builder));
  }

  async #change(app: string, { revision, patch, what }: WantedChange, builder: Builder): Promise<DraftChanged> {
    const row = await this.#store.apps.draft(app);
    if (row === undefined) throw new Refused(404, `There is no app “${app.slice(0, 60)}”.`);
    if (revision > row.revision) throw new Refused(409, 'The draft has no such revision. Get it again, and make your change to it.');
    const others = (await this.#store.apps.changesSince(app, revision)).map(asChange);
    if (others.length < row.revision - revision || !this.#fits(this.#keeper.data(row), patch, others))
      return { outcome: 'asked', revision: row.revision, others };
    if (patch.some((operation) => operation.path === '/app' || ('from' in operation && operation.from === '/app')))
      throw new Refused(422, 'An app keeps its name: it stands in addresses and in files. Make a copy under another name.');
    let change: ReturnType<DraftKeeper['patch']>;
    try {
      change = this.#keeper.patch(row, patch);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      if (others.length > 0) return { outcome: 'asked', revision: row.revision, others };
      throw new Refused(422, error.message, error.problems);
    }
    const saved = await this.#store.apps
      .saveDraft(app, change.text, row.revision, { by: builder.name, what, patch: JSON.stringify(patch) })
      .catch((error: unknown) => {
        change.undo();
        throw error;
      });
    if (saved === undefined) {
      change.undo();
      throw new Refused(409, 'The draft has changed meanwhile. Get it again, and make your change to it.');
    }
    change.follow(saved);
    this.#events.tell(app, { kind: 'changed', revision: saved.revision, by: builder.name, what, patch });
    return { outcome: 'changed', revision: saved.revision, others };
  }

  /** Whether a patch touches other places than the changes that its builder has not seen. */
  #fits(data: unknown, patch: readonly PatchOperation[], others: readonly DraftChange[]): boolean {
    if (others.length === 0) return true;
    if (data === undefined) return false;
    const mine = touchedPlaces(data, patch);
    return others.every((other) => other.patch !== null && !placesMeet(mine, touchedPlaces(data, other.patch)));
  }
}

/** A change as the log keeps it, for those who are told. */
export const asChange = ({ revision, changedAt, changedBy, what, patch }: DraftChangeRow): DraftChange => ({
  revision,
  at: changedAt,
  by: changedBy,
  what,
  patch: patch === null ? null : (JSON.parse(patch) as PatchOperation[]),
});
