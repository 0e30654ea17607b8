import type { LedgerRow } from '../store/ledger.ts';

/** Most different counts that wait to be written; what is new beyond them is counted together. */
const most = 5000;

/** Whose addresses are counted: a page, on a day, by where its visitors came from. */
export type CountedPage = Pick<LedgerRow, 'app' | 'day' | 'page' | 'referrer'>;

/** The counts of one page, as deep as they have names, so that counting makes no text. */
interface Counts extends CountedPage {
  rows: Map<string, Map<string, Map<string, LedgerRow>>>;
}

/** Counts that wait to be written. */
export class WaitingCounts {
  #pages = new Map<string, Counts[]>();
  #rows: LedgerRow[] = [];

  /** The counts of a page, to which what its address has is added. */
  of(page: CountedPage): (parameter: string, state: string, bucket: string, count?: number) => void {
    const counts = this.#countsOf(page);
    return (parameter, state, bucket, count = 1) => {
      this.#add(counts, parameter, state, bucket, count);
    };
  }

  /** Takes all counts out. */
  take(): LedgerRow[] {
    const rows = this.#rows;
    this.#rows = [];
    this.#pages = new Map();
    return rows;
  }

  #countsOf({ app, day, page, referrer }: CountedPage): Counts {
    let some = this.#pages.get(page);
    if (some === undefined) this.#pages.set(page, (some = []));
    // A few at most: apps with a page of this name, days, kinds of referrers.
    let counts = some.find((one) => one.app === app && one.referrer === referrer && one.day === day);
    if (counts === undefined) some.push((counts = { app, day, page, referrer, rows: new Map() }));
    return counts;
  }

  #add(counts: Counts, parameter: string, state: string, bucket: string, count: number): void {
    const ofState = below(below(counts.rows, parameter), state);
    const known = ofState.get(bucket);
    if (known !== undefined) known.count += count;
    else if (this.#rows.length < most || bucket === others) {
      const { app, day, page, referrer } = counts;
      const row = { app, day, page, parameter, state, bucket, referrer, count };
      ofState.set(bucket, row);
      this.#rows.push(row);
    } else this.#add(counts, counts.page === '' ? '*' : parameter, 'others', others, count);
  }
}

const others = '(others)';

function below<Below extends Map<string, unknown>>(level: Map<string, Below>, name: string): Below {
  let found = level.get(name);
  if (found === undefined) level.set(name, (found = new Map() as Below));
  return found;
}
