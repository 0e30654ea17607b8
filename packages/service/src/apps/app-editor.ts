import type { AppSummary, Draft, DraftChange, Edition, PushedDraft } from '@pallmist/api';
import {
  looksLike,
  mediaTypeOf,
  own,
  checkAppFile,
  DraftDocument,
  listFormChanges,
  mayPublish,
  patchSource,
  ProblemError,
  todayIn,
  type AppDefinition,
  toPointer,
  type CheckedApp,
  type Finding,
  type PatchOperation,
  type Problem,
} from '@pallmist/app';
import type { Logger } from 'pino';
import { Refused } from '../api/problem-details.ts';
import type { WallClock } from '../clock.ts';
import type { Settings } from '../settings.ts';
import type { DraftRow, EditionRow } from '../store/apps.ts';
import { asChange } from './draft-changes.ts';
import { movedOn, putDraft } from './put-draft.ts';
import type { Misfit, StagedRecords } from '../store/records.ts';
import type { Store, Stores } from '../store/store.ts';
import { theOwner, type Builder } from '../builders/builders.ts';
import type { DraftEvents } from '../builders/draft-events.ts';
import type { DraftKeeper } from './draft-keeper.ts';
import type { LiveApps } from './live-apps.ts';
import type { Consent, LinkPromises } from './link-promises.ts';
import { exportBeside } from './record-export.ts';
import { removeOldExports } from './old-exports.ts';
import { listed, RecordImport, type RecordSource } from './record-import.ts';

/** Milliseconds between two looks for what is not in use any more. */
const tidyEvery = 24 * 60 * 60 * 1000;

/** Changes of a draft that its log shows. */
const shownChanges = 300;

/** What is pushed: an app file, and records and pictures with it. */
export interface Push {
  source: string;
  /** The revision it was made from, 0 where there was no draft; whatever is there when left out. */
  revision?: number | undefined;
  /** Records, each collection’s in the place of those that it has. */
  records?: AsyncIterable<RecordSource> | Iterable<RecordSource>;
  /**
   * Overwrite what others have changed in the draft since its revision, and remove and overwrite records although people
   * have written them, after an export beside the database.
   */
  replace?: boolean | undefined;
  /** Pictures, by name. */
  files?: Record<string, Buffer>;
  /** What is done, in words. */
  what?: string | undefined;
}

/** How records are brought into a collection. */
export type ImportMode = 'replace' | 'update';

export interface Imported {
  collection: string;
  rows: number;
  /** Files into which what was replaced was written before. */
  exports: string[];
}

/** How a draft is published. */
export interface Publishing {
  /** The draft that was seen; whatever is there when left out. */
  revision?: number | undefined;
  note?: string | undefined;
  /** Changes of what earlier addresses mean that the builder agrees to. */
  consents?: readonly Consent[] | undefined;
}

interface AppEditorParts {
  promises: LinkPromises;
  store: Store;
  live: LiveApps;
  settings: Pick<Settings, 'data' | 'keepExportDays'>;
  clock: WallClock;
  log: Logger;
  keeper: DraftKeeper;
  events: DraftEvents;
}

/** What builders do with apps: drafts, records, editions. */
export class AppEditor {
  readonly #store: Store;
  readonly #live: LiveApps;
  readonly #settings: Pick<Settings, 'data' | 'keepExportDays'>;
  readonly #clock: WallClock;
  readonly #log: Logger;
  readonly #keeper: DraftKeeper;
  readonly #events: DraftEvents;
  readonly #promises: LinkPromises;
  /** What is removed in the background; awaited at a stop. */
  #sweeping: Promise<void> = Promise.resolve();
  #timer: NodeJS.Timeout | undefined;

  constructor({ store, live, settings, clock, log, keeper, events, promises }: AppEditorParts) {
    this.#promises = promises;
    this.#store = store;
    this.#live = live;
    this.#settings = settings;
    this.#clock = clock;
    this.#log = log;
    this.#keeper = keeper;
    this.#events = events;
  }

