import { randomBytes } from 'node:crypto';
import { IsNull, LessThan, MoreThan } from 'typeorm';
import type { SentFileStore } from '../files.ts';
import type { Connection } from './connection.ts';
import { SentFileEntity } from './entities.ts';

const day = 24 * 60 * 60 * 1000;
/** Bytes of an app's files that no record has yet: visitors who send more have to wait. */
const mostLoose = 200_000_000;

export class TypeormSentFileStore implements SentFileStore {
  readonly #on: Connection;

  constructor(on: Connection) {
    this.#on = on;
  }

  keep(app: string, name: string, bytes: Buffer): Promise<string | undefined> {
    const now = this.#on.clock();
    return this.#on.write(async (manager) => {
      await manager.delete(SentFileEntity, { looseUntil: LessThan(now) });
      const loose = (await manager.sum(SentFileEntity, 'size', { app, looseUntil: MoreThan(now) })) ?? 0;
      if (loose + bytes.length > mostLoose) return undefined;
      const value = `${randomBytes(16).toString('base64url')}/${name}`;
      await manager.insert(SentFileEntity, { app, value, bytes, size: bytes.length, looseUntil: now + day });
      return value;
    });
  }

  async bytes(app: string, value: string): Promise<Buffer | undefined> {
    const row = await this.#on.reader.findOneBy(SentFileEntity, { app, value });
    return row === null || (row.looseUntil !== null && row.looseUntil < this.#on.clock()) ? undefined : Buffer.from(row.bytes);
  }

  isLoose(app: string, value: string): Promise<boolean> {
    return this.#on.reader.existsBy(SentFileEntity, { app, value, looseUntil: MoreThan(this.#on.clock()) });
  }

  async settle(app: string, value: string): Promise<void> {
    await this.#on.write((manager) => manager.update(SentFileEntity, { app, value }, { looseUntil: null }));
  }

  async drop(app: string, value: string): Promise<void> {
    await this.#on.write((manager) => manager.delete(SentFileEntity, { app, value, looseUntil: IsNull() }));
  }

  async loosenUnless(app: string, isHeld: (value: string) => Promise<boolean>): Promise<number> {
    const settled = await this.#on.reader.find(SentFileEntity, {
      select: { app: true, value: true },
      where: { app, looseUntil: IsNull() },
    });
    const looseUntil = this.#on.clock() + day;
    let loosened = 0;
    for (const { value } of settled) {
      if (await isHeld(value)) continue;
      await this.#on.write((manager) => manager.update(SentFileEntity, { app, value }, { looseUntil }));
      loosened++;
    }
    return loosened;
  }
}
