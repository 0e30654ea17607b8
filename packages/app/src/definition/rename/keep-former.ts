import { type PatchOperation, toPointer } from '@pallmist/address/declare';
import type { Place } from './places.ts';

/**
 * The operations by which a former name still works: it joins the list of former names, from which today’s is taken out.
 * @param present the former names that are declared already
 */
export function keepFormer(place: Place, present: readonly string[] | undefined, from: string, to: string): PatchOperation[] {
  return [{ op: present === undefined ? 'add' : 'replace', path: toPointer(place), value: formerNames(present, from, to) }];
}

/** The former names of what is renamed: the name that it has had, and not the one that it gets. */
export const formerNames = (present: readonly string[] | undefined, from: string, to: string): string[] => [
  ...(present ?? []).filter((name) => name !== to && name !== from),
  from,
];
