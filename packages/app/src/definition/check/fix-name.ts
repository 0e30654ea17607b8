import { type PatchOperation, toPointer } from '@pallmist/address/declare';
import { nearest } from '@pallmist/address/explain';
import type { Place } from './context.ts';

/** The patch that puts the name that was probably meant in the place of a wrong one; nothing when no name is near. */
export function fixName(place: Place, wrong: string, names: Iterable<string>): { fix: PatchOperation[] } | Record<never, never> {
  const near = nearest(wrong, names);
  return near === undefined ? {} : { fix: [{ op: 'replace', path: toPointer(place), value: near }] };
}

/** The same for a name that is itself a key. */
export function fixKey(place: Place, wrong: string, names: Iterable<string>): { fix: PatchOperation[] } {
  const near = nearest(wrong, names);
  const at = toPointer([...place, wrong]);
  return { fix: near === undefined ? [{ op: 'remove', path: at }] : [{ op: 'move', from: at, path: toPointer([...place, near]) }] };
}
