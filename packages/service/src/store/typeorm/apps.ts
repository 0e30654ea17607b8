import { timestamp } from '../../clock.ts';
import { In, LessThanOrEqual, MoreThan } from 'typeorm';
import type { AppStore, DraftChangeNote, DraftChangeRow, DraftRow, EditionRow } from '../apps.ts';
import type { Connection } from './connection.ts';
import {
  ApiTokenEntity,
  ConsentEntity,
  DeliveryEntity,
  Draft,
  DraftChange,
  Edition,
  EditionPageEntity,
  EntryLink,
  FileEntity,
  HeldForm,
  LedgerEntity,
  MailEntity,
  PageVersionEntity,
  PrintedEntity,
  TriedAddressEntity,
  PersonEntity,
  Receipt,
  SentFileEntity,
  Session,
  ShortAddressEntity,
  VisitEntity,
  WebhookEntity,
} from './entities.ts';

/** Changes that the log of a draft keeps. */
const keptChanges = 2000;

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

  saveDraft(app: string, source: string, basedOn: number | undefined, { by, what, patch }: DraftChangeNote): Promise<DraftRow | undefined> {
    return this.#on.write(async (manager) => {
      const changedAt = timestamp(this.#on.clock);
      const present = await manager.findOneBy(Draft, { app });
      if (basedOn !== undefined && basedOn !== (present?.revision ?? 0)) return undefined;
      const draft = { app, source, revision: (present?.revision ?? 0) + 1, changedAt };
      if (present === null) await manager.insert(Draft, draft);
      else await manager.update(Draft, { app }, draft);
      const { revision } = draft;
      await manager.insert(DraftChange, { app, revision, changedAt, changedBy: by, what, patch: patch ?? null });
      if (revision % 100 === 0) await manager.delete(DraftChange, { app, revision: LessThanOrEqual(revision - keptChanges) });
      return draft;
    });
  }

  changesSince(app: string, revision: number): Promise<DraftChangeRow[]> {
    return this.#on.reader.find(DraftChange, { where: { app, revision: MoreThan(revision) }, order: { revision: 'ASC' } });
  }

  changes(app: string, most: number): Promise<DraftChangeRow[]> {
    return this.#on.reader.find(DraftChange, { where: { app }, order: { revision: 'DESC' }, take: most });
  }

  publish(app: string, source: string, { by, note }: { by: string; note: string } = { by: '', note: '' }): Promise<EditionRow> {
    return this.#on.write(async (manager) => {
      const number = ((await manager.maximum(Edition, 'number', { app })) ?? 0) + 1;
      const edition = { app, number, source, publishedAt: timestamp(this.#on.clock), publishedBy: by, note };
      await manager.insert(Edition, edition);
      return edition;
    });
  }

  async edition(app: string, number?: number): Promise<EditionRow | undefined> {
    const where = number === undefined ? { app } : { app, number };
    return (await this.#on.reader.findOne(Edition, { where, order: { number: 'DESC' } })) ?? undefined;
  }

  editionsOf(app: string): Promise<Omit<EditionRow, 'source'>[]> {
    return this.#on.reader.find(Edition, {
      select: { app: true, number: true, publishedAt: true, publishedBy: true, note: true },
      where: { app },
      order: { number: 'DESC' },
    });
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

  remove(app: string): Promise<void> {
    return this.#on.write(async (manager) => {
      const hooks = await manager.find(WebhookEntity, { where: { app }, select: { id: true } });
      await manager.delete(DeliveryEntity, { webhook: In(hooks.map(({ id }) => id)) });
      for (const entity of ofApps) await manager.delete(entity, { app });
      for (const entity of ofScopes) await manager.delete(entity, { scope: In([`live:${app}`, `draft:${app}`]) });
      await manager.delete(Receipt, { app: In([`live:${app}`, `draft:${app}`]) });
    });
  }
}

/** All that is kept by the name of an app. */
const ofApps = [
  ...[Draft, DraftChange, Edition, PersonEntity, FileEntity, SentFileEntity, MailEntity],
  ...[ShortAddressEntity, VisitEntity, WebhookEntity, ApiTokenEntity],
  ...[PageVersionEntity, EditionPageEntity, ConsentEntity, PrintedEntity, LedgerEntity, TriedAddressEntity],
] as const;
/** All that is kept for the published app, or for its draft. */
const ofScopes = [Session, HeldForm, EntryLink] as const;
