import { LiveAddress } from '@pallmist/browser/app';
import {
  compileApp,
  readAddress,
  readPlainText,
  Refusal,
  type Reading,
  SealBook,
  type Values,
  withContext,
  writeAddress,
} from '@pallmist/app/address';
import { celWith, directionOf, languageOf, planLoad, showPage, type NodeOf, type PagePayload, type ShowTools } from '@pallmist/app/view';
import { tick } from 'svelte';
import type { AddressCause } from './in-console.ts';
import type { LivePage } from '../live-page.ts';
import { keepFocus } from './focus.ts';
import { entry } from './history-entry.ts';
import { AheadFetcher, type Fetched } from './fetching.ts';
import { sendForm } from './forms.ts';
import { TypedForms } from './typed-forms.ts';
import { toolsFor } from './tools.ts';

/**
 * An app that the browser has taken over. A change is drawn first, then written into the address, then data are fetched
 * if they have to be; another page of the app is fetched and drawn in the place of this one.
 */
export class HydratedPage implements LivePage {
  #payload: PagePayload = $state.raw() as PagePayload;
  #tools: ShowTools;
  #address: LiveAddress;
  #compiled!: ReturnType<typeof compileApp>;
  /** What the present data answer to. */
  #plan: string;
  readonly #ahead = new AheadFetcher();
  /** What the service has opened and sealed for the pages so far; Back leads to their addresses. */
  readonly #seals = new SealBook();
  #asked = 0;
  #abort: AbortController | undefined;
  #restores = true;
  /** What was asked for last and did not come. */
  #missed: (() => void) | undefined;

