import { LiveAddress } from '@pallmist/browser';
import { compileApp, type Reading, type Values } from '@pallmist/core/address';
import { planLoad, showPage, type PageMaterial, type ShowTools } from '@pallmist/core/view';
import { tick } from 'svelte';
import type { LivePage } from '../live-page.ts';
import { AheadFetcher, type Fetched } from './material-source.ts';
import { scroll } from './scroll.ts';
import { toolsFor } from './tools.ts';

/**
 * An app that the browser has taken over. A change is drawn first, then written into the address, then data are fetched
 * if they have to be; another page of the app is fetched and drawn in the place of this one.
 */
export class TakenPage implements LivePage {
  #material: PageMaterial = $state.raw() as PageMaterial;
  #tools: ShowTools;
  #address: LiveAddress;
  /** What the present data answer to. */
  #plan: string;
  readonly #ahead = new AheadFetcher();
  #asked = 0;
  #abort: AbortController | undefined;
  /** What was asked for last and did not come. */
  #missed: (() => void) | undefined;

  readonly shown = $derived.by(() => showPage(this.#material, this.#tools));
  readonly name = $derived.by(() => this.#material.name);
  busy = $state(false);
  failure: string | undefined = $state();
  taken = $state(false);

  constructor(material: PageMaterial, tools: ShowTools) {
    this.#material = material;
    this.#tools = tools;
    this.#plan = this.#planFor(material.reading.values);
    this.#address = this.#listen();
  }

  /** Called when the drawn page is in the browser’s hands. */
  take(): void {
    this.taken = true;
    document.documentElement.dataset['taken'] = 'true';
    scroll.take();
    // As it was given, with what is wrong in it, for the console to explain.
    this.#tellConsole(window.location.pathname + window.location.search + window.location.hash);
  }

  change(changes: Values): void {
    this.#address.change(changes);
    this.#tellConsole(this.shown.address);
  }

  retry(): void {
    this.#missed?.();
  }

  isOwn(url: URL): boolean {
    const { mount } = this.#material.app;
    return mount === '/' ? !url.pathname.startsWith('/-/') : url.pathname === mount || url.pathname.startsWith(`${mount}/`);
  }

  intend(address: string): void {
    this.#ahead.begin(address);
  }

  /** Opens another address of the app, as a step of the history. */
  open(address: string): void {
    this.#address.flush();
    const turn = async () => {
      const turned = await this.#turnTo(address, () => {
        scroll.keep();
        window.history.pushState(null, '', address);
      });
      if (!turned) return;
      scroll.restore();
      // Where a document would begin to be read anew.
      document.getElementById('content')?.focus({ preventScroll: true });
    };
    void turn();
  }

  #listen(): LiveAddress {
    const { app, today } = this.#material;
    const address = new LiveAddress(compileApp(app, { types: this.#tools.types, today: () => today }).app, window);
    address.listen((reading, cause) => {
      this.#follow(reading, cause);
    });
    return address;
  }

  #planFor(values: Values): string {
    const { app, page, person } = this.#material;
    return JSON.stringify(planLoad(app, page, values, person, this.#tools.cel));
  }

  #follow(reading: Reading, cause: 'change' | 'history'): void {
    if (reading.page !== this.#material.name || reading.status !== 'page') {
      void this.#goBackTo(window.location.pathname + window.location.search + window.location.hash);
      return;
    }
    this.#material = { ...this.#material, reading };
    document.title = `${this.shown.title} · ${this.shown.appTitle}`;
    if (this.#planFor(reading.values) !== this.#plan) void this.#fetchData(cause);
    else {
      this.#giveUp();
      if (cause === 'history')
        void tick().then(() => {
          scroll.restore();
        });
    }
  }

  /** The person went Back or Forward to another page. */
  async #goBackTo(address: string): Promise<void> {
    if (await this.#turnTo(address, () => undefined)) scroll.restore();
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
    this.#show(fetched.material, this.#tools);
    if (cause === 'history') {
      await tick();
      scroll.restore();
    }
  }

  /**
   * Puts another page in the place of this one.
   * @param arrive makes the address that of the page, just before it is drawn
   * @returns whether it is drawn; where not, a document is on its way or the failure is said
   */
  async #turnTo(address: string, arrive: () => void): Promise<boolean> {
    const fetched = await this.#ask(address, () => void this.#turnTo(address, arrive));
    if (fetched === undefined) return false;
    if ('document' in fetched) {
      window.location.assign(address);
      return false;
    }
    const mine = this.#asked;
    const tools = await toolsFor(fetched.material);
    if (mine !== this.#asked) return false;
    this.#address.close();
    arrive();
    this.#show(fetched.material, tools);
    this.#address = this.#listen();
    this.#tellConsole(address);
    await tick();
    return true;
  }

  #show(material: PageMaterial, tools: ShowTools): void {
    this.#tools = tools;
    this.#material = material;
    this.#plan = this.#planFor(material.reading.values);
    document.title = `${this.shown.title} · ${this.shown.appTitle}`;
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
      this.failure = 'The service did not answer, so what you see is still from before.';
      return undefined;
    }
  }

  /** The console shows the draft in a frame, and the address above it follows. */
  #tellConsole(address: string): void {
    if (window.parent === window || !this.#material.draft) return;
    window.parent.postMessage({ pallmist: 'address', address }, window.location.origin);
  }
}
