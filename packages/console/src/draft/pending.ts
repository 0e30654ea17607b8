import type { PatchOperation } from '@pallmist/app/address';

/** A change that the service has not acknowledged yet. */
export interface PendingChange {
  patch: PatchOperation[];
  what: string;
}

/** What waits in this browser for the service: kept over a reload, a lost connection and a sleeping laptop. */
interface Waiting {
  revision: number;
  changes: PendingChange[];
}

const keyOf = (app: string) => `pallmist-draft-${app}`;

/** Keeps what waits, or forgets it when nothing does. */
export function keepWaiting(app: string, revision: number, changes: readonly PendingChange[]): void {
  try {
    if (changes.length === 0) window.localStorage.removeItem(keyOf(app));
    else window.localStorage.setItem(keyOf(app), JSON.stringify({ revision, changes }));
  } catch {
    // A browser that keeps nothing: what waits is in this tab alone, which asks before it closes.
  }
}

/** What an earlier tab could not send. */
export function takeWaiting(app: string): Waiting | undefined {
  try {
    const kept = window.localStorage.getItem(keyOf(app));
    const waiting = kept === null ? undefined : (JSON.parse(kept) as Partial<Waiting>);
    return Array.isArray(waiting?.changes) && typeof waiting.revision === 'number' ? (waiting as Waiting) : undefined;
  } catch {
    return undefined;
  }
}

/** What several changes do, in words, each said once: at most 300 characters, as the log takes. */
export const wordsOf = (changes: readonly PendingChange[]): string =>
  [...new Set(changes.map(({ what }) => what))].join('; ').slice(0, 300);
