import { protect } from '@pallmist/address/live';
import type { BrowserWindow } from './browser-window.ts';
import { recallLeft, rememberLeft } from './left-address.ts';
import { watchAddress } from './watch-address.ts';

/** Why values changed: the program, Back or Forward, or another program that changed the address. */
export type Cause = 'change' | 'history' | 'foreign';

/** Something that keeps values in the address of a window. */
export interface AddressPart {
  /** By which the parts are ordered, so that equal values give equal addresses. */
  readonly order: string;
  /** Path and query that hold its values; the query alone where the path is not its concern; undefined where it has no say. */
  address(): string | undefined;
  /** Whether a name in the query, as it stands there, is its own. */
  owns(name: string): boolean;
  /** Reads its values again. @param here path, query and fragment */
  follow(here: string, cause: Cause): void;
}

/** Milliseconds between two writes that go on for long: eight a second. */
const interval = 125;
/** Milliseconds by which writes may run ahead of that pace: five come at once after a rest. */
const lead = 4 * interval;
/** Milliseconds until a write that did not take effect is tried again; doubled each time, up to the greatest. */
const firstRetry = 500;
const greatestRetry = 8000;
/** How many addresses are remembered, of which a reload may ask for one: more than are written in a second. */
const mostRecent = 16;

const ofWindows = new WeakMap<BrowserWindow, SharedAddress>();

/**
 * The address of one window, which all parts of a page share. What they hold is written in the next task, all of it at
 * once, and never so often that the browser refuses: Chromium drops what is beyond 200 changes of the history in some
 * 8 seconds without a word, WebKit throws after 100 in 10. Each write is compared with what the browser made of it.
 */
export class SharedAddress {
  readonly parts: AddressPart[] = [];
  /** What a new entry of the history holds: what the present one does, unless told otherwise. */
  stateOfStep: () => unknown;
  readonly #window: BrowserWindow;
  /** Protocol and host; nothing where the document cannot change its address: there the state of the entry has it. */
  readonly #origin: string;
  /** Path, query and fragment as they were written or found last. */
  #here = '';
  /** Whether what waits to be written is a step that Back undoes; undefined where nothing waits. */
  #step: boolean | undefined;
  #timer: ReturnType<typeof setTimeout> | undefined;
  /** The time at which the writes so far would be over at the even pace. */
  #spent = 0;
  #recent: string[] = [];
  #retry = firstRetry;
  #gesture: unknown;
  #writing = false;

  static of(window: BrowserWindow): SharedAddress {
    const shared = ofWindows.get(window) ?? new SharedAddress(window);
    ofWindows.set(window, shared);
    return shared;
  }

