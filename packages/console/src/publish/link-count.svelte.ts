import type { Draft } from '../draft/draft.svelte.ts';
import { client } from '../service/calls.ts';

/** Milliseconds without a further change until the service is asked. */
const quiet = 150;

/** How many findings publishing the draft would have, counted again after each change of it. */
export class LinkCount {
  /** Findings that need a repair or a consent. */
  open = $state(0);
  #revision = -1;

  constructor(draft: Draft) {
    $effect(() => {
      const { app, publishable, publishedEdition, revision, saved } = draft;
      if (publishedEdition === undefined) this.open = 0;
      if (!publishable || publishedEdition === undefined || !saved || revision === this.#revision) return undefined;
      const timer = setTimeout(() => void this.#ask(app), quiet);
      return () => {
        clearTimeout(timer);
      };
    });
  }

  async #ask(app: string): Promise<void> {
    try {
      const { revision, findings } = await client.call('getFindings', { app });
      this.#revision = revision;
      this.open = findings.filter(({ needsConsent }) => needsConsent).length;
    } catch {
      // It is only a hint: the screen “Publish” says what is wrong.
    }
  }
}
