import type { DataSource, Repository } from 'typeorm';
import { Draft, Edition, type DraftRow, type EditionRow } from './entities/index.ts';

/** Drafts and editions. */
export class AppStore {
  readonly #drafts: Repository<DraftRow>;
  readonly #editions: Repository<EditionRow>;

  constructor(source: DataSource) {
    this.#drafts = source.getRepository(Draft);
    this.#editions = source.getRepository(Edition);
  }

  drafts(): Promise<DraftRow[]> {
    return this.#drafts.find({ order: { app: 'ASC' } });
  }

  draft(app: string): Promise<DraftRow | null> {
    return this.#drafts.findOneBy({ app });
  }

  /**
   * Keeps a new text of the draft.
   * @param basedOn the revision it was made from; undefined to put it in place whatever is there
   * @returns the draft, or undefined when the draft has moved on from that revision
   */
  async saveDraft(app: string, source: string, basedOn: number | undefined): Promise<DraftRow | undefined> {
    const changedAt = new Date().toISOString();
    const present = await this.draft(app);
    if (present === null) {
      if (basedOn !== undefined) return undefined;
      const made: DraftRow = { app, source, revision: 1, changedAt };
      await this.#drafts.insert(made);
      return made;
    }
    const revision = present.revision + 1;
    const result = await this.#drafts.update({ app, revision: basedOn ?? present.revision }, { source, revision, changedAt });
    return result.affected === 1 ? { app, source, revision, changedAt } : undefined;
  }

  /** Publishes a text as the next edition. */
  async publish(app: string, source: string): Promise<EditionRow> {
    const latest = await this.edition(app);
    const edition: EditionRow = { app, number: (latest?.number ?? 0) + 1, source, publishedAt: new Date().toISOString() };
    await this.#editions.insert(edition);
    return edition;
  }

  /** The newest edition of an app. */
  edition(app: string): Promise<EditionRow | null> {
    return this.#editions.findOne({ where: { app }, order: { number: 'DESC' } });
  }

  /** The newest edition of every app that has one. */
  async editions(): Promise<EditionRow[]> {
    const apps = await this.#editions.createQueryBuilder('edition').select('DISTINCT edition.app', 'app').getRawMany<{ app: string }>();
    const editions = await Promise.all(apps.map(({ app }) => this.edition(app)));
    return editions.filter((edition) => edition !== null);
  }
}