  private constructor(window: BrowserWindow) {
    const { protocol, host } = window.location;
    this.#window = window;
    this.#origin = /^(?:about|blob|data)/.test(protocol) ? '' : `${protocol}//${host}`;
    this.stateOfStep = () => window.history.state as unknown;
    this.#done(this.#locate());
    const moved = (byHistory: boolean) => {
      const here = this.#locate();
      if (this.#writing || (!byHistory && here === this.#here)) return;
      // What waits is of no more use: the person, or another program, is elsewhere.
      this.#done(here);
      this.#gesture = undefined;
      this.#lead(byHistory ? 'history' : 'foreign');
    };
    watchAddress(window, moved, () => {
      if (this.#step !== undefined) {
        // A new entry would cancel the way to where the person goes.
        this.#step = false;
        this.flush();
      }
      ignoring(() => {
        rememberLeft(window, this.#recent);
      });
    });
    ignoring(() => {
      const left = recallLeft(window, this.#here);
      // Parts read the address that the document was asked for, and follow.
      if (left !== undefined)
        setTimeout(() => {
          window.history.replaceState(window.history.state, '', this.#origin + left);
          moved(true);
        });
    });
  }

  /** @returns what the part has to read first */
  join(part: AddressPart): string {
    const here = this.compose();
    this.parts.push(part);
    this.parts.sort((a, b) => (a.order < b.order ? -1 : 1));
    return here;
  }

  leave(part: AddressPart): void {
    this.flush();
    if (this.parts.includes(part)) this.parts.splice(this.parts.indexOf(part), 1);
  }

  /** Called before a part changes its values. Back from a step leads to what was there before it: that is written first. */
  beforeChange(step: boolean): void {
    // Unless there is no time for it: then both become one step.
    if (step && this.#step === false && this.#wait() <= -interval) this.flush();
  }

  /**
   * Called when a part has changed its values; writes them soon.
   * @param step whether Back undoes it
   * @param gesture changes in a row with the same mark are one step
   */
  changed(step: boolean, gesture?: unknown): void {
    this.#step = this.#step === true || (step && (gesture === undefined || gesture !== this.#gesture));
    this.#gesture = gesture;
    if (this.#timer === undefined) this.#schedule(Math.max(0, this.#wait()));
  }

  /**
   * Has every part read another address.
   * @param address absolute or relative
   * @param accepts asked first, about path, query and fragment
   * @returns false where it is refused, or of another origin
   */
  go(address: string, step: boolean, accepts: (here: string, samePath: boolean) => boolean): boolean {
    const base = this.#origin || 'about://';
    if (!URL.canParse(address, base + this.#here)) return false;
    const { href, pathname, search, hash } = new URL(address, base + this.#here);
    const here = whole(pathname, search, hash);
    if (!href.startsWith(`${base}/`) || !accepts(here, pathOf(here) === pathOf(this.#here))) return false;
    this.beforeChange(step);
    this.#here = here;
    this.changed(step);
    this.#lead('change');
    return true;
  }

  /**
   * The address as the parts hold it: their parameters in a fixed order, then what nobody declares.
   * @param first a part that takes precedence where several own a name
   * @param wanted what the address of that part would be
   */
  compose(first?: AddressPart, wanted = first?.address()): string {
    const [, rest = '', hash = ''] = /^([^#]*)(.*)$/s.exec(this.#here) ?? [];
    const owners: (AddressPart | undefined)[] = [];
    const pairs: string[] = [];
    let path = '';
    const add = (address: string | undefined, part?: AddressPart) => {
      if (address === undefined) return;
      const [own = '', query = ''] = address.split('?');
      path ||= own;
      for (const pair of query.split('&')) {
        const [name = ''] = pair.split('=');
        if (pair !== '' && !owners.some((owner) => owner?.owns(name))) pairs.push(pair);
      }
      owners.push(part);
    };
    add(wanted, first);
    for (const part of this.parts) if (part !== first) add(part.address(), part);
    add(rest);
    return protect(pairs.length > 0 ? `${path}?${pairs.join('&')}` : path) + hash;
  }

  /** Writes what waits, now. */
  readonly flush = (): void => {
    if (this.#step === undefined) return;
    const here = this.compose();
    if (here !== this.#locate()) {
      const { history } = this.#window;
      this.#spent = Math.max(this.#spent, performance.now()) + interval;
      this.#writing = true;
      try {
        const state: unknown = this.#step ? this.stateOfStep() : history.state;
        history[this.#step ? 'pushState' : 'replaceState'](
          this.#origin ? state : { ...(state as object | null), '~address': here },
          '',
          this.#origin ? this.#origin + here : null,
        );
      } catch {
        // Compared below, as where the browser says nothing.
      }
      this.#writing = false;
    }
    if (here === this.#locate()) {
      this.#done(here);
      this.#retry = firstRetry;
    } else {
      this.#schedule(this.#retry);
      this.#retry = Math.min(this.#retry * 2, greatestRetry);
    }
  };

  /** Nothing waits any more. */
  #done(here: string): void {
    this.#here = here;
    this.#recent = [...this.#recent.filter((other) => other !== here).slice(1 - mostRecent), here];
    clearTimeout(this.#timer);
    this.#timer = this.#step = undefined;
  }

  #lead(cause: Cause): void {
    for (const part of [...this.parts]) part.follow(this.#here, cause);
  }

  /** Milliseconds until the pace lets something be written; less than 0 where it could have been sooner. */
  #wait(): number {
    return this.#spent - performance.now() - lead;
  }

  #schedule(delay: number): void {
    this.#timer = setTimeout(this.flush, delay);
  }

  #locate(): string {
    const { location, history } = this.#window;
    return this.#origin
      ? whole(location.pathname, location.search, location.hash)
      : ((history.state as { '~address'?: string } | null)?.['~address'] ?? '/');
  }
}

/** Does what a document may not be allowed to do, in a frame without rights. */
function ignoring(work: () => void): void {
  try {
    work();
  } catch {
    // Then it is left undone.
  }
}

/** A path may begin with “//”, which names a host where an address begins with it. */
const whole = (path: string, search: string, hash: string) => (path.startsWith('//') ? '/.' : '') + path + search + hash;

const pathOf = (here: string) => here.replace(/[?#].*/s, '');
