import { fromPointer, type PatchOperation, type Problem, quote } from '@pallmist/address/declare';
import { checkAppFile } from './check/check-app.ts';
import { patchSource } from './patch.ts';
import { parseSource } from './source-map.ts';

/** Most changes that one fixing makes. */
const mostChanges = 500;

/**
 * Fixes an app file wherever a problem says how and nothing of the file is lost by it, one problem after the other,
 * checking again in between: a change may move the places of the others, or fix them too. What a fix would take out
 * stays, with its problem: a person decides.
 */
export function fixSource(source: string): { source: string; fixed: Problem[] } {
  const fixed: Problem[] = [];
  const tried = new Set<string>();
  const former = parseSource(source).problems.filter(({ code }) => code === 'former-key');
  // Any patch rewrites all of these.
  let text = former.length === 0 ? source : patchSource(source, []);
  fixed.push(...former);
  while (fixed.length < mostChanges) {
    const next = checkAppFile(text).problems.find(
      ({ fix, code, pointer = '' }) => fix !== undefined && losesNothing(fix) && !tried.has(`${code} ${pointer}`),
    );
    if (next?.fix === undefined) break;
    // Once for each place, so that two fixes that undo each other come to an end.
    tried.add(`${next.code} ${next.pointer ?? ''}`);
    text = patchSource(text, next.fix);
    fixed.push(next);
  }
  return { source: text, fixed };
}

const losesNothing = (fix: readonly PatchOperation[]): boolean => fix.every(({ op }) => op !== 'remove');

/** What a fix has done, in a sentence. */
export function describeFix(fix: readonly PatchOperation[]): string {
  return fix.map((operation) => `${done(operation)}.`).join(' ');
}

function done(operation: PatchOperation): string {
  const key = (pointer: string) => quote(fromPointer(pointer).at(-1) ?? '');
  const to = key(operation.path);
  switch (operation.op) {
    case 'add':
      return `${to} is now ${quote(operation.value)}`;
    case 'replace':
      return `It is now ${quote(operation.value)}`;
    case 'remove':
      return `${to} is removed`;
    case 'move':
      return `${key(operation.from)} is now ${to}`;
    case 'copy':
      return `${key(operation.from)} is also at ${to}`;
    case 'test':
      return `${to} is ${quote(operation.value)}`;
  }
}
