import { And, IsNull, LessThan, Like, MoreThanOrEqual, Not, type EntityManager } from 'typeorm';
import type { LedgerRow, LedgerStore, TriedAddress, TryRow } from '../ledger.ts';
import type { Connection } from './connection.ts';
import { LedgerEntity, TriedAddressEntity } from './entities.ts';

/** Days that are turned into months in one go: other writes wait for it. */
const atOnce = 200;
const mostListed = 20_000;
/** Rows of an app for one day, or one month; what is new beyond them is counted together, so that strangers add no more. */
const mostOfDay = { ofPages: 5_000, ofUnknown: 500 };
/** Addresses of an app whose tries are counted. */
const mostTried = 2_000;
/** From then on the text of an address is kept: it is no slip of a single visitor. */
const triesUntilKept = 5;
const daysUntilKept = 2;

export class TypeormLedgerStore implements LedgerStore {
  readonly #on: Connection;

  constructor(on: Connection) {
    this.#on = on;
  }

  add(rows: readonly LedgerRow[], tries: readonly TryRow[]): Promise<void> {
    return this.#on.write(async (manager) => {
      for (const row of rows) await addCount(manager, row);
      for (const row of tries) await addTries(manager, row);
    });
  }

  list(app: string, since: string): Promise<LedgerRow[]> {
    return this.#on.reader.find(LedgerEntity, { where: { app, day: MoreThanOrEqual(since) }, order: { day: 'DESC' }, take: mostListed });
  }

  tried(app: string): Promise<TriedAddress[]> {
    return this.#on.reader.find(TriedAddressEntity, {
      where: { app, path: Not(IsNull()) },
      order: { tries: 'DESC', mark: 'ASC' },
      take: 100,
    }) as Promise<TriedAddress[]>;
  }

  async compact(before: string): Promise<void> {
    await this.#on.write((manager) => manager.delete(TriedAddressEntity, { day: LessThan(before) }));
    // Months stand before days in their order, and stay.
    const isDay = And(LessThan(before), Like('____-__-__'));
    for (;;) {
      const days = await this.#on.reader.find(LedgerEntity, { where: { day: isDay }, take: atOnce });
      if (days.length === 0) return;
      await this.#on.write(async (manager) => {
        for (const { count, ...key } of days) {
          await addCount(manager, { ...key, day: key.day.slice(0, 7), count });
          await manager.delete(LedgerEntity, key);
        }
      });
    }
  }
}

/** Adds a count to those of its kind; where a day has too many kinds, to those of all others. */
async function addCount(manager: EntityManager, { count, ...key }: LedgerRow): Promise<void> {
  if (await increase(manager, key, count)) return;
  const { app, day, page, referrer } = key;
  const isUnknown = page === '';
  const present = await manager.countBy(LedgerEntity, { app, day, page: isUnknown ? '' : Not('') });
  if (present < (isUnknown ? mostOfDay.ofUnknown : mostOfDay.ofPages)) {
    await manager.insert(LedgerEntity, { ...key, count });
    return;
  }
  const others = { app, day, page, parameter: isUnknown ? '*' : key.parameter, state: 'others', bucket: '(others)', referrer };
  if (!(await increase(manager, others, count))) await manager.insert(LedgerEntity, { ...others, count });
}

async function increase(manager: EntityManager, key: Omit<LedgerRow, 'count'>, count: number): Promise<boolean> {
  const { affected } = await manager.increment(LedgerEntity, key, 'count', count);
  return affected !== 0;
}

async function addTries(manager: EntityManager, { app, mark, path, day, tries }: TryRow): Promise<void> {
  const known = await manager.findOneBy(TriedAddressEntity, { app, mark });
  if (known === null) {
    // Room for new ones comes when days are compacted.
    if ((await manager.countBy(TriedAddressEntity, { app })) < mostTried)
      await manager.insert(TriedAddressEntity, { app, mark, path: null, day, days: 1, tries });
    return;
  }
  const now = { tries: known.tries + tries, days: known.days + (known.day === day ? 0 : 1), day };
  const kept = now.tries >= triesUntilKept && now.days >= daysUntilKept;
  await manager.update(TriedAddressEntity, { app, mark }, { ...now, ...(kept ? { path } : {}) });
}
