import { LiveAddress } from '@pallmist/browser';
import { compileApp, type Reading, type Values } from '@pallmist/core/address';
import { planLoad, showPage, type PageMaterial, type ShowTools } from '@pallmist/core/view';
import type { LivePage } from '../live-page.ts';

/** The media type by which the browser asks for a page’s material instead of its document. */
const materialType = 'application/vnd.pallmist.material+json';

/** A page that the browser has taken over: a change is drawn first, then written into the address, then data are fetched if they have to be. */
export class TakenPage implements LivePage {
  #material: PageMaterial = $state.raw() as PageMaterial;
  readonly #tools: ShowTools;
  readonly #address: LiveAddress;
  #plan: string;
  #fetches = 0;
  #abort: AbortController | undefined;

  readonly shown = $derived.by(() => showPage(this.#material, this.#tools));
  busy = $state(false);
  failure: string | undefined = $state();
  taken = $state(false);

  constructor(material: PageMaterial, tools: ShowTools) {
    this.#material = material;
    this.#tools = tools;
    this.#plan = this.#planFor(material.reading.values);
    this.#address = new LiveAddress(compileApp(material.app, { types: tools.types, today: () => material.today }).app, window);
    this.#address.listen((reading) => {
      this.#follow(reading);
    });
  }

  /** Called when the drawn page is in the browser’s hands. */
  take(): void {
    this.taken = true;
    document.documentElement.dataset['taken'] = 'true';
    // As it was given, with what is wrong in it, for the console to explain.
    this.#tellConsole(window.location.pathname + window.location.search + window.location.hash);
  }

  change(changes: Values): void {
    this.#address.change(changes);
    this.#tellConsole(this.shown.address);
  }

  retry(): void {
    void this.#fetch();
  }

  #planFor(values: Values): string {
    const { app, page, person } = this.#material;
    return JSON.stringify(planLoad(app, page, values, person, this.#tools.cel));
  }

  #follow(reading: Reading): void {
    // An address that this page cannot show is the service’s to answer.
    if (reading.page !== this.#material.name || reading.status !== 'page') {
      window.location.reload();
      return;
    }
    this.#material = { ...this.#material, reading };
    document.title = `${this.shown.title} · ${this.shown.appTitle}`;
    if (this.#planFor(reading.values) !== this.#plan) void this.#fetch();
    else this.#giveUpFetch();
  }

  /** The values are back to what is loaded: an answer on its way is of no more use. */
  #giveUpFetch(): void {
    this.#fetches++;
    this.#abort?.abort();
    this.busy = false;
    this.failure = undefined;
  }

  async #fetch(): Promise<void> {
    const mine = ++this.#fetches;
    this.#abort?.abort();
    this.#abort = new AbortController();
    this.busy = true;
    this.failure = undefined;
    const { address } = this.shown;
    try {
      const response = await fetch(address, { headers: { accept: materialType }, signal: this.#abort.signal, redirect: 'manual' });
      if (mine !== this.#fetches) return;
      // Sign-in ended, or the record is gone: the service has a page that says so.
      if (response.type === 'opaqueredirect' || (response.status >= 400 && response.status < 500)) {
        this.#address.flush();
        window.location.reload();
        return;
      }
      if (!response.ok) throw new Error(String(response.status));
      const material = (await response.json()) as PageMaterial;
      if (mine !== this.#fetches) return;
      this.#material = material;
      this.#plan = this.#planFor(material.reading.values);
      document.title = `${this.shown.title} · ${this.shown.appTitle}`;
      this.busy = false;
    } catch {
      if (mine !== this.#fetches) return;
      this.busy = false;
      this.failure = 'The service did not answer, so the list is still the one from before.';
    }
  }

  /** The console shows the draft in a frame, and the address above it follows. */
  #tellConsole(address: string): void {
    if (window.parent === window || !this.#material.draft) return;
    window.parent.postMessage({ pallmist: 'address', address }, window.location.origin);
  }
}
