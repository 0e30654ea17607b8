import type { Problem } from '@pallmist/app';
import { Refused } from '../api/problem-details.ts';
import type { AppStore, DraftChangeNote, DraftChangeRow, DraftRow } from '../store/apps.ts';

export const movedOn = 'The draft has changed meanwhile. Get it again, and make your change to it.';

const notSeen =
  'The draft has changes that your text was not made from. Pull the draft into another file and bring both together, or push with “replace” (--replace), which discards these changes.';

/** Changes that a refusal names one by one; it counts the earlier ones. */
const mostNamed = 20;

interface WantedDraft {
  app: string;
  source: string;
  /** The revision that the text was made from, 0 where there was no draft; whatever is there when left out. */
  revision: number | undefined;
  /** Overwrite what others have changed since. */
  replace: boolean;
}

/**
 * Puts a text in the place of a draft, within the transaction that `apps` belongs to. A text that is there already stays
 * as it is, with its revision.
 * @returns the draft, and what was overwritten
 * @throws Refused with 409 and what others have changed since the revision that the text was made from
 */
export async function putDraft(
  apps: AppStore,
  { app, source, revision, replace }: WantedDraft,
  note: DraftChangeNote,
): Promise<{ saved: DraftRow; discarded: DraftChangeRow[] }> {
  const present = await apps.draft(app);
  if (present?.source === source) return { saved: present, discarded: [] };
  // A revision that there never was comes from another service: nothing of this draft was seen.
  const seen = revision !== undefined && revision > (present?.revision ?? 0) ? 0 : revision;
  const unseen = seen === undefined ? [] : await apps.changesSince(app, seen);
  const saved = await apps.saveDraft(app, source, replace ? undefined : revision, note);
  if (saved === undefined) throw new Refused(409, notSeen, describe(unseen));
  return { saved, discarded: unseen };
}

/** What others have changed, the newest first. */
function describe(changes: readonly DraftChangeRow[]): Problem[] {
  const named = changes.slice(-mostNamed).reverse();
  const said = named.map(({ revision, changedBy, changedAt, what }) =>
    changed(`Revision ${String(revision)}, ${changedBy}, ${changedAt.slice(0, 16).replace('T', ' ')}: ${what}.`),
  );
  const earlier = changes.length - named.length;
  return earlier === 0 ? said : [...said, changed(`There are ${String(earlier)} earlier changes.`)];
}

const changed = (message: string): Problem => ({
  code: 'draft-changed',
  severity: 'error',
  message,
  pointer: '',
});
