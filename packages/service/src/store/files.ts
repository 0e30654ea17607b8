import type { DataSource, Repository } from 'typeorm';
import { FileEntity, type FileRow } from './entities/index.ts';

/** The pictures of an app, which belong to it as its records do. */
export class FileStore {
  readonly #files: Repository<FileRow>;

  constructor(source: DataSource) {
    this.#files = source.getRepository(FileEntity);
  }

  async put(app: string, name: string, bytes: Buffer): Promise<void> {
    await this.#files.save({ app, name, bytes });
  }

  find(app: string, name: string): Promise<FileRow | null> {
    return this.#files.findOneBy({ app, name });
  }
}
