import { randomInt } from 'node:crypto';
import { IsNull, LessThan, Not, type DataSource, type Repository } from 'typeorm';
import { ShortAddressEntity, type ShortAddressRow } from './entities/index.ts';

/** Signs that nobody takes for one another when they are read aloud or typed from paper. */
const signs = '23456789abcdefghjkmnpqrstuvwxyz';
const length = 7;
/** As many of an app’s short addresses are made by visitors at a time. */
const mostOfVisitors = 50_000;
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
  async make(app: string, address: string, days?: number, maker?: string): Promise<ShortAddressRow> {
    const now = Date.now();
    await this.#rows.delete({ endsAt: LessThan(new Date(now).toISOString()) });
    const row: ShortAddressRow = {
      code: Array.from({ length }, () => signs[randomInt(signs.length)]).join(''),
      app,
      address,
      madeAt: new Date(now).toISOString(),
      endsAt: days === undefined ? null : new Date(now + days * day).toISOString(),
      maker: maker ?? null,
    };
    await this.#rows.insert(row);
    return row;
  }

  /**
   * Makes a short address for a visitor; for the same address the same one again, from now on for so many days.
   * @returns undefined when visitors have made so many that there is no room
   */
  async makeFor(maker: string, app: string, address: string, days: number): Promise<ShortAddressRow | undefined> {
    const own = await this.#rows.findOneBy({ app, address, maker });
    if (own !== null) {
      own.endsAt = new Date(Date.now() + days * day).toISOString();
      return this.#rows.save(own);
    }
    if ((await this.#rows.countBy({ app, maker: Not(IsNull()) })) >= mostOfVisitors) return undefined;
    return this.make(app, address, days, maker);
  }

  /** A short address that leads somewhere still. */
  async row(app: string, code: string): Promise<ShortAddressRow | undefined> {
    const row = await this.#rows.findOneBy({ app, code: code.toLowerCase() });
    return row === null || (row.endsAt !== null && row.endsAt <= new Date().toISOString()) ? undefined : row;
  }

  /** The address that a code stands for; undefined when there is none, or it has ended or was withdrawn. */
  async find(app: string, code: string): Promise<string | undefined> {
    return (await this.row(app, code))?.address;
  }

  list(app: string): Promise<ShortAddressRow[]> {
    return this.#rows.find({ where: { app }, order: { madeAt: 'DESC' }, take: 500 });
  }

  /**
   * @param maker only what this visitor has made
   * @returns false when there is no such code
   */
  async withdraw(app: string, code: string, maker?: string): Promise<boolean> {
    return (await this.#rows.delete({ app, code, ...(maker === undefined ? {} : { maker }) })).affected === 1;
  }
}
