import { fromPointer, toPointer, type Problem } from '@pallmist/address/declare';
import { valueAt } from '../../editing/patch-data.ts';
import type { BlockUse, ExpandedApp } from './expand-blocks.ts';

/** Where something of an expanded app is written: in the block that brought it, or where it stands. */
export function writtenAt(pointer: string, uses: readonly BlockUse[]): { pointer: string; use?: BlockUse } {
  let inner: BlockUse | undefined;
  for (const use of uses)
    if (use.at.length > (inner?.at.length ?? -1) && (pointer === `${use.at}/content` || pointer.startsWith(`${use.at}/content/`)))
      inner = use;
  if (inner === undefined) return { pointer };
  return { pointer: toPointer(['blocks', inner.block, 'content']) + pointer.slice(`${inner.at}/content`.length), use: inner };
}

/** The problems of an expanded app, each where it is written; what several uses of a block have is told once. */
export function problemsAsWritten(problems: readonly Problem[], { data, uses }: ExpandedApp, written: unknown): Problem[] {
  if (uses.length === 0) return [...problems];
  const told = new Set<string>();
  return problems.flatMap((problem): Problem[] => {
    const { pointer: from, fix, ...rest } = problem;
    if (from === undefined) return [problem];
    const { pointer, use } = writtenAt(from, uses);
    if (use === undefined) return [problem];
    const key = `${problem.code} ${pointer} ${problem.message}`;
    if (told.has(key)) return [];
    told.add(key);
    const [, page = ''] = fromPointer(use.at);
    const message = `${problem.message} (The page “${page}” uses the block “${use.block}”.)`;
    // A fix of what an input brought would not be a fix of the block.
    const isAsWritten = JSON.stringify(valueAt(data, from)) === JSON.stringify(valueAt(written, pointer));
    const fixes = fix?.map((operation) => ({ ...operation, path: writtenAt(operation.path, uses).pointer }));
    return [{ ...rest, message, pointer, ...(isAsWritten && fixes !== undefined ? { fix: fixes } : {}) }];
  });
}
