import { createHash } from 'node:crypto';
import type { TryRow } from '../store/ledger.ts';

/** Most different addresses that wait to be written. */
const most = 1000;
/** Longest path that is counted, in characters. */
const longest = 300;

/** Tries of addresses that no page has, which wait to be written. */
export class WaitingTries {
  #rows = new Map<string, TryRow>();

  /** @param path without its query, which is a visitor's own */
  add(app: string, path: string, day: string): void {
    if (path.length > longest) return;
    const mark = createHash('sha256').update(path).digest('base64url').slice(0, 22);
    this.#add({ app, mark, path, day, tries: 1 });
  }

  take(): TryRow[] {
    const rows = [...this.#rows.values()];
    this.#rows = new Map();
    return rows;
  }

  putBack(rows: readonly TryRow[]): void {
    for (const row of rows) this.#add(row);
  }

  #add(row: TryRow): void {
    const key = `${row.day} ${row.app} ${row.mark}`;
    const known = this.#rows.get(key);
    if (known !== undefined) known.tries += row.tries;
    else if (this.#rows.size < most) this.#rows.set(key, row);
  }
}
