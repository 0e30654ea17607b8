import type { HostedApp } from '../apps/hosted-app.ts';
import type { Admitted } from './steps.ts';

/** Most characters that are kept for one app, in UTF-16 code units. */
const mostCharacters = 20_000_000;

interface Kept {
  dataVersion: number;
  characters: number;
  bodies: Map<string, string>;
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
  find(hosted: HostedApp, dataVersion: number, key: string): string | undefined {
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

  keep(hosted: HostedApp, dataVersion: number, key: string, body: string): void {
    const kept = this.#keptOf(hosted, dataVersion);
    // Drawn from records that have changed meanwhile.
    if (kept.dataVersion !== dataVersion) return;
    kept.characters += body.length - (kept.bodies.get(key)?.length ?? 0);
    kept.bodies.set(key, body);
    for (const [oldest, text] of kept.bodies) {
      if (kept.characters <= mostCharacters) break;
      kept.bodies.delete(oldest);
      kept.characters -= text.length;
    }
  }

  #keptOf(hosted: HostedApp, dataVersion: number): Kept {
    let kept = this.#apps.get(hosted);
    if (kept === undefined || kept.dataVersion < dataVersion)
      this.#apps.set(hosted, (kept = { dataVersion, characters: 0, bodies: new Map() }));
    return kept;
  }
}
