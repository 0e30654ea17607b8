import { LessThan, MoreThanOrEqual } from 'typeorm';
import type { LedgerRow, LedgerStore } from '../ledger.ts';
import type { Connection } from './connection.ts';
import { LedgerEntity } from './entities.ts';

/** Counts that are written in one go: other writes wait for it. */
const atOnce = 200;
const mostListed = 20_000;

export class TypeormLedgerStore implements LedgerStore {
  readonly #on: Connection;

  constructor(on: Connection) {
    this.#on = on;
  }

  async add(rows: readonly LedgerRow[]): Promise<void> {
    for (let start = 0; start < rows.length; start += atOnce)
      await this.#on.write(async (manager) => {
        for (const { count, ...key } of rows.slice(start, start + atOnce)) {
          const { affected } = await manager.increment(LedgerEntity, key, 'count', count);
          if (affected === 0) await manager.insert(LedgerEntity, { ...key, count });
        }
      });
  }

  list(app: string, since: string): Promise<LedgerRow[]> {
    return this.#on.reader.find(LedgerEntity, { where: { app, day: MoreThanOrEqual(since) }, order: { day: 'ASC' }, take: mostListed });
  }

  async compact(before: string): Promise<void> {
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
