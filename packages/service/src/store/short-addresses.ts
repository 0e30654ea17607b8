import { randomInt } from 'node:crypto';
import type { DataSource, Repository } from 'typeorm';
import { ShortAddressEntity, type ShortAddressRow } from './entities/index.ts';

/** Signs that nobody takes for one another when they are read aloud or typed from paper. */
const signs = '23456789abcdefghjkmnpqrstuvwxyz';
const length = 7;
const day = 24 * 60 * 60 * 1000;

/** Short addresses: codes for addresses too long to share or to print. */
export class ShortAddressStore {
  readonly #rows: Repository<ShortAddressRow>;

  constructor(source: DataSource) {
    this.#rows = source.getRepository(ShortAddressEntity);
  }

  /**
   * Makes a short address.
   * @param days how long it leads anywhere; for ever when left out
   */
  async make(app: string, address: string, days?: number): Promise<ShortAddressRow> {
    const now = Date.now();
    const row: ShortAddressRow = {
      code: Array.from({ length }, () => signs[randomInt(signs.length)]).join(''),
      app,
      address,
      madeAt: new Date(now).toISOString(),
      endsAt: days === undefined ? null : new Date(now + days * day).toISOString(),
    };
    await this.#rows.insert(row);
    return row;
  }

  /** The address that a code stands for; undefined when there is none, or it has ended or was withdrawn. */
  async find(app: string, code: string): Promise<string | undefined> {
    const row = await this.#rows.findOneBy({ app, code: code.toLowerCase() });
    return row === null || (row.endsAt !== null && row.endsAt <= new Date().toISOString()) ? undefined : row.address;
  }

  list(app: string): Promise<ShortAddressRow[]> {
    return this.#rows.find({ where: { app }, order: { madeAt: 'DESC' }, take: 500 });
  }

  /** @returns false when there is no such code */
  async withdraw(app: string, code: string): Promise<boolean> {
    return (await this.#rows.delete({ app, code })).affected === 1;
  }
}
