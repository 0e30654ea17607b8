import type { LinkFinding, Rehearsal } from '@pallmist/api';
import type { Draft } from '../draft/draft.svelte.ts';
import { client, explain } from '../service/calls.ts';

/** What a builder says to a finding. */
interface Answer {
  agreed: boolean;
  why: string;
}

/** What publishing the draft would change for addresses of earlier editions, asked again after each change of the draft. */
export class DraftRehearsal {
  readonly #draft: Draft;
  told: Rehearsal | undefined = $state.raw();
  failure: string | undefined = $state();
  working = $state(false);
  #answers: Record<string, Answer> = $state({});

  readonly findings: readonly LinkFinding[] = $derived(this.told?.findings ?? []);
  /** Findings that hold publishing up. */
  readonly open = $derived(
    this.findings.filter(({ id, needsConsent, printed }) => needsConsent && (printed.length > 0 || this.#answers[id]?.agreed !== true)),
  );
  readonly consents = $derived(
    this.findings.flatMap(({ id }) => {
      const { agreed = false, why = '' } = this.#answers[id] ?? {};
      return agreed ? [{ finding: id, ...(why.trim() === '' ? {} : { why: why.trim() }) }] : [];
    }),
  );

  constructor(draft: Draft) {
    this.#draft = draft;
    $effect(() => {
      const { publishable, publishedEdition, revision, saved } = draft;
      if (publishable && publishedEdition !== undefined && saved && revision !== this.told?.revision) void this.ask();
    });
  }

  async ask(): Promise<void> {
    this.working = true;
    try {
      this.told = await client.call('rehearse', { app: this.#draft.app });
      this.failure = undefined;
    } catch (error) {
      this.failure = explain(error);
    }
    this.working = false;
  }

  answer(id: string): Answer {
    return this.#answers[id] ?? { agreed: false, why: '' };
  }

  set(id: string, answer: Partial<Answer>): void {
    this.#answers[id] = { ...this.answer(id), ...answer };
  }

  /** What builders intended with an edition, each once. */
  consentsOf(edition: number): Rehearsal['consents'] {
    const some = (this.told?.consents ?? []).filter((consent) => consent.edition === edition);
    return some.filter(({ words }, index) => some.findIndex((other) => other.words === words) === index);
  }

  forget(): void {
    this.#answers = {};
    this.told = undefined;
  }
}
