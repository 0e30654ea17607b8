import { randomBytes } from 'node:crypto';
import { IsNull, LessThan, MoreThan, type DataSource, type Repository } from 'typeorm';
import { SentFileEntity, type SentFileRow } from './entities/index.ts';

const day = 24 * 60 * 60 * 1000;
/** Bytes of an app's files that no record has yet: whoever sends more has to wait. */
const mostLoose = 200_000_000;

/** Files that people have sent with forms: loose until the record is saved, for a day at most. */
export class SentFileStore {
  readonly #files: Repository<SentFileRow>;

  constructor(source: DataSource) {
    this.#files = source.getRepository(SentFileEntity);
  }

  /**
   * Keeps a file that no record has yet.
   * @returns what the field of a record is to hold; undefined when there is no room
   */
  async keep(app: string, name: string, bytes: Buffer): Promise<string | undefined> {
    const now = Date.now();
    await this.#files.delete({ looseUntil: LessThan(now) });
    const loose = (await this.#files.sum('size', { app, looseUntil: MoreThan(now) })) ?? 0;
    if (loose + bytes.length > mostLoose) return undefined;
    const value = `${randomBytes(16).toString('base64url')}/${name}`;
    await this.#files.insert({ app, value, bytes, size: bytes.length, looseUntil: now + day });
    return value;
  }

  async bytes(app: string, value: string): Promise<Buffer | undefined> {
    const row = await this.#files.findOneBy({ app, value });
    return row === null || (row.looseUntil !== null && row.looseUntil < Date.now()) ? undefined : row.bytes;
  }

  /** Whether a file is here that no record has yet. */
  isLoose(app: string, value: string): Promise<boolean> {
    return this.#files.existsBy({ app, value, looseUntil: MoreThan(Date.now()) });
  }

  /** A record has the file now. */
  async settle(app: string, value: string): Promise<void> {
    await this.#files.update({ app, value }, { looseUntil: null });
  }

  /** No record has it any more. */
  async drop(app: string, value: string): Promise<void> {
    await this.#files.delete({ app, value, looseUntil: IsNull() });
  }
}
