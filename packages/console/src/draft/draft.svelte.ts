import { ApiError, type BodyOf, type DraftChange } from '@pallmist/api';
import { ProblemError, type CompiledApp, type PatchOperation, type Problem } from '@pallmist/app/address';
import { AppChecker, invertPatch, mayPublish, patchData, type AppDefinition, type CheckedApp, setValue } from '@pallmist/app/editing';
import { client, explain } from '../service/calls.ts';
import { DraftEventStream, type DraftEvent } from './event-stream.ts';
import { keepWaiting, takeWaiting, wordsOf, type PendingChange } from './pending.ts';

/** A change that can be taken back. */
interface Step {
  what: string;
  patch: PatchOperation[];
  inverse: PatchOperation[];
}

/** What this console and others have changed at the same place. */
interface Conflict {
  mine: PendingChange[];
  others: readonly DraftChange[];
}

/** Milliseconds after the last change until it is sent; a fast typist’s letters go together. */
const restBeforeSend = 150;
/** Milliseconds within which changes with the same key are one step of undo. */
const coalesceFor = 1500;
/** Milliseconds of the last check from which on the next one waits until the change is painted. */
const longCheck = 30;
const firstRetry = 1000;
const longestRetry = 20_000;
const mostSteps = 300;

/** One app while it is being built: its data, what is wrong in it, what waits to be saved, and what can be undone. */
export class Draft {
  readonly app: string;
  /** The app file as data, with everything that was done here; undefined while loading or where the text is not well-formed. */
  data: unknown = $state.raw();
  #base: unknown;
  revision = $state(0);
  loaded = $state(false);
  /** The text, where it is not well-formed and only the file editor can help. */
  brokenText: string | undefined = $state.raw();
  failure: string | undefined = $state();
  pending: readonly PendingChange[] = $state.raw([]);
  #sending = 0;
  connected = $state(true);
  conflict: Conflict | undefined = $state.raw();
  /** Names of the builders who have the draft open, this one too. */
  here: readonly string[] = $state.raw([]);
  /** What others did last. */
  notice: string | undefined = $state();
  /** Why a change was not made. */
  refused: string | undefined = $state();
  #undo: Step[] = $state.raw([]);
  #redo: Step[] = $state.raw([]);
  #coalesce: { key: string; at: number } | undefined;
  checked: CheckedApp = $state.raw({ problems: [] });
  /** The latest state that had the shape of an app. */
  #sound: { definition: AppDefinition; compiled: CompiledApp } | undefined = $state.raw();
  /** How often the service has taken a change: the page shown is drawn again then. */
  saves = $state(0);
  publishedEdition: AppDefinition | undefined = $state.raw();

  readonly #checker = new AppChecker();
  #lastCheck = 0;
  #checkTimer: number | undefined;
  #sendTimer: number | undefined;
  #retry = firstRetry;
  #stream: DraftEventStream | undefined;
  readonly #late: DraftEvent[] = [];

  readonly publishable = $derived(this.checked.definition !== undefined && mayPublish(this.checked.problems));
  readonly errors = $derived(this.checked.problems.filter(({ severity }) => severity === 'error').length);
  readonly warnings = $derived(this.checked.problems.length - this.errors);
  readonly saved = $derived(this.pending.length === 0);

  constructor(app: string) {
    this.app = app;
  }

  /** Called when a frame of this builder has got a document of the draft. */
  shown: ((address: string) => void) | undefined;

  /** The app as it is now. Right after an edit it is not checked yet. */
  get definition(): AppDefinition | undefined {
    return this.#sound === undefined ? undefined : (this.data as AppDefinition);
  }

  /** The latest checked state of which addresses can be read and written. */
  get compiled(): CompiledApp | undefined {
    return this.#sound?.compiled;
  }

  get undoable(): string | undefined {
    return this.#undo.at(-1)?.what;
  }

  get redoable(): string | undefined {
    return this.#redo.at(-1)?.what;
  }

