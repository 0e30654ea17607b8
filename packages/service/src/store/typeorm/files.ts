import type { FileStore } from '../files.ts';
import type { Connection } from './connection.ts';
import { FileEntity } from './entities.ts';

export class TypeormFileStore implements FileStore {
  readonly #on: Connection;

  constructor(on: Connection) {
    this.#on = on;
  }

  async put(app: string, name: string, bytes: Buffer): Promise<void> {
    await this.#on.write((manager) => manager.upsert(FileEntity, { app, name, bytes }, ['app', 'name']));
  }

  async find(app: string, name: string): Promise<Buffer | undefined> {
    const row = await this.#on.reader.findOneBy(FileEntity, { app, name });
    return row === null ? undefined : Buffer.from(row.bytes);
  }

  async list(app: string): Promise<{ name: string; bytes: number }[]> {
    const rows = await this.#on.reader
      .createQueryBuilder(FileEntity, 'file')
      .select('file.name', 'name')
      .addSelect('LENGTH(file.bytes)', 'bytes')
      .where({ app })
      .orderBy('file.name')
      .getRawMany<{ name: string; bytes: number | string }>();
    return rows.map(({ name, bytes }) => ({ name, bytes: Number(bytes) }));
  }

  async remove(app: string, name: string): Promise<boolean> {
    return (await this.#on.write((manager) => manager.delete(FileEntity, { app, name }))).affected === 1;
  }
}
