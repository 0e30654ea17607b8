import type { Response } from 'express';
import type { Builder } from './builders.ts';

/** An event that the service sends to everyone who has the draft open. */
export type DraftEvent =
  | { kind: 'changed'; revision: number; by: string; what: string; patch: unknown }
  | { kind: 'published'; edition: number; by: string }
  | { kind: 'here'; builders: string[] }
  /** A frame of this builder has got a document of the draft: where its scripts are off, it cannot say so itself. */
  | { kind: 'shown'; address: string };

/** Milliseconds between signs of life, so that no proxy takes a quiet connection for a dead one. */
const beat = 20_000;
/** Connections at a time, for one draft. */
const mostListeners = 100;

interface Listener {
  builder: Builder;
  /** It only looks at a page of the draft: the others are not told of it. */
  looks: boolean;
  response: Response;
}

/** Tells the consoles that have a draft open what happens to it, as events that the service sends (WHATWG, server-sent events). */
export class DraftEvents {
  readonly #listeners = new Map<string, Set<Listener>>();
  readonly #timer = setInterval(() => {
    for (const { response } of this.#all()) response.write(': still here\n\n');
  }, beat);

  constructor() {
    this.#timer.unref();
  }

  /** Keeps a connection open. @returns false where too many are open already */
  open(app: string, builder: Builder, response: Response, looks = false): boolean {
    const listeners = this.#listeners.get(app) ?? new Set();
    if (listeners.size >= mostListeners) return false;
    this.#listeners.set(app, listeners);
    const listener = { builder, response, looks };
    listeners.add(listener);
    // Compression would hold events back until there are enough of them.
    response.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store, no-transform', 'x-accel-buffering': 'no' });
    response.on('close', () => {
      listeners.delete(listener);
      if (listeners.size === 0) this.#listeners.delete(app);
      this.#tellWhoIsHere(app);
    });
    this.#tellWhoIsHere(app);
    return true;
  }

  tell(app: string, event: DraftEvent): void {
    const text = `data: ${JSON.stringify(event)}\n\n`;
    for (const { response } of this.#listeners.get(app) ?? []) response.write(text);
  }

  /** Tells the consoles of one builder. */
  tellBuilder(app: string, id: string, event: DraftEvent): void {
    const text = `data: ${JSON.stringify(event)}\n\n`;
    for (const { builder, looks, response } of this.#listeners.get(app) ?? []) if (!looks && builder.id === id) response.write(text);
  }

  /** Ends connections whose access was revoked. @param id of a builder or a named token; all connections when left out */
  end(id?: string): void {
    for (const { builder, response } of this.#all()) if (id === undefined || builder.id === id) response.end();
  }

  /** Ends every connection: the service stops. */
  close(): void {
    clearInterval(this.#timer);
    for (const { response } of this.#all()) response.end();
    this.#listeners.clear();
  }

  #tellWhoIsHere(app: string): void {
    const builders = [...(this.#listeners.get(app) ?? [])].filter(({ looks }) => !looks).map(({ builder }) => builder.name);
    this.tell(app, { kind: 'here', builders });
  }

  *#all(): Generator<Listener> {
    for (const listeners of this.#listeners.values()) yield* listeners;
  }
}