  async open(): Promise<void> {
    await this.load();
    this.#stream = new DraftEventStream(this.app, {
      event: (event) => {
        this.#hear(event);
      },
      connected: (connected) => {
        const back = connected && !this.connected;
        this.connected = connected;
        if (back) void this.#catchUp();
      },
    });
  }

  close(): void {
    this.#stream?.close();
    window.clearTimeout(this.#sendTimer);
    window.clearTimeout(this.#checkTimer);
    void this.#send();
  }

  async load(): Promise<void> {
    try {
      const draft = await client.call('getDraft', { app: this.app });
      this.#base = draft.data;
      this.revision = draft.revision;
      this.brokenText = draft.data === undefined ? draft.source : undefined;
      const waiting = takeWaiting(this.app);
      this.pending = waiting?.changes ?? [];
      if (!this.#rebase()) this.conflict = { mine: [...this.pending], others: [] };
      this.checked = { problems: draft.problems as Problem[] };
      this.#check();
      this.failure = undefined;
      this.loaded = true;
      if (this.pending.length > 0) void this.#send(waiting?.revision);
      void this.#loadEdition();
    } catch (error) {
      this.failure = explain(error);
    }
  }

  /**
   * Makes a change: at once here, and within a moment on the service.
   * @param what what it does, in words
   * @param coalesce changes in a row with the same key are one step of undo
   */
  edit(patch: readonly PatchOperation[], what: string, coalesce?: string): boolean {
    if (patch.length === 0 || this.data === undefined) return false;
    const change = { patch: structuredClone(patch) as PatchOperation[], what };
    const inverse = this.#apply(change);
    if (inverse === undefined) return false;
    const now = performance.now();
    const goesOn = coalesce !== undefined && this.#coalesce?.key === coalesce && now - this.#coalesce.at < coalesceFor;
    const last = this.#undo.at(-1);
    if (goesOn && last)
      this.#undo = [...this.#undo.slice(0, -1), { what, patch: [...last.patch, ...change.patch], inverse: [...inverse, ...last.inverse] }];
    else this.#undo = [...this.#undo.slice(1 - mostSteps), { what, patch: change.patch, inverse }];
    this.#coalesce = coalesce === undefined ? undefined : { key: coalesce, at: now };
    this.#redo = [];
    return true;
  }

  /** Puts a value at a place, or takes it out where it is undefined. */
  set(pointer: string, value: unknown, what: string): boolean {
    return this.edit(setValue(this.data, pointer, value), what, pointer);
  }

  undo(): void {
    const step = this.#undo.at(-1);
    if (step === undefined) return;
    this.#undo = this.#undo.slice(0, -1);
    if (this.#apply({ patch: step.inverse, what: `Undo: ${step.what}` })) this.#redo = [...this.#redo, step];
    this.#coalesce = undefined;
  }

  redo(): void {
    const step = this.#redo.at(-1);
    if (step === undefined) return;
    this.#redo = this.#redo.slice(0, -1);
    const inverse = this.#apply({ patch: step.patch, what: step.what });
    if (inverse) this.#undo = [...this.#undo, { ...step, inverse }];
  }

  /** The problems at a place and below it. */
  problemsAt(pointer: string): Problem[] {
    return this.checked.problems.filter(({ pointer: at = '' }) => at === pointer || at.startsWith(`${pointer}/`));
  }

  /** What was changed here and by others at the same place: ours goes on top of theirs, or is dropped. */
  settleConflict(keep: 'mine' | 'theirs'): void {
    this.conflict = undefined;
    if (keep === 'theirs') {
      this.pending = [];
      this.#undo = [];
      this.#redo = [];
    }
    if (!this.#rebase()) {
      this.refused = 'Your changes no longer fit the draft, so they were dropped. Do them again.';
      this.pending = [];
      this.#rebase();
    }
    this.#keep();
    this.#checkSoon();
    void this.#send();
  }

  /** Puts a whole text in the place of the draft, as the file editor does. @returns why it was refused */
  async replaceText(source: string, what: string): Promise<string | undefined> {
    await this.#send();
    if (!this.saved) return 'Wait until your other changes are saved.';
    try {
      const draft = await client.call('pushDraft', { app: this.app }, { source, revision: this.revision, what });
      this.revision = draft.revision;
      await this.load();
      this.saves++;
      return undefined;
    } catch (error) {
      return explain(error);
    }
  }

  /** Waits until everything is on the service’s disk. @returns whether it is */
  async flush(): Promise<boolean> {
    window.clearTimeout(this.#sendTimer);
    for (let tries = 0; tries < 50 && !this.saved && this.conflict === undefined; tries++) {
      await this.#send();
      await new Promise((resolve) => window.setTimeout(resolve, this.pending.length === 0 ? 0 : 100));
    }
    return this.saved;
  }

  /** @param consents changes of what earlier addresses mean that the builder agrees to */
  async publish(
    note: string,
    consents: BodyOf<'publish'>['consents'] = [],
  ): Promise<{ edition: number; mount: string } | { failure: string }> {
    if (!(await this.flush())) return { failure: 'Your changes are not saved yet, so nothing was published. Try again in a moment.' };
    try {
      const published = await client.call('publish', { app: this.app }, { revision: this.revision, note, consents });
      await this.#loadEdition();
      return published;
    } catch (error) {
      if (error instanceof ApiError && error.details.problems) {
        const [first] = error.details.problems;
        return { failure: `${error.message} ${first?.message ?? ''}` };
      }
      return { failure: explain(error) };
    }
  }

  async #loadEdition(): Promise<void> {
    try {
      const { editions } = await client.call('listEditions', { app: this.app });
      const [newest] = editions;
      if (newest === undefined) return;
      const edition = await client.call('getEdition', { app: this.app, number: String(newest.number) });
      this.publishedEdition = edition.data as AppDefinition;
    } catch {
      // What is published is shown again when it is asked for.
    }
  }

  /** @returns the patch that takes the change back; undefined where it could not be made */
  #apply(change: PendingChange): PatchOperation[] | undefined {
    let inverse: PatchOperation[];
    try {
      inverse = invertPatch(this.data, change.patch);
      this.data = patchData(this.data, change.patch);
    } catch (error) {
      this.refused = error instanceof ProblemError ? `That could not be changed: ${error.message}` : explain(error);
      return undefined;
    }
    this.refused = undefined;
    this.pending = [...this.pending, change];
    this.#keep();
    this.#checkSoon();
    window.clearTimeout(this.#sendTimer);
    this.#sendTimer = window.setTimeout(() => void this.#send(), restBeforeSend);
    return inverse;
  }

  /** Makes the data what the service has, with what waits on top. @returns whether that fits */
  #rebase(): boolean {
    try {
      this.data = this.pending.reduce<unknown>((data, { patch }) => patchData(data, patch), this.#base);
      return true;
    } catch {
      this.data = this.#base;
      return false;
    }
  }

  #keep(): void {
    keepWaiting(this.app, this.revision, this.pending);
  }

  #checkSoon(): void {
    window.clearTimeout(this.#checkTimer);
    if (this.#lastCheck < longCheck) this.#check();
    // After the next picture: what was typed is seen first.
    else
      requestAnimationFrame(() => {
        this.#checkTimer = window.setTimeout(() => {
          this.#check();
        });
      });
  }

  #check(): void {
    if (this.data === undefined) return;
    const began = performance.now();
    const checked = this.#checker.check(this.data);
    this.#lastCheck = performance.now() - began;
    this.checked = checked;
    if (checked.definition && checked.compiled) this.#sound = { definition: checked.definition, compiled: checked.compiled };
  }

  async #send(basedOn?: number): Promise<void> {
    if (this.#sending > 0 || this.pending.length === 0 || this.conflict !== undefined) return;
    const sent = this.pending;
    const patch = sent.flatMap((change) => change.patch);
    const what = wordsOf(sent);
    this.#sending++;
    try {
      const answer = await client.call('changeDraft', { app: this.app }, { revision: basedOn ?? this.revision, patch, what });
      if (answer.outcome === 'asked') {
        await this.#adopt(answer.others, answer.revision);
        this.conflict = { mine: [...this.pending], others: answer.others };
      } else {
        for (const other of answer.others) if (other.revision > this.revision) this.#base = patchData(this.#base, other.patch ?? []);
        this.#base = patchData(this.#base, patch);
        this.revision = answer.revision;
        this.pending = this.pending.slice(sent.length);
        if (answer.others.length > 0) {
          this.#rebase();
          this.#check();
          this.#tellOf(answer.others);
        }
        this.#keep();
        this.saves++;
      }
      this.#retry = firstRetry;
      this.connected = true;
    } catch (error) {
      this.#failed(error, sent.length);
    } finally {
      this.#sending--;
    }
    this.#hearLate();
    if (this.pending.length > 0 && this.conflict === undefined && this.connected) void this.#send();
  }

  #failed(error: unknown, sent: number): void {
    if (error instanceof ApiError && error.status < 500 && error.status !== 401 && error.status !== 429) {
      // The service will never take it: it is taken back here, and said.
      this.refused = `${explain(error)} The change was taken back.`;
      this.pending = this.pending.slice(sent);
      this.#rebase();
      this.#keep();
      this.#check();
      return;
    }
    this.connected = false;
    this.#sendTimer = window.setTimeout(() => {
      void this.#send();
    }, this.#retry);
    this.#retry = Math.min(this.#retry * 2, longestRetry);
  }

  #hear(event: DraftEvent): void {
    if (event.kind === 'here') this.here = event.builders;
    else if (event.kind === 'shown') this.shown?.(event.address);
    else if (event.kind === 'published') void this.#loadEdition();
    else if (this.#sending > 0) this.#late.push(event);
    else void this.#follow(event);
  }

  #hearLate(): void {
    for (const event of this.#late.splice(0)) if (event.kind === 'changed') void this.#follow(event);
  }

  async #follow({ revision, by, what, patch }: Extract<DraftEvent, { kind: 'changed' }>): Promise<void> {
    if (revision <= this.revision) return;
    this.notice = `${by}: ${what}`;
    if (patch !== null && revision === this.revision + 1) await this.#adopt([{ revision, at: '', by, what, patch }], revision);
    else await this.#catchUp();
    this.saves++;
  }

  /** Puts what others have done beneath what waits here. */
  async #adopt(others: readonly DraftChange[], revision: number): Promise<void> {
    const news = others.filter((other) => other.revision > this.revision);
    if (news.some(({ patch }) => patch === null) || news.length < revision - this.revision) {
      await this.#catchUp();
      return;
    }
    try {
      this.#base = news.reduce<unknown>((data, { patch }) => patchData(data, patch ?? []), this.#base);
    } catch {
      await this.#catchUp();
      return;
    }
    this.revision = revision;
    if (!this.#rebase()) this.conflict = { mine: [...this.pending], others: news };
    this.#check();
  }

  /** Takes the draft as the service has it. */
  async #catchUp(): Promise<void> {
    try {
      const draft = await client.call('getDraft', { app: this.app });
      if (draft.revision <= this.revision && this.#base !== undefined) {
        void this.#send();
        return;
      }
      this.#base = draft.data;
      this.brokenText = draft.data === undefined ? draft.source : undefined;
      this.revision = draft.revision;
      if (!this.#rebase()) this.conflict = { mine: [...this.pending], others: [] };
      this.checked = { problems: draft.problems as Problem[] };
      this.#check();
      void this.#send();
    } catch {
      this.connected = false;
    }
  }

  #tellOf(others: readonly DraftChange[]): void {
    const last = others.at(-1);
    if (last) this.notice = `${last.by}: ${last.what}`;
  }
}
