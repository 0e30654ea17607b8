/** Choices of a generated test. A seed gives the same choices again. */
export interface Chance {
  /** A whole number from 0 to below the bound. */
  below(bound: number): number;
  pick<Item>(items: readonly Item[]): Item;
  /** Whether something happens that happens once in so many times. */
  once(inTimes: number): boolean;
}

/** Pseudo-random numbers (mulberry32). */
export function chanceOf(seed: number): Chance {
  let state = seed >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
  const below = (bound: number) => Math.floor(next() * bound);
  return { below, pick: (items) => items[below(items.length)] as (typeof items)[number], once: (times) => below(times) === 0 };
}
