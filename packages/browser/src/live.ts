import type { Page } from '@pallmist/address';
import type { BrowserWindow } from './browser-window.ts';
import { LiveState } from './live-state.ts';
import type { Live, LiveOptions } from './live-types.ts';

/**
 * Keeps the values of a page in the address of the window. Any number of pages, and of states of one page, share an
 * address: each keeps its own parameters, and leaves the others, the fragment and what nobody declares as they are.
 * @param page declared with `page`; a template that begins with `{?` has no path of its own and stands on any
 * @throws TypeError where there is no window
 */
export function live<P extends Page<string, unknown>>(page: P, options: LiveOptions = {}): Live<P> {
  const window = options.window ?? (globalThis as { window?: BrowserWindow }).window;
  if (window === undefined) throw new TypeError('There is no window here: give live() one that windowAt(request.url) made.');
  return new LiveState(page, window) as unknown as Live<P>;
}
