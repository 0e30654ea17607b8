/** A weaving draft. Threads are counted from the left, picks from the top, shafts from the bottom, all from 0. */
export interface Draft {
  /** How many shafts and treadles the loom has. */
  readonly shafts: number;
  /** The shaft of each warp thread. */
  readonly threading: readonly number[];
  /** The shafts that each treadle raises. */
  readonly tieUp: readonly (readonly number[])[];
  /** The treadle of each pick. */
  readonly treadling: readonly number[];
  /** The colour of each warp thread and of each pick, by its place in the palette. */
  readonly warp: readonly number[];
  readonly weft: readonly number[];
}

export const palette = ['#f2e8d5', '#2b211a', '#9c2f2a', '#c98b2b', '#4f6d3a', '#2f5d73', '#6b4a7a', '#b7a48c'] as const;
export const paletteNames = ['Undyed', 'Walnut', 'Madder', 'Weld', 'Nettle', 'Woad', 'Elder', 'Flax'] as const;

/** Most threads and picks. */
const longest = 48;

/** Whether a value, as it stands in an address, is a draft that this loom can weave. */
export function isDraft(value: unknown): value is Draft {
  if (typeof value !== 'object' || value === null) return false;
  const { shafts, threading, tieUp, treadling, warp, weft } = value as Record<string, unknown>;
  const below = (most: number) => (item: unknown) => Number.isInteger(item) && (item as number) >= 0 && (item as number) < most;
  const listOf = (list: unknown, length: number, most: number) => Array.isArray(list) && list.length === length && list.every(below(most));
  if (typeof shafts !== 'number' || ![2, 4, 8].includes(shafts) || !Array.isArray(threading) || !Array.isArray(treadling)) return false;
  if (threading.length < 4 || threading.length > longest || treadling.length < 4 || treadling.length > longest) return false;
  return (
    listOf(threading, threading.length, shafts) &&
    listOf(treadling, treadling.length, shafts) &&
    listOf(warp, threading.length, palette.length) &&
    listOf(weft, treadling.length, palette.length) &&
    Array.isArray(tieUp) &&
    tieUp.length === shafts &&
    tieUp.every((raised) => Array.isArray(raised) && raised.length <= shafts && raised.every(below(shafts)))
  );
}

/** Whether the warp thread lies on top of the pick. */
export const warpIsUp = ({ threading, tieUp, treadling }: Draft, thread: number, pick: number): boolean =>
  tieUp[treadling[pick] ?? 0]?.includes(threading[thread] ?? 0) === true;

/** The colour that shows where a thread crosses a pick. */
export const colourAt = (draft: Draft, thread: number, pick: number): string =>
  palette[(warpIsUp(draft, thread, pick) ? draft.warp[thread] : draft.weft[pick]) ?? 0] ?? palette[0];

/** How many threads or picks a yarn floats over at most: long floats catch on things. */
export function longestFloat(draft: Draft): number {
  const runs = (lines: number, length: number, up: (line: number, at: number) => boolean) => {
    let most = 0;
    for (let line = 0; line < lines; line++) {
      let run = 0;
      for (let at = 0; at < length; at++) most = Math.max(most, (run = at > 0 && up(line, at) === up(line, at - 1) ? run + 1 : 1));
    }
    return most;
  };
  const { length: threads } = draft.threading;
  const { length: picks } = draft.treadling;
  return Math.max(
    runs(threads, picks, (thread, pick) => warpIsUp(draft, thread, pick)),
    runs(picks, threads, (pick, thread) => warpIsUp(draft, thread, pick)),
  );
}

/** A list with one item replaced; the same list where it is the same already. */
export const withItem = <Item>(list: readonly Item[], at: number, item: Item): readonly Item[] =>
  list[at] === item ? list : list.with(at, item);
