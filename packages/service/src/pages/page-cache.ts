import type { HostedApp } from '../apps/hosted-app.ts';
import type { KeptPage } from './kept-page.ts';
import type { Admitted } from './steps.ts';

/** How much is kept for one app: bytes, or UTF-16 code units of a page whose forms have a mark. */
const mostKept = 20_000_000;

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
    kept.size += body.length - (kept.bodies.get(key)?.length ?? 0);
    kept.bodies.set(key, body);
    for (const [oldest, { length }] of kept.bodies) {
      if (kept.size <= mostKept) break;
      kept.bodies.delete(oldest);
      kept.size -= length;
    }
  }

  #keptOf(hosted: HostedApp, dataVersion: number): Kept {
    let kept = this.#apps.get(hosted);
    if (kept === undefined || kept.dataVersion < dataVersion) this.#apps.set(hosted, (kept = { dataVersion, size: 0, bodies: new Map() }));
    return kept;
  }
}
