import type { BodyOf, FoundRecords } from '@pallmist/api';
import { client, explain } from '../service/calls.ts';

type Change = BodyOf<'changeRecords'>['changes'][number];

type Shown = FoundRecords['records'][number];

/** Changes that are sent at a time. */
const batch = 200;

/** What came of a change: the record’s key, or what is wrong, by field where it is one field’s. */
export interface ChangeResult {
  key?: string | undefined;
  problem?: string | undefined;
  problems?: Record<string, string> | undefined;
}

/** The records of a collection as a grid shows them. */
export class GridRecords {
  found: FoundRecords | undefined = $state.raw();
  failure: string | undefined = $state();
  /** How many of a long change are done. */
  done = $state(0);
  total = $state(0);
  #asked = 0;
  readonly #app: string;
  readonly #collection: string;

  constructor(app: string, collection: string) {
    this.#app = app;
    this.#collection = collection;
  }

  async load(query: BodyOf<'findRecords'>): Promise<void> {
    const mine = ++this.#asked;
    try {
      const found = await client.call('findRecords', { app: this.#app, collection: this.#collection }, query);
      if (mine !== this.#asked) return;
      this.found = found;
      this.failure = undefined;
    } catch (error) {
      if (mine === this.#asked) this.failure = explain(error);
    }
  }

  /** The records with some keys as they are now, on whatever page of the grid they stand. */
  async current(keys: readonly string[], keyOf: (record: Shown) => string): Promise<(readonly [string, Shown])[]> {
    const found = await Promise.all(
      keys.map(async (key): Promise<[string, Shown] | undefined> => {
        const present = this.found?.records.find((record) => keyOf(record) === key);
        if (present !== undefined) return [key, present];
        try {
          const { record } = await client.call('getRecord', { app: this.#app, collection: this.#collection, key });
          return [key, Object.fromEntries(Object.entries(record).map(([name, value]) => [name, String(value ?? '')]))];
        } catch {
          // Removed, or out of reach: it is not changed then.
          return undefined;
        }
      }),
    );
    return found.filter((one) => one !== undefined);
  }

  /** Carries out changes, a batch at a time; nothing that is refused stops the others. */
  async change(changes: readonly Change[]): Promise<ChangeResult[]> {
    const results: ChangeResult[] = [];
    this.done = 0;
    this.total = changes.length;
    try {
      for (let start = 0; start < changes.length; start += batch) {
        const answer = await client.call(
          'changeRecords',
          { app: this.#app, collection: this.#collection },
          { changes: changes.slice(start, start + batch) },
        );
        results.push(...answer.results);
        this.done = results.length;
      }
    } catch (error) {
      this.failure = explain(error);
      results.push(...changes.slice(results.length).map(() => ({ problem: explain(error) })));
    } finally {
      this.total = 0;
    }
    return results;
  }
}
