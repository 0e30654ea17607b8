import type { LedgerRow } from '../store/ledger.ts';

/** Most different counts that wait to be written; what is new beyond them is counted together. */
const most = 5000;

type Level<Below> = Map<string, Below>;

/** Counts that wait to be written. They lie as deep as they have names, so that counting one makes no text. */
export class WaitingCounts {
  #days: Level<Level<Level<Level<Level<Level<Level<LedgerRow>>>>>>> = new Map();
  #rows: LedgerRow[] = [];

  add({ app, day, page, referrer, parameter, state, bucket }: Omit<LedgerRow, 'count'>, count = 1): void {
    const ofPage = below(below(below(below(this.#days, day), app), page), referrer);
    const ofState = below(below(ofPage, parameter), state);
    const known = ofState.get(bucket);
    if (known !== undefined) known.count += count;
    else if (this.#rows.length < most || bucket === others) {
      const row = { app, day, page, parameter, state, bucket, referrer, count };
      ofState.set(bucket, row);
      this.#rows.push(row);
    } else this.add({ app, day, page, parameter: page === '' ? '*' : parameter, state: 'others', bucket: others, referrer: 'none' }, count);
  }

  /** Takes all counts out. */
  take(): LedgerRow[] {
    const rows = this.#rows;
    this.#rows = [];
    this.#days = new Map();
    return rows;
  }
}

const others = '(others)';

function below<Below extends Map<string, unknown>>(level: Level<Below>, name: string): Below {
  let found = level.get(name);
  if (found === undefined) level.set(name, (found = new Map() as Below));
  return found;
}
