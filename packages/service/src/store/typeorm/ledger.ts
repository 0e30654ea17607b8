import { IsNull, LessThan, MoreThanOrEqual, Not, type EntityManager } from 'typeorm';
import type { LedgerRow, LedgerStore, TriedAddress, TryRow } from '../ledger.ts';
import type { Connection } from './connection.ts';
import { LedgerEntity, TriedAddressEntity } from './entities.ts';

/** Days that are turned into months in one go: other writes wait for it. */
const atOnce = 200;
const mostListed = 20_000;
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
      for (const { count, ...key } of rows) {
        const { affected } = await manager.increment(LedgerEntity, key, 'count', count);
        if (affected === 0) await manager.insert(LedgerEntity, { ...key, count });
      }
      for (const row of tries) await addTries(manager, row);
    });
  }

  list(app: string, since: string): Promise<LedgerRow[]> {
    return this.#on.reader.find(LedgerEntity, { where: { app, day: MoreThanOrEqual(since) }, order: { day: 'ASC' }, take: mostListed });
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
    const old = await this.#on.reader.find(LedgerEntity, { where: { day: LessThan(before) }, take: mostListed });
    const days = old.filter(({ day }) => day.length === 10);
    for (let start = 0; start < days.length; start += atOnce)
      await this.#on.write(async (manager) => {
        for (const { count, ...key } of days.slice(start, start + atOnce)) {
          const month = { ...key, day: key.day.slice(0, 7) };
          const { affected } = await manager.increment(LedgerEntity, month, 'count', count);
          if (affected === 0) await manager.insert(LedgerEntity, { ...month, count });
          await manager.delete(LedgerEntity, key);
        }
      });
  }
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