  async list(): Promise<AppSummary[]> {
    const drafts = await this.#store.apps.drafts();
    return Promise.all(drafts.map((draft) => this.#summary(draft)));
  }

  async #summary(draft: DraftRow): Promise<AppSummary> {
    const edition = await this.#store.apps.edition(draft.app);
    const { definition, problems } = checkAppFile(draft.source);
    const count = (severity: string) => problems.filter((problem) => problem.severity === severity).length;
    const known = definition ?? this.#live.byName(draft.app)?.definition;
    const stuck = this.#live.stuck.find(({ app }) => app === draft.app);
    return {
      app: draft.app,
      title: known?.title ?? draft.app,
      mount: known?.mount ?? '',
      ...(edition ? { edition: { number: edition.number, publishedAt: edition.publishedAt } } : {}),
      draft: { revision: draft.revision, changedAt: draft.changedAt, changed: edition?.source !== draft.source },
      problems: { errors: count('error'), warnings: count('warning') },
      ...(stuck ? { stuck: stuck.problems[0]?.message ?? 'Its edition cannot be read.' } : {}),
    };
  }

  async draft(app: string): Promise<Draft> {
    const row = await this.#draftRow(app);
    return { ...this.#asDraft(row, checkAppFile(row.source)), data: this.#keeper.data(row) };
  }

  /**
   * Keeps a draft, broken or not, so that nothing typed is lost, and with it all records and pictures, or nothing.
   * A text that the draft has already changes nothing, whatever revision it was made from.
   * @throws Refused with every problem of the records; where records would be lost; with what others have changed since
   * the revision that the text was made from
   */
  async push(
    app: string,
    { source, revision, records, replace = false, files = {}, what = 'Pushed the app file' }: Push,
    builder: Pick<Builder, 'name'> = theOwner,
  ): Promise<PushedDraft> {
    const checked = checkAppFile(source);
    const { definition } = checked;
    if (definition && definition.app !== app) throw new Refused(422, `The app file is of “${definition.app}”, not of “${app}”.`);
    // A first push of something that is no app would leave a draft nobody can name.
    if (!definition && !(await this.#store.apps.draft(app)))
      throw new Refused(422, 'The app file has errors, and there is no draft yet to keep them in.', checked.problems);
    const odd = Object.entries(files).find(([name, bytes]) => !looksLike(mediaTypeOf(name), bytes));
    if (odd !== undefined) throw new Refused(422, `The file “${odd[0]}” is no picture of the kind that its name says.`);
    const staged = records === undefined ? undefined : await this.#stage(definition, checked.problems, records);
    try {
      if (definition && staged) await this.#guardLosses(definition, staged.staged, replace);
      const versions = this.#store.records.version(app);
      const row = await this.#store.transaction(async (stores) => {
        const { saved, discarded } = await putDraft(stores.apps, { app, source, revision, replace }, { by: builder.name, what });
        if (definition) await stores.records.prepare(app, definition.collections ?? {});
        if (definition && staged && staged.staged.length > 0) {
          // A visitor may have written while the records came in.
          if (this.#store.records.version(app) !== versions && !replace) await this.#mustLoseNothing(stores, staged.staged);
          for (const one of staged.staged) await stores.records.take(one, false);
          await stores.records.endTrial(app);
        }
        for (const [name, bytes] of Object.entries(files)) await stores.files.put(app, name, bytes);
        return { ...saved, discarded };
      });
      this.#tidy(definition);
      const { revision: now, discarded } = row;
      this.#events.tell(app, { kind: 'changed', revision: now, by: builder.name, what, patch: null });
      return { ...this.#asDraft(row, checked), ...(discarded.length > 0 ? { discarded: discarded.map(asChange) } : {}) };
    } catch (error) {
      await staged?.drop();
      this.#tidy(undefined);
      throw error;
    }
  }

  /** Brings records into one collection of the published app, or of the draft where nothing is published yet. */
  async importRecords(app: string, source: RecordSource, mode: ImportMode, replace: boolean): Promise<Imported> {
    const definition = await this.#definition(app);
    const { collections = {} } = definition;
    if (own(collections, source.collection) === undefined)
      throw new Refused(404, `The app “${app}” has no collection “${source.collection}”.`);
    await this.#store.records.prepare(app, collections);
    const staged = await this.#stage(definition, [], [source]);
    try {
      const exports = mode === 'replace' ? await this.#guardLosses(definition, staged.staged, replace) : [];
      await this.#store.transaction(async (stores) => {
        for (const one of staged.staged) await stores.records.take(one, mode === 'update');
        await stores.records.endTrial(app);
      });
      this.#tidy(definition);
      return { collection: source.collection, rows: staged.rows, exports };
    } catch (error) {
      await staged.drop();
      this.#tidy(undefined);
      throw error;
    }
  }

  /** The definition whose collections the app’s records are in now. */
  async #definition(app: string): Promise<AppDefinition> {
    const live = this.#live.byName(app)?.definition;
    if (live) return live;
    const { definition, problems } = checkAppFile((await this.#draftRow(app)).source);
    if (!definition) throw new Refused(422, 'The draft has errors, so its collections cannot be read.', problems);
    return definition;
  }

  /** The app’s collections, and where their records are. */
  async collectionsOf(app: string): Promise<AppDefinition> {
    return this.#definition(app);
  }

  /** Takes records in beside those that are there. @throws Refused with every fault; then nothing is kept of them */
  async #stage(
    definition: AppDefinition | undefined,
    problems: readonly Problem[],
    records: AsyncIterable<RecordSource> | Iterable<RecordSource>,
  ): Promise<RecordImport> {
    if (!definition) throw new Refused(422, 'The app file has errors, so its records cannot be read.', problems);
    const today = todayIn(definition.timeZone ?? 'UTC', this.#clock());
    const gathered = new RecordImport(this.#store, definition, definition.app, today);
    try {
      for await (const source of records) await gathered.add(source);
      await gathered.checkReferences();
    } catch (error) {
      await gathered.drop();
      throw error;
    }
    const wrong = gathered.problems;
    if (wrong.length > 0) {
      await gathered.drop();
      this.#tidy(undefined);
      throw new Refused(422, 'The records have errors; nothing was changed.', wrong);
    }
    return gathered;
  }

  /** Lets records be lost only with consent, and writes them out before. @returns the files that were written */
  async #guardLosses(definition: AppDefinition, staged: readonly StagedRecords[], replace: boolean): Promise<string[]> {
    if (!replace) {
      await this.#mustLoseNothing(this.#store, staged);
      return [];
    }
    const files: string[] = [];
    for (const one of staged) {
      const { removed, overwritten } = await this.#store.records.differences(one);
      if (removed.count + overwritten.count === 0) continue;
      files.push(await exportBeside(this.#store, definition, one.collection, this.#settings.data, this.#clock));
    }
    return files;
  }

  /** @throws Refused that says which records would be gone or changed */
  async #mustLoseNothing({ records }: Pick<Stores, 'records'>, staged: readonly StagedRecords[]): Promise<void> {
    const problems: Problem[] = [];
    for (const one of staged) {
      const { removed, overwritten } = await records.differences(one);
      const add = (code: string, message: string) =>
        problems.push({
          code,
          severity: 'error',
          message,
          hint: 'Send it with “replace” (--replace) to do it all the same; what is lost is written into a file beside the database before.',
          pointer: `/data/${one.collection}`,
        });
      const many = (count: number) => (count === 1 ? '1 record' : `${count.toLocaleString('en')} records`);
      if (overwritten.count > 0)
        add(
          'people-records-lost',
          `${many(overwritten.count)} of “${one.collection}” that people have written would be removed or overwritten: ${listed(overwritten)}.`,
        );
      if (removed.count > 0)
        add(
          'records-removed',
          `${many(removed.count)} of “${one.collection}” would be removed, and links to them would break: ${listed(removed)}.`,
        );
    }
    if (problems.length > 0) throw new Refused(409, 'Records would be lost; nothing was changed.', problems);
  }

  async patch(app: string, revision: number, patch: readonly PatchOperation[], builder: Pick<Builder, 'name'>): Promise<Draft> {
    const present = await this.#draftRow(app);
    if (present.revision !== revision) throw new Refused(409, movedOn);
    let source: string;
    try {
      source = patchSource(present.source, patch);
    } catch (error) {
      if (error instanceof ProblemError) throw new Refused(422, error.message, error.problems);
      throw error;
    }
    const checked = checkAppFile(source);
    if (checked.definition && checked.definition.app !== app) throw new Refused(422, 'An app keeps its name.');
    const what = 'Changed the app file by a patch';
    const row = await this.#store.apps.saveDraft(app, source, revision, { by: builder.name, what, patch: JSON.stringify(patch) });
    if (!row) throw new Refused(409, movedOn);
    this.#events.tell(app, { kind: 'changed', revision: row.revision, by: builder.name, what, patch });
    return this.#asDraft(row, checked);
  }

  /**
   * Publishes the draft: checks it, and that the records fit it; makes the tables and stores the edition, both or none;
   * then serves it. The present edition goes on when it is refused.
   */
  async publish(
    app: string,
    { revision, note = '', consents = [] }: Publishing = {},
    builder: Pick<Builder, 'name'> = theOwner,
  ): Promise<{ app: string; edition: number; mount: string }> {
    const row = await this.#draftRow(app);
    if (revision !== undefined && row.revision !== revision) throw new Refused(409, movedOn);
    const { definition, compiled, problems } = checkAppFile(row.source);
    if (!definition || !compiled || !mayPublish(problems))
      throw new Refused(422, 'The draft has errors and was not published; the present edition stays.', problems);
    const rival = this.#live.all().find((hosted) => hosted.definition.mount === definition.mount && hosted.definition.app !== app);
    if (rival) {
      const message = `The app “${rival.definition.app}” is mounted at ${definition.mount} already.`;
      throw new Refused(422, message, [
        { code: 'mount-taken', severity: 'error', message, hint: 'Choose another mount.', pointer: '/mount' },
      ]);
    }
    const { findings, open } = await this.#promises.check({ definition, compiled }, consents);
    if (open.length > 0) throw new Refused(422, linksWouldChange, open.map(asLinkProblem));
    const edition = await this.#store.transaction(async (stores) => {
      await stores.records.prepare(app, definition.collections ?? {});
      const misfits = await stores.records.misfits(app, definition);
      if (misfits.length > 0)
        throw new Refused(422, 'Records do not fit the draft, so it was not published; the present edition stays.', misfits.map(asProblem));
      await stores.records.convert(app, definition);
      await stores.records.endTrial(app);
      const published = await stores.apps.publish(app, row.source, { by: builder.name, note });
      await this.#promises.keep(stores, definition, published.number, findings, consents, builder.name);
      return published;
    });
    await this.#live.serve(edition);
    this.#tidy(undefined);
    this.#events.tell(app, { kind: 'published', edition: edition.number, by: builder.name });
    return { app, edition: edition.number, mount: definition.mount };
  }

  /** Begins to remove what an earlier run has left. */
  open(): void {
    this.#tidy(undefined);
    this.#timer = setInterval(() => {
      this.#tidy(undefined);
    }, tidyEvery).unref();
  }

