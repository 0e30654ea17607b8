import type { Problem } from '@pallmist/address/declare';
import { checkAppFile } from './check/check-app.ts';
import { patchSource } from './patch.ts';
import { parseSource } from './source-map.ts';

/** Most changes that one fixing makes. */
const mostChanges = 500;

/**
 * Fixes an app file wherever a problem says how, one problem after the other, checking again in between: a change may
 * move the places of the others, or fix them too.
 */
export function fixSource(source: string): { source: string; fixed: Problem[] } {
  const fixed: Problem[] = [];
  const tried = new Set<string>();
  const former = parseSource(source).problems.filter(({ code }) => code === 'former-key');
  // Any patch rewrites all of these.
  let text = former.length === 0 ? source : patchSource(source, []);
  fixed.push(...former);
  while (fixed.length < mostChanges) {
    const next = checkAppFile(text).problems.find(({ fix, code, pointer = '' }) => fix !== undefined && !tried.has(`${code} ${pointer}`));
    if (next?.fix === undefined) break;
    // Once for each place, so that two fixes that undo each other come to an end.
    tried.add(`${next.code} ${next.pointer ?? ''}`);
    text = patchSource(text, next.fix);
    fixed.push(next);
  }
  return { source: text, fixed };
}
