import type { OperationName } from '@pallmist/api';
import { quote } from '@pallmist/app';
import type { Request, Response } from 'express';
import type { AppStore } from '../store/apps.ts';
import { wantedTags } from './entity-tags.ts';
import { Refused } from './problem-details.ts';

/** Operations that change a draft, or make it public. */
const onDraft: ReadonlySet<OperationName> = new Set<OperationName>(['pushDraft', 'patchDraft', 'changeDraft', 'publish']);

/** The entity tag (RFC 9110) of a draft: its revision. */
const tagOf = (revision: number): string => `"${String(revision)}"`;

/**
 * Checks the `If-Match` of a request that changes or publishes a draft. The revision also goes into the body, so that the
 * change itself is refused if someone changes the draft after this check.
 * @throws Refused with 412 if the draft has changed
 */
export async function heedIfMatch(name: OperationName, request: Request, store: AppStore, body?: unknown): Promise<void> {
  const tags = wantedTags(request);
  if (tags === undefined || !onDraft.has(name)) return;
  const revision = (await store.draft(String(request.params['app'])))?.revision;
  if (revision === undefined) throw new Refused(412, 'The app has no draft yet, so “If-Match” cannot name it.');
  if (!tags.includes('*') && !tags.includes(tagOf(revision)))
    throw new Refused(412, `The draft is at revision ${String(revision)}, not ${tags.join(', ')}. Get it again, then repeat your change.`);
  if (typeof body === 'object' && body !== null && !('revision' in body)) Object.assign(body, { revision });
}

/** Names the draft in the answer, so that the next change can be made to exactly this one. */
export function tagDraft(response: Response, answer: unknown): void {
  if (typeof answer === 'object' && answer !== null && 'revision' in answer && typeof answer.revision === 'number' && 'source' in answer)
    response.setHeader('etag', tagOf(answer.revision));
}

/**
 * The revision that a request which cannot be taken back has seen.
 * @throws Refused with 428 (RFC 6585) where it says none, 412 where it is not the draft’s
 */
export async function revisionSeen(request: Request, store: AppStore): Promise<number> {
  const app = String(request.params['app']);
  const revision = (await store.draft(app))?.revision;
  if (revision === undefined) throw new Refused(404, `There is no app ${quote(app)}.`);
  const tags = wantedTags(request);
  if (tags === undefined) throw new Refused(428, 'This cannot be taken back. Get the draft, then send its “ETag” as “If-Match”.');
  if (!tags.includes('*') && !tags.includes(tagOf(revision)))
    throw new Refused(412, `The draft is at revision ${String(revision)}, not ${tags.join(', ')}. Get it again, then decide again.`);
  return revision;
}
