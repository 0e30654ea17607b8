import type { BrowserWindow } from './browser-window.ts';

const name = '~pallmist';

/**
 * Remembers an address that was written while the document was being left. A reload asks for the address as it was when it
 * began, whichever the browser: the one that was written last would be lost.
 */
export function rememberLeft({ sessionStorage }: BrowserWindow, asked: string, written: string): void {
  sessionStorage?.setItem(name, `${asked} ${written}`);
}

/** The address that was written while this document, at an older address, was asked for again; undefined where there is none. */
export function recallLeft({ sessionStorage, performance }: BrowserWindow, here: string): string | undefined {
  const [asked, written] = sessionStorage?.getItem(name)?.split(' ') ?? [];
  sessionStorage?.removeItem(name);
  const [navigation] = (performance?.getEntriesByType('navigation') ?? []) as { type?: string }[];
  return asked === here && navigation?.type === 'reload' ? written : undefined;
}
