import type { BrowserWindow } from './browser-window.ts';

const name = '~pallmist';

/**
 * Remembers the addresses that a document had before it is left. A reload asks for the address as the browser knew it when
 * the reload began: what was written just before or since would be lost.
 * @param addresses the oldest first, the one to come back to last
 */
export function rememberLeft({ sessionStorage }: BrowserWindow, addresses: readonly string[]): void {
  sessionStorage?.setItem(name, addresses.join(' '));
}

/** The address to come back to, where this document is a reload that asked for an older one. */
export function recallLeft({ sessionStorage, performance }: BrowserWindow, here: string): string | undefined {
  const addresses = sessionStorage?.getItem(name)?.split(' ') ?? [];
  sessionStorage?.removeItem(name);
  const [navigation] = (performance?.getEntriesByType('navigation') ?? []) as { type?: string }[];
  const last = addresses.at(-1);
  return last !== here && addresses.includes(here) && navigation?.type === 'reload' ? last : undefined;
}
