import { nearest } from '../../near.ts';
import { toPointer, type PatchOperation } from '../../problem.ts';
import type { Place } from './context.ts';

/** The patch that puts the name that was probably meant in the place of a wrong one; nothing when no name is near. */
export function mendName(place: Place, wrong: string, names: Iterable<string>): { mend: PatchOperation[] } | Record<never, never> {
  const near = nearest(wrong, names);
  return near === undefined ? {} : { mend: [{ op: 'replace', path: toPointer(place), value: near }] };
}

/** The same for a name that is itself a key. */
export function mendKey(place: Place, wrong: string, names: Iterable<string>): { mend: PatchOperation[] } {
  const near = nearest(wrong, names);
  const at = toPointer([...place, wrong]);
  return { mend: near === undefined ? [{ op: 'remove', path: at }] : [{ op: 'move', from: at, path: toPointer([...place, near]) }] };
}