  /**
   * Removes an app with all that belongs to it.
   * @param revision the draft that was seen; refused if it has changed
   */
  async remove(app: string, revision: number): Promise<void> {
    await this.#store.transaction(async ({ apps, records }) => {
      const row = await apps.draft(app);
      if (row?.revision !== revision) throw new Refused(412, 'The draft has changed meanwhile. Get it again, then decide again.');
      await apps.remove(app);
      await records.removeAll(app);
    });
    this.#live.forget(app);
    this.#tidy(undefined);
    this.#log.info({ app }, 'an app was removed');
  }

  /** Waits for what is removed in the background. */
  async close(): Promise<void> {
    clearInterval(this.#timer);
    await this.#sweeping;
  }

  /** Removes in the background what is not in use any more: tables that were replaced, files that no record has. */
  #tidy(definition: AppDefinition | undefined): void {
    this.#sweeping = this.#sweeping
      .then(async () => {
        await this.#store.records.sweep();
        await removeOldExports(this.#settings.data, this.#settings.keepExportDays, this.#clock);
        if (definition) await this.#loosenFiles(definition);
      })
      .catch((error: unknown) => {
        this.#log.error({ err: error }, 'what is not in use any more was not removed');
      });
  }

  async #loosenFiles({ app, collections = {} }: AppDefinition): Promise<void> {
    const fields = Object.entries(collections).flatMap(([collection, { fields: declared }]) =>
      Object.entries(declared).flatMap(([field, { type }]) => (type === 'file' ? [{ collection, field }] : [])),
    );
    if (fields.length === 0) return;
    await this.#store.sentFiles.loosenUnless(app, async (value) => {
      for (const { collection, field } of fields) {
        const read = {
          from: collection,
          where: [{ field, operator: 'equals' as const, value }],
          sort: [],
          page: 1,
          size: 1,
          nothing: false,
        };
        if ((await this.#store.records.read(app, collections, read, {})).total > 0) return true;
      }
      return false;
    });
  }

  /** A draft with its problems: what the check finds, and what addresses of the published edition would lose. */
  #asDraft({ app, revision, source }: DraftRow, { definition, problems }: CheckedApp): Draft {
    const live = this.#live.byName(app)?.definition;
    const changes = definition && live ? listFormChanges(live, definition) : [];
    return { app, revision, source, problems: [...problems, ...changes] };
  }

  /** The editions of an app, the newest first. */
  async editions(app: string): Promise<Edition[]> {
    await this.#draftRow(app);
    return (await this.#store.apps.editionsOf(app)).map(asEdition);
  }

  /** An edition with its text, and what it says. */
  async edition(app: string, number: number): Promise<Edition & { source: string; data: unknown }> {
    const row = await this.#store.apps.edition(app, number);
    if (!row) throw new Refused(404, `The app has no edition ${String(number)}.`);
    return { ...asEdition(row), source: row.source, data: new DraftDocument(row.source).data };
  }

  /** The newest changes of the draft, the newest first. */
  async changes(app: string): Promise<DraftChange[]> {
    await this.#draftRow(app);
    return (await this.#store.apps.changes(app, shownChanges)).map(asChange);
  }

  async #draftRow(app: string): Promise<DraftRow> {
    const row = await this.#store.apps.draft(app);
    if (!row) throw new Refused(404, `There is no app “${app.slice(0, 60)}”.`);
    return row;
  }
}

const linksWouldChange =
  'Addresses of earlier editions would no longer mean the same, so the draft was not published. Repair each of these, or agree to it.';

const asLinkProblem = ({ id, fate, words, witness, page, printed: [code] }: Finding): Problem => ({
  code: `link-${fate}`,
  severity: 'error',
  message: words,
  hint:
    code === undefined
      ? `For example ${witness}. “pallmist rehearse” offers repairs; to publish all the same, agree to ${id}.`
      : `${code.address} is printed (${code.note}), so this needs a repair. “pallmist rehearse” offers some.`,
  pointer: toPointer(['pages', page]),
});

const asEdition = ({ number, publishedAt, publishedBy, note }: Omit<EditionRow, 'source'>): Edition => ({
  number,
  publishedAt,
  by: publishedBy,
  note,
});

const asProblem = ({ collection, field, problem, count, keys }: Misfit): Problem => ({
  code: 'records-misfit',
  severity: 'error',
  message: `In ${count === 1 ? '1 record' : `${count.toLocaleString('en')} records`} of “${collection}” the field “${field}” ${problem}: ${listed({ count, keys })}.`,
  hint: 'Correct these records first, or take the change back.',
  pointer: `/collections/${collection}/fields/${field}`,
});
