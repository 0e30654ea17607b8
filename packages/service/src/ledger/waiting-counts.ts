import type { LedgerRow } from '../store/ledger.ts';

/** Most different counts that wait to be written; what is new beyond them is counted together. */
const most = 5000;

/** Whose addresses are counted: a page, on a day, by where its visitors came from. */
export type CountedPage = Pick<LedgerRow, 'app' | 'day' | 'page' | 'referrer'>;

/** The counts of one parameter, by state and bucket, so that counting makes no text. */
interface ParameterCounts {
  /** Counted last: most visitors come by addresses of the same kind. */
  last: LedgerRow | undefined;
  rows: Map<string, Map<string, LedgerRow>>;
}

interface Counts extends CountedPage {
  parameters: Map<string, ParameterCounts>;
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
    if (counts === undefined) some.push((counts = { app, day, page, referrer, parameters: new Map() }));
    return counts;
  }

  #add(counts: Counts, parameter: string, state: string, bucket: string, count: number): void {
    let of = counts.parameters.get(parameter);
    if (of === undefined) counts.parameters.set(parameter, (of = { last: undefined, rows: new Map() }));
    const { last } = of;
    if (last !== undefined && last.state === state && last.bucket === bucket) last.count += count;
    else this.#addOther(counts, of, parameter, state, bucket, count);
  }

  #addOther(counts: Counts, of: ParameterCounts, parameter: string, state: string, bucket: string, count: number): void {
    let ofState = of.rows.get(state);
    if (ofState === undefined) of.rows.set(state, (ofState = new Map<string, LedgerRow>()));
    const known = ofState.get(bucket);
    if (known !== undefined) {
      known.count += count;
      of.last = known;
    } else if (this.#rows.length < most || bucket === others) {
      const { app, day, page, referrer } = counts;
      of.last = { app, day, page, parameter, state, bucket, referrer, count };
      ofState.set(bucket, of.last);
      this.#rows.push(of.last);
    } else this.#add(counts, counts.page === '' ? '*' : parameter, 'others', others, count);
  }
}

const others = '(others)';
