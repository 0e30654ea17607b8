import type { AppSummary, Draft } from '@pallmist/api';
import { checkAppFile, mayPublish, patchSource, ProblemError, type CheckedApp, type PatchOperation } from '@pallmist/core';
import type { LiveApps } from '../host/live-apps.ts';
import type { DraftRow } from '../store/entities/index.ts';
import { readCsv } from '../store/import-csv.ts';
import type { Store } from '../store/open-store.ts';
import { Refused } from './problem-details.ts';

const movedOn = 'The draft has changed meanwhile. Get it again, and make your change anew.';

/** What the owner does with apps: drafts, data, editions. */
export class AppService {
  readonly #store: Store;
  readonly #live: LiveApps;

  constructor(store: Store, live: LiveApps) {
    this.#store = store;
    this.#live = live;
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
    return {
      app: draft.app,
      title: known?.title ?? draft.app,
      mount: known?.mount ?? '',
      ...(edition ? { edition: { number: edition.number, publishedAt: edition.publishedAt } } : {}),
      draft: { revision: draft.revision, changedAt: draft.changedAt, changed: edition?.source !== draft.source },
      problems: { errors: count('error'), warnings: count('warning') },
    };
  }

  async draft(app: string): Promise<Draft> {
    const row = await this.#draftRow(app);
    return asDraft(row, checkAppFile(row.source));
  }

  /**
   * Keeps a draft, broken or not, so that nothing typed is lost; data are taken only when all of them are right.
   */
  async push(
    app: string,
    source: string,
    revision: number | undefined,
    data?: Record<string, string>,
    files?: Record<string, string>,
  ): Promise<Draft> {
    const checked = checkAppFile(source);
    if (checked.definition && checked.definition.app !== app) {
      throw new Refused(422, `The app file is of “${checked.definition.app}”, not of “${app}”.`);
    }
    // A first push of something that is no app would leave a draft nobody can name.
    if (!checked.definition && !(await this.#store.apps.draft(app))) {
      throw new Refused(422, 'The app file has errors, and there is no draft yet to keep them in.', checked.problems);
    }
    const imports = Object.entries(data ?? {}).map(([collection, text]) => {
      if (!checked.definition) throw new Refused(422, 'The app file has errors, so its data cannot be read.', checked.problems);
      return { collection, ...readCsv(checked.definition, collection, text) };
    });
    const wrong = imports.flatMap(({ problems }) => problems);
    if (wrong.length > 0) throw new Refused(422, 'The data have errors; nothing was changed.', wrong);
    const row = await this.#store.apps.saveDraft(app, source, revision);
    if (!row) throw new Refused(409, movedOn);
    const { collections = {} } = checked.definition ?? {};
    if (checked.definition) this.#store.writer.prepare(app, collections);
    if (imports.length > 0) this.#store.trials.end(app);
    for (const { collection, records } of imports) {
      const definition = collections[collection];
      if (definition) this.#store.writer.replaceAll(app, collection, definition, records);
    }
    for (const [name, base64] of Object.entries(files ?? {})) await this.#store.files.put(app, name, Buffer.from(base64, 'base64'));
    return asDraft(row, checked);
  }

  async patch(app: string, revision: number, patch: readonly PatchOperation[]): Promise<Draft> {
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
    const row = await this.#store.apps.saveDraft(app, source, revision);
    if (!row) throw new Refused(409, movedOn);
    return asDraft(row, checked);
  }

  /** Publishes the draft; the present edition goes on when it is refused. */
  async publish(app: string, revision: number | undefined): Promise<{ app: string; edition: number; mount: string }> {
    const row = await this.#draftRow(app);
    if (revision !== undefined && row.revision !== revision) throw new Refused(409, movedOn);
    const { definition, problems } = checkAppFile(row.source);
    if (!definition || !mayPublish(problems)) {
      throw new Refused(422, 'The draft has errors and was not published; the present edition stays.', problems);
    }
    const rival = this.#live.all().find((hosted) => hosted.definition.mount === definition.mount && hosted.definition.app !== app);
    if (rival) {
      const message = `The app “${rival.definition.app}” is mounted at ${definition.mount} already.`;
      throw new Refused(422, message, [
        { code: 'mount-taken', severity: 'error', message, hint: 'Choose another mount.', pointer: '/mount' },
      ]);
    }
    const edition = await this.#store.apps.publish(app, row.source);
    this.#store.trials.end(app);
    this.#live.put(app, row.source);
    return { app, edition: edition.number, mount: definition.mount };
  }

  async #draftRow(app: string): Promise<DraftRow> {
    const row = await this.#store.apps.draft(app);
    if (!row) throw new Refused(404, `There is no app “${app.slice(0, 60)}”.`);
    return row;
  }
}

const asDraft = (row: DraftRow, checked: CheckedApp): Draft => ({
  app: row.app,
  revision: row.revision,
  source: row.source,
  problems: checked.problems,
});
