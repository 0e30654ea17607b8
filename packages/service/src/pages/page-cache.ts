import type { HostedApp } from '../apps/hosted-app.ts';
import type { KeptPage } from './kept-page.ts';
import type { Admitted } from './steps.ts';

/** How much is kept: bytes, or UTF-16 code units of a page whose forms have a mark. */
export interface CacheLimits {
  ofApp: number;
  ofAll: number;
}
const usual: CacheLimits = { ofApp: 20_000_000, ofAll: 100_000_000 };

type Body = string | KeptPage;

interface Kept {
  dataVersion: number;
  size: number;
  bodies: Map<string, Body>;
}

/**
 * Pages as they were last drawn. They are kept as long as nothing changes that they depend on: the app as it was published,
 * its records, the address, and who asks, when and coming from where.
 */
export class PageCache {
  readonly #apps = new WeakMap<HostedApp, Kept>();
  /** What is kept for all apps; those that were asked for least stand first. */
  readonly #all = new Set<Kept>();
  readonly #limits: CacheLimits;
  #size = 0;

  constructor(limits: CacheLimits = usual) {
    this.#limits = limits;
  }

  /** How much is kept for all apps. */
  get size(): number {
    return this.#size;
  }

  /** What a page depends on, beside the app and its records. */
  static keyOf(kind: string, address: string, { requestContext }: Admitted): string {
    return JSON.stringify([kind, address, requestContext]);
  }

  /** @param dataVersion greater whenever a record of the app has changed */
  find(hosted: HostedApp, dataVersion: number, key: string): Body | undefined {
    const kept = this.#keptOf(hosted, dataVersion);
    if (kept.dataVersion !== dataVersion) return undefined;
    const { bodies } = kept;
    const body = bodies.get(key);
    if (body !== undefined) {
      // Put last again: what is asked for least goes first.
      bodies.delete(key);
      bodies.set(key, body);
    }
    return body;
  }

  keep(hosted: HostedApp, dataVersion: number, key: string, body: Body): void {
    const kept = this.#keptOf(hosted, dataVersion);
    // Drawn from records that have changed meanwhile.
    if (kept.dataVersion !== dataVersion) return;
    const { bodies } = kept;
    const more = body.length - (bodies.get(key)?.length ?? 0);
    bodies.delete(key);
    bodies.set(key, body);
    kept.size += more;
    this.#size += more;
    this.#shrink(kept, () => kept.size > this.#limits.ofApp);
    for (const other of this.#all) {
      if (this.#size <= this.#limits.ofAll) break;
      this.#shrink(other, () => this.#size > this.#limits.ofAll);
    }
  }

  /** Takes out what was asked for least, as long as there is too much. */
  #shrink(kept: Kept, isTooMuch: () => boolean): void {
    for (const [key, { length }] of kept.bodies) {
      if (!isTooMuch()) return;
      kept.bodies.delete(key);
      kept.size -= length;
      this.#size -= length;
    }
  }

  #keptOf(hosted: HostedApp, dataVersion: number): Kept {
    let kept = this.#apps.get(hosted);
    if (kept !== undefined && kept.dataVersion < dataVersion) {
      this.#shrink(kept, () => true);
      this.#all.delete(kept);
      kept = undefined;
    }
    if (kept === undefined) this.#apps.set(hosted, (kept = { dataVersion, size: 0, bodies: new Map() }));
    // Put last again, as its bodies are.
    this.#all.delete(kept);
    this.#all.add(kept);
    return kept;
  }
}
