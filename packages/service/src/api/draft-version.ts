import type { OperationName } from '@pallmist/api';
import type { Request, Response } from 'express';
import { Refused } from './problem-details.ts';

/** Operations that change a draft, or make it public. */
const onDraft: ReadonlySet<OperationName> = new Set<OperationName>(['pushDraft', 'patchDraft', 'changeDraft', 'publish']);

/** The entity tag (RFC 9110) of a draft: its revision. */
const tagOf = (revision: number): string => `"${String(revision)}"`;

/**
 * Holds a request against the draft that its `If-Match` names. A match is asked for again when the change is made, by the
 * revision in the body: between here and there somebody else may change the draft.
 * @param revision the present revision of the draft; undefined where there is no such app
 * @throws Refused with 412 where the draft is another by now
 */
export function heedIfMatch(name: OperationName, request: Request, revision: number | undefined, body: unknown): void {
  const wanted = request.headers['if-match'];
  if (wanted === undefined || !onDraft.has(name)) return;
  const tags = wanted.split(',').map((tag) => tag.trim());
  const matches = revision !== undefined && (tags.includes('*') || tags.includes(tagOf(revision)));
  if (!matches)
    throw new Refused(
      412,
      revision === undefined
        ? 'There is no draft that “If-Match” could name.'
        : `The draft is at revision ${String(revision)} by now, not ${wanted}. Get it again, and make the change on top of it.`,
    );
  if (typeof body === 'object' && body !== null && !('revision' in body)) Object.assign(body, { revision });
}

export const heedsIfMatch = (name: OperationName, request: Request): boolean =>
  onDraft.has(name) && request.headers['if-match'] !== undefined;

/** Names the draft in the answer, so that the next change can be made to exactly this one. */
export function tagDraft(response: Response, answer: unknown): void {
  if (typeof answer === 'object' && answer !== null && 'revision' in answer && typeof answer.revision === 'number' && 'source' in answer)
    response.setHeader('etag', tagOf(answer.revision));
}
