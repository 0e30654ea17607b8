import { decodeForShow, standsAt } from './percent.ts';
import { address, pathEnd, queryEnd, scanned } from './scan.ts';
import type { Slot, Template } from './template.ts';
import { turn } from './turn.ts';

/** Takes a text of the address that was scanned for a slot. */
export function take(slot: Slot, from: number, to: number): void {
  slot.turn = turn;
  slot.from = from;
  slot.to = to;
  slot.odd = undefined;
}

/** Takes a path segment: there a plus sign is a plus sign. */
export function takeSegment(slot: Slot, from: number, to: number): void {
  take(slot, from, to);
  const raw = address.slice(from, to);
  if (raw.includes('+')) slot.odd = { raw, source: raw.replaceAll('+', '%2B') };
}

/** The name of a pair that begins and whose text begins at these places. */
export const nameOf = (start: number, from: number): string => address.slice(start, from).replace(/=$/, '');

/** Whether the path of the address that was scanned is one of the page's; its parameters' texts are taken. */
export function locatePath({ root, literals, segments, optional }: Template): boolean {
  if (root === '') return true;
  let at = scanned;
  for (let i = at > 0 ? literals : 0; i < segments.length; i++) {
    const segment = segments[i] as string | Slot;
    if (at >= pathEnd - 1) return optional && i === segments.length - 1;
    if (address.charCodeAt(at) !== 47) return false;
    const from = at + 1;
    at = address.indexOf('/', from);
    if (at < 0 || at > pathEnd) at = pathEnd;
    if (typeof segment === 'object') {
      if (from === at) return false;
      takeSegment(segment, from, at);
    } else if (segment.length === at - from ? !standsAt(address, from, segment) : true) {
      if (decodeForShow(address.slice(from, at).replaceAll('+', '%2B')) !== segment) return false;
    }
  }
  // A “/” at the end changes nothing.
  return at === pathEnd || (at === pathEnd - 1 && address.charCodeAt(at) === 47);
}

/**
 * Finds the texts of the query's parameters. Names that come next in written order are compared where they stand; any
 * other is looked up.
 * @param strange told of each pair that the page does not declare: where it begins, and where its text stands
 */
export function locateQuery(
  { slots, inPath, byName }: Template,
  strange: ((start: number, from: number, to: number) => void) | undefined,
): void {
  let next = inPath;
  for (let start = pathEnd + 1; start < queryEnd;) {
    let slot: Slot | undefined;
    let from = 0;
    let renamed = false;
    for (let i = next; i < slots.length && from === 0; i++) {
      const candidate = slots[i] as Slot;
      const end = start + candidate.name.length;
      if (address.charCodeAt(end) !== 61 || !standsAt(address, start, candidate.name)) continue;
      slot = candidate;
      from = end + 1;
    }
    if (slot === undefined) {
      let end = start;
      let code = 0;
      while (end < queryEnd && (code = address.charCodeAt(end)) !== 61 && code !== 38) end++;
      const name = address.slice(start, end);
      slot = slotNamed(byName, name);
      renamed = slot?.name !== name;
      // Without “=” the text is empty.
      from = end < queryEnd && code === 61 ? end + 1 : end;
    }
    let stop = from;
    while (stop < queryEnd && address.charCodeAt(stop) !== 38) stop++;
    if (slot === undefined || slot.inPath) {
      if (stop > start) strange?.(start, from, stop);
    } else {
      takeMore(slot, from, stop, renamed);
      next = slot.index + 1;
    }
    start = stop + 1;
  }
}

/**
 * The slot of a name in a query. Accepts the name as it stands, decoded, in other capitals, and with the `amp;` that is left
 * over when an address is copied from HTML source (`&amp;house=palm`).
 */
export const slotNamed = (byName: Template['byName'], name: string): Slot | undefined =>
  byName.get(name) ?? byName.get((name = decodeForShow(name))) ?? byName.get(name.replace(/^(?:amp;)+/, '').toLowerCase());

/** Takes a text for a slot that may hold one already. */
export function takeMore(slot: Slot, from: number, to: number, renamed: boolean): void {
  if (slot.turn !== turn) take(slot, from, to);
  else ((slot.odd ??= {}).several ??= [address.slice(slot.from, slot.to)]).push(address.slice(from, to));
  if (renamed) (slot.odd ??= {}).renamed = true;
}
