import { randomBytes, randomUUID } from 'node:crypto';
import { timestamp } from '../../clock.ts';
import type { ApiToken, ApiTokenStore } from '../api-tokens.ts';
import { hashToken } from '../tokens.ts';
import type { Connection } from './connection.ts';
import { ApiTokenEntity, type ApiTokenRow } from './entities.ts';

const day = 24 * 60 * 60 * 1000;
/** Tells a token of Pallmist from other secrets, for programs that look for secrets in code. */
const beginning = 'pallmist_';

export class TypeormApiTokenStore implements ApiTokenStore {
  readonly #on: Connection;

  constructor(on: Connection) {
    this.#on = on;
  }

  async list(): Promise<ApiToken[]> {
    return (await this.#on.reader.find(ApiTokenEntity, { order: { madeAt: 'DESC', id: 'ASC' } })).map(asToken);
  }

  async make(given: Pick<ApiToken, 'name' | 'scopes' | 'app'>, days: number | undefined): Promise<{ made: ApiToken; token: string }> {
    const token = newToken();
    const row: ApiTokenRow = {
      id: randomUUID(),
      name: given.name,
      scopes: JSON.stringify(given.scopes),
      app: given.app,
      tokenHash: hashToken(token),
      madeAt: timestamp(this.#on.clock),
      endsAt: days === undefined ? null : new Date(this.#on.clock() + days * day).toISOString(),
      usedOn: null,
    };
    await this.#on.write((manager) => manager.insert(ApiTokenEntity, row));
    return { made: asToken(row), token };
  }

  async renew(id: string): Promise<{ made: ApiToken; token: string } | undefined> {
    const token = newToken();
    const renewed = await this.#on.write(async (manager) => {
      const row = await manager.findOneBy(ApiTokenEntity, { id });
      if (row === null) return undefined;
      const lasts = row.endsAt === null ? undefined : Date.parse(row.endsAt) - Date.parse(row.madeAt);
      const change = {
        tokenHash: hashToken(token),
        madeAt: timestamp(this.#on.clock),
        endsAt: lasts === undefined ? null : new Date(this.#on.clock() + lasts).toISOString(),
        usedOn: null,
      };
      await manager.update(ApiTokenEntity, { id }, change);
      return { ...row, ...change };
    });
    return renewed && { made: asToken(renewed), token };
  }

  async end(id: string): Promise<boolean> {
    return (await this.#on.write((manager) => manager.delete(ApiTokenEntity, { id }))).affected === 1;
  }

  async use(token: string): Promise<ApiToken | undefined> {
    if (!token.startsWith(beginning)) return undefined;
    const row = await this.#on.reader.findOneBy(ApiTokenEntity, { tokenHash: hashToken(token) });
    if (row === null || (row.endsAt !== null && Date.parse(row.endsAt) <= this.#on.clock())) return undefined;
    const today = timestamp(this.#on.clock).slice(0, 10);
    // Once a day: a token that is used a thousand times an hour costs no thousand writes.
    if (row.usedOn !== today) await this.#on.write((manager) => manager.update(ApiTokenEntity, { id: row.id }, { usedOn: today }));
    return asToken(row);
  }
}

const newToken = () => beginning + randomBytes(32).toString('base64url');

const asToken = ({ tokenHash: _, scopes, ...row }: ApiTokenRow): ApiToken => ({
  ...row,
  scopes: JSON.parse(scopes) as ApiToken['scopes'],
});
