import { beforeEach, describe, expect, it } from 'vitest';
import { compileApp } from '@pallmist/address/declare';
import { LiveAddress, type HistoryWindow } from '../src/index.ts';

const { app } = compileApp({
  app: 'live',
  mount: '/g',
  pages: {
    list: {
      address: '/list{?q,page,note}',
      parameters: {
        q: { type: 'text', step: false, resets: ['page'] },
        page: { type: 'integer', default: 1, min: 1 },
        note: { type: 'boolean', once: true },
      },
    },
    other: { address: '/other' },
  },
});

/** The part of a browser that the history is: entries, a place among them, a limit on changes, and a clock by hand. */
class Browser implements HistoryWindow {
  entries: string[];
  at = 0;
  refusals = 0;
  #listeners = new Map<string, Set<() => void>>();
  #timers = new Map<number, () => void>();
  #nextTimer = 1;

  constructor(address: string) {
    this.entries = [address];
  }

  get location() {
    const url = new URL(this.entries[this.at] ?? '', 'http://g.example');
    return { pathname: url.pathname, search: url.search, hash: url.hash } as Location;
  }

  history = {
    state: null,
    pushState: (_: unknown, __: string, address: string) => {
      this.#perhapsRefuse();
      this.entries = [...this.entries.slice(0, ++this.at), address];
    },
    replaceState: (_: unknown, __: string, address: string) => {
      this.#perhapsRefuse();
      this.entries[this.at] = address;
    },
  } as unknown as History;

  addEventListener(name: string, listener: unknown): void {
    this.#listeners.set(name, (this.#listeners.get(name) ?? new Set()).add(listener as () => void));
  }
  removeEventListener(name: string, listener: unknown): void {
    this.#listeners.get(name)?.delete(listener as () => void);
  }
  setTimeout(work: unknown): number {
    this.#timers.set(this.#nextTimer, work as () => void);
    return this.#nextTimer++;
  }
  clearTimeout(timer: number | undefined): void {
    this.#timers.delete(timer ?? 0);
  }

  /** Lets time pass until every timer that waits now has run. */
  wait(): void {
    const waiting = [...this.#timers.values()];
    this.#timers.clear();
    for (const work of waiting) work();
  }
  go(steps: number): void {
    this.at += steps;
    this.fire('popstate');
  }
  fire(name: string): void {
    for (const listener of this.#listeners.get(name) ?? []) listener();
  }
  #perhapsRefuse(): void {
    if (this.refusals-- > 0) throw new DOMException('too often', 'SecurityError');
  }
}

let browser: Browser;
let live: LiveAddress;
let told: string[];
function begin(address: string) {
  browser = new Browser(address);
  live = new LiveAddress(app, browser as unknown as HistoryWindow);
  told = [];
  live.subscribe((reading, cause) => told.push(`${cause} ${JSON.stringify(reading.values)}`));
}
beforeEach(() => begin('/g/list?page=3'));

describe('a change', () => {
  it('is told first and written after; replacements are gathered into one', () => {
    live.change({ q: 'f' });
    live.change({ q: 'fe' });
    live.change({ q: 'fern' });
    expect(told.at(-1)).toBe('change {"q":"fern","page":1}');
    expect(browser.entries).toEqual(['/g/list?page=3']);
    browser.wait();
    expect(browser.entries).toEqual(['/g/list?q=fern']);
  });

  it('that is a step is written at once, after what waited', () => {
    live.change({ q: 'fern' });
    live.change({ page: 2 });
    expect(browser.entries).toEqual(['/g/list?q=fern', '/g/list?q=fern&page=2']);
    browser.go(-1);
    expect(live.reading.values).toEqual({ q: 'fern', page: 1 });
    expect(told.at(-1)).toMatch(/^history /);
  });

  it('that is refused changes nothing and says why', () => {
    const change = live.change({ page: 0 });
    expect(change?.written.problems[0]?.code).toBe('too-small');
    expect(live.reading.values).toEqual({ page: 3 });
    expect(told).toEqual([]);
  });

  it('to what is there already is none', () => {
    expect(live.change({ page: 3 })?.entry).toBe('none');
    expect(told).toEqual([]);
  });
});

describe('the last address is never lost', () => {
  it('when the browser refuses to write it for a while', () => {
    browser.refusals = 3;
    live.change({ page: 4 });
    live.change({ page: 5 });
    for (let i = 0; i < 6; i++) browser.wait();
    expect(browser.entries.at(-1)).toBe('/g/list?page=5');
    expect(live.reading.values).toEqual({ page: 5 });
  });

  it('when the page is left before it was written', () => {
    live.change({ q: 'moss' });
    browser.fire('pagehide');
    expect(browser.entries).toEqual(['/g/list?q=moss']);
  });

  it('but not written over where one has gone meanwhile', () => {
    live.change({ page: 4 });
    live.change({ q: 'moss' });
    browser.go(-1);
    browser.wait();
    expect(browser.entries).toEqual(['/g/list?page=3', '/g/list?page=4']);
    expect(live.reading.values).toEqual({ page: 3 });
  });
});

it('what acts once holds here, and leaves the address', () => {
  begin('/g/list?page=2&note=true#top');
  expect(live.reading.values).toEqual({ page: 2, note: true });
  browser.wait();
  expect(browser.entries).toEqual(['/g/list?page=2#top']);
  live.change({ page: 3 });
  expect(live.reading.values).toEqual({ page: 3 });
});

it('goes to other pages, and is silent once closed', () => {
  live.open('/g/other');
  expect(live.reading.page).toBe('other');
  expect(browser.entries).toEqual(['/g/list?page=3', '/g/other']);
  live.close();
  browser.go(-1);
  expect(live.reading.page).toBe('other');
});
