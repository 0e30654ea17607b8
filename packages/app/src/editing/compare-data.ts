import { fromPointer, type PatchOperation, toPointer } from '@pallmist/address/declare';
import { valueAt } from './patch-data.ts';

type Path = (string | number)[];

/** The JSON Patch that makes one state of data of another, with the fewest places touched that a simple comparison finds. */
export function comparePatch(before: unknown, after: unknown, path: Path = []): PatchOperation[] {
  if (equal(before, after)) return [];
  if (isMap(before) && isMap(after)) return compareMaps(before, after, path);
  if (Array.isArray(before) && Array.isArray(after)) return compareLists(before, after, path);
  return [{ op: 'replace', path: toPointer(path), value: after }];
}

function compareMaps(before: Record<string, unknown>, after: Record<string, unknown>, path: Path): PatchOperation[] {
  const patch: PatchOperation[] = [];
  for (const key of Object.keys(before))
    if (!Object.hasOwn(after, key) || after[key] === undefined) patch.push({ op: 'remove', path: toPointer([...path, key]) });
  const keys = Object.keys(after).filter((key) => after[key] !== undefined);
  const kept = Object.keys(before).filter((key) => keys.includes(key));
  for (const [index, key] of keys.entries()) {
    const at = [...path, key];
    if (Object.hasOwn(before, key)) patch.push(...comparePatch(before[key], after[key], at));
    else
      patch.push({ op: 'add', path: toPointer(at), value: after[key], before: keys.slice(index + 1).find((next) => kept.includes(next)) });
  }
  return patch;
}

/** What is the same at both ends stays; what is between is replaced one by one where as many are left, else put in new. */
function compareLists(before: readonly unknown[], after: readonly unknown[], path: Path): PatchOperation[] {
  let start = 0;
  while (start < Math.min(before.length, after.length) && equal(before[start], after[start])) start++;
  let end = 0;
  while (end < Math.min(before.length, after.length) - start && equal(before[before.length - 1 - end], after[after.length - 1 - end]))
    end++;
  const was = before.length - end - start;
  const is = after.length - end - start;
  const patch: PatchOperation[] = [];
  const shared = Math.min(was, is);
  for (let index = start; index < start + shared; index++) patch.push(...comparePatch(before[index], after[index], [...path, index]));
  for (let index = start + was - 1; index >= start + shared; index--) patch.push({ op: 'remove', path: toPointer([...path, index]) });
  for (let index = start + shared; index < start + is; index++)
    patch.push({ op: 'add', path: toPointer([...path, index]), value: after[index] });
  return patch;
}

/**
 * The places that a patch touches, for data as they were before it. What adds or takes away an item of a list touches the
 * list, since the numbers of the others change.
 */
export function touchedPlaces(data: unknown, operations: readonly PatchOperation[]): string[] {
  return operations.flatMap((operation) => {
    if (operation.op === 'test') return [];
    const places = 'from' in operation ? [operation.from, operation.path] : [operation.path];
    return places.map((place) => (operation.op === 'replace' ? place : listAround(data, place)));
  });
}

function listAround(data: unknown, pointer: string): string {
  const parent = toPointer(fromPointer(pointer).slice(0, -1));
  return Array.isArray(valueAt(data, parent)) ? parent : pointer;
}

/** Whether two changes touch the same place, or one of them a part of what the other touches. */
export function placesMeet(some: readonly string[], others: readonly string[]): boolean {
  const within = (inner: string, outer: string) => inner === outer || inner.startsWith(`${outer}/`);
  return some.some((one) => others.some((other) => within(one, other) || within(other, one)));
}

const isMap = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value);

export function equal(one: unknown, other: unknown): boolean {
  return one === other || (typeof one === 'object' && JSON.stringify(one) === JSON.stringify(other));
}
