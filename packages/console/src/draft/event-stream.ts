import { apiBase } from '@pallmist/api';
import type { PatchOperation } from '@pallmist/app/address';

/** What the service tells those who have a draft open. */
export type DraftEvent =
  | { kind: 'changed'; revision: number; by: string; what: string; patch: PatchOperation[] | null }
  | { kind: 'published'; edition: number; by: string }
  | { kind: 'here'; builders: string[] }
  | { kind: 'shown'; address: string };

interface Listener {
  event(event: DraftEvent): void;
  /** Called when the connection is there again, and when it is lost; the browser tries again by itself. */
  connected(connected: boolean): void;
}

/**
 * Listens to what happens to a draft (server-sent events). A tab that is not looked at listens no more, since browsers open
 * few connections to one service; it catches up when it is looked at again.
 */
export class DraftEventStream {
  readonly #address: string;
  readonly #listener: Listener;
  #source: EventSource | undefined;
  /** What happened in between is not known. */
  #missed = false;
  readonly #looked = () => {
    if (document.visibilityState === 'hidden') this.#stop();
    else if (this.#source === undefined) this.#start();
  };

  constructor(app: string, listener: Listener) {
    this.#address = `${apiBase}/apps/${encodeURIComponent(app)}/draft/events`;
    this.#listener = listener;
    document.addEventListener('visibilitychange', this.#looked);
    this.#start();
  }

  close(): void {
    document.removeEventListener('visibilitychange', this.#looked);
    this.#stop();
  }

  #start(): void {
    const source = new EventSource(this.#address);
    this.#source = source;
    source.onopen = () => {
      if (this.#missed) this.#listener.connected(false);
      this.#missed = false;
      this.#listener.connected(true);
    };
    source.onerror = () => {
      this.#missed = true;
      this.#listener.connected(false);
    };
    source.onmessage = ({ data }: MessageEvent<string>) => {
      this.#listener.event(JSON.parse(data) as DraftEvent);
    };
  }

  #stop(): void {
    this.#missed = true;
    this.#source?.close();
    this.#source = undefined;
  }
}
