import { randomInt } from 'node:crypto';
import { IsNull, LessThan, Not, type EntityManager } from 'typeorm';
import { timestamp } from '../../clock.ts';
import type { ShortAddress, ShortAddressStore, ShortTarget } from '../short-addresses.ts';
import type { Connection } from './connection.ts';
import { ShortAddressEntity, type ShortAddressRow } from './entities.ts';

/** Signs that nobody takes for one another when they are read aloud or typed from paper. */
const signs = '23456789abcdefghjkmnpqrstuvwxyz';
const length = 7;
/** As many of an app’s short addresses are made by visitors at a time. */
const mostOfVisitors = 50_000;
const day = 24 * 60 * 60 * 1000;

export class TypeormShortAddressStore implements ShortAddressStore {
  readonly #on: Connection;

  constructor(on: Connection) {
    this.#on = on;
  }

  make(app: string, edition: number, target: ShortTarget, days?: number): Promise<ShortAddress> {
    return this.#on.write((manager) => this.#insert(manager, null, app, edition, target, days));
  }

  makeFor(maker: string, app: string, edition: number, target: ShortTarget, days: number): Promise<ShortAddress | undefined> {
    return this.#on.write(async (manager) => {
      const { page, values, fragment } = asColumns(target);
      const own = await manager.findOneBy(ShortAddressEntity, { app, page, values, fragment: fragment ?? IsNull(), maker });
      if (own !== null) {
        own.endsAt = this.#after(days);
        await manager.update(ShortAddressEntity, { code: own.code }, { endsAt: own.endsAt });
        return fromRow(own);
      }
      if ((await manager.countBy(ShortAddressEntity, { app, maker: Not(IsNull()) })) >= mostOfVisitors) return undefined;
      return this.#insert(manager, maker, app, edition, target, days);
    });
  }

  async find(app: string, code: string): Promise<ShortAddress | undefined> {
    const row = await this.#on.reader.findOneBy(ShortAddressEntity, { app, code: code.toLowerCase() });
    return row === null || (row.endsAt !== null && row.endsAt <= timestamp(this.#on.clock)) ? undefined : fromRow(row);
  }

  async list(app: string): Promise<ShortAddress[]> {
    return (await this.#on.reader.find(ShortAddressEntity, { where: { app }, order: { madeAt: 'DESC' }, take: 500 })).map(fromRow);
  }

  async withdraw(app: string, code: string, maker?: string): Promise<boolean> {
    const which = { app, code: code.toLowerCase(), ...(maker === undefined ? {} : { maker }) };
    return (await this.#on.write((manager) => manager.delete(ShortAddressEntity, which))).affected === 1;
  }

  async #insert(
    manager: EntityManager,
    maker: string | null,
    app: string,
    edition: number,
    target: ShortTarget,
    days: number | undefined,
  ): Promise<ShortAddress> {
    const row: ShortAddressRow = {
      code: Array.from({ length }, () => signs[randomInt(signs.length)]).join(''),
      app,
      edition,
      ...asColumns(target),
      madeAt: timestamp(this.#on.clock),
      endsAt: days === undefined ? null : this.#after(days),
      maker,
    };
    await manager.delete(ShortAddressEntity, { endsAt: LessThan(timestamp(this.#on.clock)) });
    await manager.insert(ShortAddressEntity, row);
    return fromRow(row);
  }

  #after = (days: number) => new Date(this.#on.clock() + days * day).toISOString();
}

function asColumns({ page, values, fragment }: ShortTarget): Pick<ShortAddressRow, 'page' | 'values' | 'fragment'> {
  const given = Object.entries(values).filter(([, value]) => value !== undefined);
  const sorted = Object.fromEntries(given.sort(([a], [b]) => (a < b ? -1 : 1)));
  return { page, values: JSON.stringify(sorted), fragment: fragment ?? null };
}

const fromRow = ({ values, fragment, ...row }: ShortAddressRow): ShortAddress => ({
  ...row,
  values: JSON.parse(values) as ShortTarget['values'],
  ...(fragment === null ? {} : { fragment }),
});
