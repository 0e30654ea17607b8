import { timestamp } from '../../clock.ts';
import type { AppStore, DraftRow, EditionRow } from '../apps.ts';
import type { Connection } from './connection.ts';
import { Draft, Edition } from './entities.ts';

export class TypeormAppStore implements AppStore {
  readonly #on: Connection;

  constructor(on: Connection) {
    this.#on = on;
  }

  drafts(): Promise<DraftRow[]> {
    return this.#on.reader.find(Draft, { order: { app: 'ASC' } });
  }

  async draft(app: string): Promise<DraftRow | undefined> {
    return (await this.#on.reader.findOneBy(Draft, { app })) ?? undefined;
  }

  saveDraft(app: string, source: string, basedOn: number | undefined): Promise<DraftRow | undefined> {
    return this.#on.write(async (manager) => {
      const changedAt = timestamp(this.#on.clock);
      const present = await manager.findOneBy(Draft, { app });
      if ((basedOn ?? present?.revision) !== present?.revision) return undefined;
      const draft = { app, source, revision: (present?.revision ?? 0) + 1, changedAt };
      if (present === null) await manager.insert(Draft, draft);
      else await manager.update(Draft, { app }, draft);
      return draft;
    });
  }

  publish(app: string, source: string): Promise<EditionRow> {
    return this.#on.write(async (manager) => {
      const number = ((await manager.maximum(Edition, 'number', { app })) ?? 0) + 1;
      const edition = { app, number, source, publishedAt: timestamp(this.#on.clock) };
      await manager.insert(Edition, edition);
      return edition;
    });
  }

  async edition(app: string): Promise<EditionRow | undefined> {
    return (await this.#on.reader.findOne(Edition, { where: { app }, order: { number: 'DESC' } })) ?? undefined;
  }

  async editions(): Promise<EditionRow[]> {
    const apps = await this.#on.reader
      .createQueryBuilder(Edition, 'edition')
      .select('DISTINCT edition.app', 'app')
      .getRawMany<{ app: string }>();
    const editions: EditionRow[] = [];
    for (const { app } of apps) {
      const edition = await this.edition(app);
      if (edition) editions.push(edition);
    }
    return editions;
  }
}
