import type { BrowserWindow } from './browser-window.ts';

/** A window without a browser: an address with a history of its own. */
export interface WindowWithHistory extends BrowserWindow {
  readonly location: URL;
  /** Goes some steps back, or forward, as far as there are any; those who listen for `popstate` are told. */
  go(steps: number): void;
}

/**
 * Stands in for the browser’s window: on a server, for the address of a request, and in tests.
 * @param address an absolute URL, or a path with query and fragment
 */
export function windowAt(address: string): WindowWithHistory {
  const events = new EventTarget();
  const entries: { url: URL; state: unknown }[] = [{ url: new URL(address, 'http://localhost'), state: null }];
  let at = 0;
  const entry = () => entries[at] as (typeof entries)[number];
  const resolve = (url: string | URL | null | undefined) => new URL(url ?? '', entry().url);
  return {
    get location() {
      return entry().url;
    },
    history: {
      get state() {
        return entry().state;
      },
      pushState(state, _, url) {
        entries.splice(at + 1, Infinity, { url: url == null ? entry().url : resolve(url), state });
        at++;
      },
      replaceState(state, _, url) {
        entries[at] = { url: url == null ? entry().url : resolve(url), state };
      },
    },
    addEventListener: events.addEventListener.bind(events),
    go(steps) {
      const next = Math.min(Math.max(at + steps, 0), entries.length - 1);
      if (next === at) return;
      at = next;
      events.dispatchEvent(new Event('popstate'));
    },
  };
}