  readonly shown = $derived.by(() => showPage(this.#payload, this.#tools));
  readonly name = $derived.by(() => this.#payload.name);
  busy = $state.raw(false);
  failure: string | undefined = $state.raw();
  hydrated = $state.raw(false);
  saves = $state.raw(0);
  answers = $state.raw(0);
  said: string | undefined = $state.raw();
  announced = $state.raw('');
  /** Forms in which something was typed that is not saved. */
  readonly #typed = new TypedForms();
  /** In the console, which follows what a draft’s page does. */
  onshown: ((address: string, cause: AddressCause) => void) | undefined;

  constructor(payload: PagePayload, tools: ShowTools) {
    for (const value of payload.seals ?? []) this.#seals.add(value);
    this.#payload = payload;
    this.said = payload.said;
    this.#tools = tools;
    this.#plan = this.#planFor(payload.reading.values);
    this.#address = this.#listen();
  }

  /** Called when the drawn page is in the browser’s hands. */
  begin(): void {
    this.hydrated = true;
    document.documentElement.dataset['hydrated'] = 'true';
    this.#typed.begin();
    const content = document.getElementById('content');
    if (content !== null) keepFocus(content);
    entry.restoreFrom(this.#payload.previous);
    this.#findPrevious();
  }

  get payload(): PagePayload {
    return this.#payload;
  }

  /** Loads the page again in its place, and keeps what is open and typed: the draft has changed. */
  refresh(): void {
    this.#ahead.clear();
    this.#address.flush();
    void this.#turnTo(here(), () => undefined, 'refresh');
  }

  change(changes: Values, coalesceKey?: unknown): void {
    this.said = undefined;
    const change = this.#address.change(changes, coalesceKey);
    // What acts once has left the address; taken back, it goes from the page too.
    if (change?.entry === 'none') this.#follow(this.#address.reading, 'change');
    this.onshown?.(this.shown.address, 'change');
  }

  enter(name: string, text: string): string | undefined {
    const plain = this.#compiled.app.pages.get(this.name)?.byName.get(name)?.plain;
    const value = text === '' || plain === undefined ? undefined : readPlainText(plain, text);
    if (value instanceof Refusal) return value.message;
    this.change({ [name]: value });
    return undefined;
  }

  /** Sends a form; what was typed stays on the page until it is saved. */
  send(form: HTMLFormElement): void {
    if (this.busy) return;
    const carryOut = async () => {
      this.busy = true;
      this.failure = undefined;
      this.#missed = () => {
        this.send(form);
      };
      try {
        const outcome = await sendForm(form);
        this.busy = false;
        if ('document' in outcome) {
          this.#typed.clear();
          window.location.assign(outcome.document);
        } else if ('payload' in outcome) {
          this.#show({ ...outcome.payload, ...this.#wayHere() }, this.#tools);
          this.answers++;
          // Files that could be taken are kept now; the others have to be chosen again.
          for (const box of form.querySelectorAll<HTMLInputElement>('input[type="file"]')) box.value = '';
          await tick();
          document.querySelector<HTMLElement>('[aria-invalid="true"], form [role="alert"]')?.focus();
        } else {
          this.#ahead.clear();
          this.saves++;
          const { page } = readAddress(this.#compiled.app, outcome.saved);
          this.#typed.clear();
          // What stays on the page takes the place of the step that opened the form.
          this.open(outcome.saved, true, page !== this.name);
          this.said = outcome.said || undefined;
        }
      } catch (error) {
        this.busy = false;
        const reason =
          error instanceof Error && /[.!?]$/.test(error.message) ? error.message : this.shown.say('The service did not answer.');
        this.failure = this.shown.say('{0} Nothing is saved yet; what you typed is still here.', reason);
      }
    };
    void carryOut();
  }

  mayLeave(): boolean {
    return this.#typed.mayLeave(this.shown.say('What you typed is not saved yet. Leave it all the same?'));
  }

  goBack(): boolean {
    const steps = entry.previous?.steps ?? 0;
    if (steps === 0) return false;
    entry.keep();
    window.history.go(-steps);
    return true;
  }

  retry(): void {
    this.#missed?.();
  }

  isOwn(url: URL): boolean {
    const { mount } = this.#payload.app;
    return mount === '/' ? !url.pathname.startsWith('/~/') : url.pathname === mount || url.pathname.startsWith(`${mount}/`);
  }

  /** Fetches ahead what a person seems about to open, unless it needs nothing that is not here. */
  intend(address: string): void {
    const reading = readAddress(this.#compiled.app, address);
    if (reading.page === this.name && reading.status === 'found' && this.#planFor(reading.values) === this.#plan) return;
    this.#ahead.begin(address);
  }

  /**
   * Opens another address of the app.
   * @param reload load its data even where it differs in view state only: something was saved
   * @param step whether Back leads back
   */
  open(address: string, reload = false, step = true): void {
    this.said = undefined;
    this.#address.flush();
    const { app } = this.#compiled;
    const reading = readAddress(app, address);
    // A form may have sent its values in another form than an address is written in.
    const settled = reading.status === 'found' && !reading.former && reading.problems.length === 0 && reading.page !== undefined;
    const written = settled ? writeAddress(app, reading.page ?? '', reading.values).address : undefined;
    const wanted = written === undefined ? address : written + hashOf(address);
    if (reading.page === this.name && reading.status === 'found' && !reading.former && !this.#arrives(reading)) {
      // Only values of this page: nothing but what depends on them is loaded.
      entry.keep();
      if (reload) this.#plan = '';
      // After saving, the component itself moves the focus.
      this.#restores = !reload;
      this.#address.open(wanted, step && wanted !== here());
      this.onshown?.(wanted, 'link');
      return;
    }
    const turn = async () => {
      const previous = { page: this.name, address: this.shown.address };
      const turned = await this.#turnTo(
        wanted,
        () => {
          entry.keep();
          const state = reading.page === previous.page ? entry.ofStep() : entry.ofPageAfter(previous);
          if (step) window.history.pushState(state, '', wanted);
          else window.history.replaceState(window.history.state, '', wanted);
        },
        'link',
      );
      if (!turned) return;
      entry.restore();
      // Where reading starts in a new document.
      document.getElementById('content')?.focus({ preventScroll: true });
    };
    void turn();
  }

  /** Whether arriving at an address does something that only the service can do. */
  #arrives(reading: Reading): boolean {
    return (this.#payload.page.arrival?.length ?? 0) > 0 || this.#compiled.app.pages.get(reading.page ?? '')?.leavesAddress === true;
  }

  /** The way here is what the browser’s history says, which knows it longer than the service. */
  #wayHere(): Pick<PagePayload, 'previous'> {
    const { previous } = entry;
    return previous === undefined ? {} : { previous: { page: previous.page, address: previous.address } };
  }

  #findPrevious(): void {
    this.#payload = { ...this.#payload, ...this.#wayHere() };
  }

  #listen(): LiveAddress {
    const { app, today } = this.#payload;
    const compiled = compileApp(app, { types: this.#tools.types });
    this.#compiled = { ...compiled, app: withContext(compiled.app, { today: () => today, seals: this.#seals }) };
    const address = new LiveAddress(this.#compiled.app, window, () => entry.ofStep());
    address.subscribe((reading, cause) => {
      if (cause === 'history' && !this.mayLeave()) {
        // Back has moved already: the page with what was typed becomes the newest step again.
        this.#address.open(this.shown.address, true);
        return;
      }
      // What another program does to the address is to the page as if the visitor had gone there.
      this.#follow(reading, cause === 'change' ? 'change' : 'history');
    });
    return address;
  }

  #planFor(values: Values): string {
    const { app, page, data, programs } = this.#payload;
    // The service evaluates some conditions: when one of their parameters changes, the page has to be loaded again.
    const asked = (this.#payload.asks ?? []).map((name) => values[name]);
    // In another language Pallmist's own texts are others, which come with the page.
    return JSON.stringify([
      languageOf(app, values),
      planLoad(app, page, values, this.#payload, celWith(programs, this.#tools.cel), data.records),
      asked,
    ]);
  }

  #follow(reading: Reading, cause: 'change' | 'history'): void {
    if (reading.page !== this.#payload.name || reading.status !== 'found') {
      void this.#goBackTo(here());
      return;
    }
    // What was said at arrival, and about a form, is said for the page as it was.
    const { arrival: _, forms: __, ...payload } = this.#payload;
    this.#payload = { ...(cause === 'history' ? payload : this.#payload), reading, ...(cause === 'history' ? this.#wayHere() : {}) };
    this.#nameDocument();
    // Where the page leads on now, its own data are of no use: the component opens what it leads to.
    const leads = cause === 'change' && this.shown.content.some((node) => node.show === 'lead-on' && isLeading(node as NodeOf<'lead-on'>));
    if (leads) this.#giveUp();
    else if (this.#planFor(reading.values) !== this.#plan) void this.#fetchData(cause);
    else {
      this.#giveUp();
      if (cause === 'history') this.onshown?.(here(), 'history');
      if (cause === 'history') this.#restore();
    }
  }

  /** The person went Back or Forward to another page. */
  async #goBackTo(address: string): Promise<void> {
    if (await this.#turnTo(address, () => undefined, 'history')) entry.restore();
  }

  /** The values are back to what is loaded: an answer on its way is of no more use. */
  #giveUp(): void {
    this.#asked++;
    this.#abort?.abort();
    this.busy = false;
    this.failure = undefined;
  }

  /** Fetches the data of the present address; the previous ones stay until they come. */
  async #fetchData(cause: 'change' | 'history'): Promise<void> {
    const fetched = await this.#ask(this.shown.address, () => void this.#fetchData(cause));
    if (fetched === undefined) return;
    if ('document' in fetched) {
      this.#address.flush();
      window.location.reload();
      return;
    }
    const before = this.#payload.data.rows;
    this.#show({ ...fetched.payload, ...this.#wayHere() }, await toolsFor(fetched.payload));
    if (cause === 'change') this.#announce(before);
    this.onshown?.(this.shown.address, cause);
    if (cause === 'history') this.#restore();
  }

  /** Tells a screen reader what has come of a change: how much each list that has changed its length holds now. */
  #announce(before: PagePayload['data']['rows']): void {
    const changed = Object.entries(this.#payload.data.rows).filter(([name, { total }]) => total !== before[name]?.total);
    const told = changed.map(([, { total }]) => this.shown.say('{0} found', total)).join(', ') || this.shown.say('Updated');
    // The same words are heard again only where the text differs.
    this.announced = this.announced === told ? `${told}\u00a0` : told;
  }

  /** Scroll and focus as this entry of the history was left. */
  #restore(): void {
    if (this.#restores)
      void tick().then(() => {
        entry.restore();
      });
    this.#restores = true;
  }

  /**
   * Puts another page in the place of this one.
   * @param arrive makes the address that of the page, just before it is drawn
   * @returns whether it is drawn; where not, a document is on its way or the failure is said
   */
  async #turnTo(address: string, arrive: () => void, cause: AddressCause): Promise<boolean> {
    const fetched = await this.#ask(address, () => void this.#turnTo(address, arrive, cause));
    if (fetched === undefined) return false;
    if ('document' in fetched) {
      window.location.assign(address);
      return false;
    }
    const mine = this.#asked;
    const tools = await toolsFor(fetched.payload).catch(() => undefined);
    if (mine !== this.#asked) return false;
    if (tools === undefined) {
      // A script of another release, perhaps, that is gone: the document names those of today.
      window.location.assign(address);
      return false;
    }
    this.#address.close();
    arrive();
    this.#show({ ...fetched.payload, ...this.#wayHere() }, tools);
    this.#settleAddress(address);
    this.#address = this.#listen();
    this.onshown?.(address, cause);
    await tick();
    return true;
  }

  /** Arriving may have set view state, and what acts once has acted: the address says how things are now. */
  #settleAddress(address: string): void {
    const hash = hashOf(address);
    const { arrival, page } = this.#payload;
    if (arrival === undefined && !Object.values(page.parameters ?? {}).some(({ once }) => once === true)) return;
    window.history.replaceState(window.history.state, '', this.shown.address + hash);
  }

  #show(payload: PagePayload, tools: ShowTools): void {
    for (const value of payload.seals ?? []) this.#seals.add(value);
    this.#tools = tools;
    this.#payload = payload;
    this.#plan = this.#planFor(payload.reading.values);
    this.#nameDocument();
  }

  #nameDocument(): void {
    document.title = `${this.shown.title} · ${this.shown.appTitle}`;
    document.documentElement.lang = this.shown.language;
    document.documentElement.dir = directionOf(this.shown.language);
  }

  /** Asks the service; @returns undefined when something else was asked for meanwhile, or nothing came */
  async #ask(address: string, again: () => void): Promise<Fetched | undefined> {
    const mine = ++this.#asked;
    this.#abort?.abort();
    this.#abort = new AbortController();
    this.busy = true;
    this.failure = undefined;
    this.#missed = again;
    try {
      const fetched = await this.#ahead.take(address, this.#abort.signal);
      if (mine !== this.#asked) return undefined;
      this.busy = false;
      return fetched;
    } catch {
      if (mine !== this.#asked) return undefined;
      this.busy = false;
      this.failure = this.shown.say('The service did not answer, so what you see is still from before.');
      return undefined;
    }
  }
}

/** Whether the component opens another page now: not in a draft, nor where a value for the page is missing. */
const isLeading = ({ says, href }: NodeOf<'lead-on'>): boolean => says === undefined && href !== undefined;

const here = () => window.location.pathname + window.location.search + window.location.hash;

/** The part of an address from “#” on. */
const hashOf = (address: string) => /#.*$/.exec(address)?.[0] ?? '';
