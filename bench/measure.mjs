// Times two functions side by side, in turns, so that a machine that slows down slows both.
const rounds = 25;
const target = 20; // milliseconds of a round

export const median = (numbers) => numbers.toSorted((a, b) => a - b)[Math.floor(numbers.length / 2)];

function time(work, count) {
  const start = performance.now();
  for (let i = 0; i < count; i++) work();
  return performance.now() - start;
}

function countFor(work) {
  let count = 100;
  while (time(work, count) < target) count *= 2;
  return count;
}

/** @returns medians in nanoseconds a call, and the median of the ratios theirs / ours of each round */
export function compareRounds(ours, theirs) {
  const [a, b] = [countFor(ours), countFor(theirs)];
  const timed = Array.from({ length: rounds }, () => [(time(ours, a) / a) * 1e6, (time(theirs, b) / b) * 1e6]);
  return {
    ours: Math.round(median(timed.map(([x]) => x))),
    theirs: Math.round(median(timed.map(([, y]) => y))),
    ratio: median(timed.map(([x, y]) => y / x)),
  };
}

/** @returns the median of some single calls, in milliseconds */
export function once(work, times) {
  return median(Array.from({ length: times }, () => time(work, 1)));
}
