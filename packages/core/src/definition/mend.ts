import type { Problem } from '../problem.ts';
import { checkAppFile } from './check/check-app.ts';
import { patchSource } from './patch.ts';

/** Most changes that one mending makes. */
const mostChanges = 500;

/**
 * Mends an app file wherever a problem says how, one problem after the other, checking anew in between: a change may
 * move the places of the others, or mend them too.
 */
export function mendSource(source: string): { source: string; mended: Problem[] } {
  const mended: Problem[] = [];
  const tried = new Set<string>();
  let text = source;
  while (mended.length < mostChanges) {
    const next = checkAppFile(text).problems.find(({ mend, code, pointer = '' }) => mend !== undefined && !tried.has(`${code} ${pointer}`));
    if (next?.mend === undefined) break;
    // Once for each place, so that two mends that undo each other come to an end.
    tried.add(`${next.code} ${next.pointer ?? ''}`);
    text = patchSource(text, next.mend);
    mended.push(next);
  }
  return { source: text, mended };
}
