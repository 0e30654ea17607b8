import type { ConsentRow, LinkStore, PageVersionRow, PrintedRow } from '../links.ts';
import type { Connection } from './connection.ts';
import { ConsentEntity, EditionPageEntity, PageVersionEntity, PrintedEntity } from './entities.ts';

/** Rows that are written by one statement: SQLite takes so many values, and a few of them make a row. */
const atOnce = 1000;

export class TypeormLinkStore implements LinkStore {
  readonly #on: Connection;

  constructor(on: Connection) {
    this.#on = on;
  }

  async versions(app: string): Promise<{ row: PageVersionRow; editions: number[] }[]> {
    const rows = await this.#on.reader.find(PageVersionEntity, { where: { app } });
    const editions = await this.#on.reader.find(EditionPageEntity, { where: { app }, order: { edition: 'ASC' } });
    const byMark = new Map(rows.map((row) => [row.mark, { row, editions: [] as number[] }]));
    for (const { mark, edition } of editions) byMark.get(mark)?.editions.push(edition);
    return [...byMark.values()];
  }

  addEdition(app: string, edition: number, versions: readonly Omit<PageVersionRow, 'app'>[]): Promise<void> {
    return this.#on.write(async (manager) => {
      for (let start = 0; start < versions.length; start += atOnce) {
        const some = versions.slice(start, start + atOnce);
        await manager
          .createQueryBuilder()
          .insert()
          .into(PageVersionEntity)
          .values(some.map((version) => ({ app, ...version })))
          .orIgnore()
          .execute();
        await manager
          .createQueryBuilder()
          .insert()
          .into(EditionPageEntity)
          .values(some.map(({ mark }) => ({ app, edition, mark })))
          .orIgnore()
          .execute();
      }
    });
  }

  consents(app: string): Promise<ConsentRow[]> {
    return this.#on.reader.find(ConsentEntity, { where: { app }, order: { edition: 'DESC', promise: 'ASC' } });
  }

  addConsents(consents: readonly ConsentRow[]): Promise<void> {
    return this.#on.write(async (manager) => {
      if (consents.length > 0)
        await manager
          .createQueryBuilder()
          .insert()
          .into(ConsentEntity)
          .values([...consents])
          .orIgnore()
          .execute();
    });
  }

  printed(app: string): Promise<PrintedRow[]> {
    return this.#on.reader.find(PrintedEntity, { where: { app }, order: { at: 'DESC', id: 'ASC' } });
  }

  addPrinted(printed: PrintedRow): Promise<void> {
    return this.#on.write(async (manager) => {
      const { app, address, note } = printed;
      if (!(await manager.existsBy(PrintedEntity, { app, address, note }))) await manager.insert(PrintedEntity, printed);
    });
  }

  removePrinted(app: string, id: string): Promise<boolean> {
    return this.#on.write(async (manager) => ((await manager.delete(PrintedEntity, { app, id })).affected ?? 0) > 0);
  }
}
