import { ApiError } from '@pallmist/api';
import { checkAppFile } from '@pallmist/app/check';
import { compileApp, mayPublish, patchSource, ProblemError, type CompiledApp, type PatchOperation, type Problem } from '@pallmist/app';
import { client, explain } from './calls.ts';

/** One app while it is being worked on: the text of its draft, what is wrong in it, and whether it is saved. */
export class DraftEditor {
  readonly app: string;
  #source = $state('');
  #saved = $state('');
  #foundByService: Problem[] = $state.raw([]);
  revision = $state(0);
  loaded = $state(false);
  /** How often changes were thrown away: what was typed and refused goes with them. */
  reverts = $state(0);
  working: 'saving' | 'publishing' | undefined = $state();
  /** What happened last, for people. */
  message: { tone: 'good' | 'bad'; text: string } | undefined = $state();
  /** The draft was changed elsewhere since it was loaded here. */
  stale = $state(false);

  readonly checked = $derived.by(() => {
    const checked = checkAppFile(this.#source);
    // What only the service finds out holds as long as nothing is changed.
    const more = this.dirty ? [] : this.#foundByService.filter(({ code }) => !checked.problems.some((problem) => problem.code === code));
    return { ...checked, problems: [...checked.problems, ...more] };
  });
  readonly dirty = $derived(this.#source !== this.#saved);
  readonly publishable = $derived(mayPublish(this.checked.problems));
  /** The saved draft’s addresses, as the frame beside it is served. */
  readonly savedApp: CompiledApp | undefined = $derived.by(() => {
    const { definition } = checkAppFile(this.#saved);
    return definition && compileApp(definition).app;
  });

  constructor(app: string) {
    this.app = app;
  }

  async load(): Promise<void> {
    try {
      const draft = await client.call('getDraft', { app: this.app });
      this.#source = this.#saved = draft.source;
      this.revision = draft.revision;
      this.#foundByService = draft.problems as Problem[];
      this.stale = false;
      this.message = undefined;
      this.loaded = true;
    } catch (error) {
      this.message = { tone: 'bad', text: explain(error) };
    }
  }

  /** Changes the text by a JSON Patch; comments and order stay. */
  edit(patch: readonly PatchOperation[]): void {
    if (patch.length === 0) return;
    try {
      this.#source = patchSource(this.#source, patch);
      this.message = undefined;
    } catch (error) {
      this.message = { tone: 'bad', text: error instanceof ProblemError ? error.message : explain(error) };
    }
  }

  /** Throws away what is not saved. */
  revert(): void {
    this.reverts++;
    this.#source = this.#saved;
    this.message = undefined;
  }

  /** @returns whether the draft is on disk */
  async save(): Promise<boolean> {
    if (!this.dirty) return true;
    this.working = 'saving';
    try {
      const draft = await client.call('pushDraft', { app: this.app }, { source: this.#source, revision: this.revision });
      this.#saved = draft.source;
      this.revision = draft.revision;
      this.#foundByService = draft.problems as Problem[];
      this.message = { tone: 'good', text: `Saved as draft ${String(draft.revision)}.` };
      return true;
    } catch (error) {
      this.stale = error instanceof ApiError && error.status === 409;
      this.message = { tone: 'bad', text: explain(error) };
      return false;
    } finally {
      this.working = undefined;
    }
  }

  async publish(): Promise<void> {
    if (!(await this.save())) return;
    this.working = 'publishing';
    try {
      const { edition, mount } = await client.call('publish', { app: this.app }, { revision: this.revision });
      this.message = { tone: 'good', text: `Edition ${String(edition)} is served at ${mount}.` };
    } catch (error) {
      this.message = { tone: 'bad', text: explain(error) };
    } finally {
      this.working = undefined;
    }
  }

  /** The problems of one page, or of what belongs to no page. */
  problemsOf(page: string | undefined): Problem[] {
    return this.checked.problems.filter(({ pointer = '' }) =>
      page === undefined ? !pointer.startsWith('/pages/') : pointer === `/pages/${page}` || pointer.startsWith(`/pages/${page}/`),
    );
  }
}
