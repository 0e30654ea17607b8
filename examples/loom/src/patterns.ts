import type { Draft } from './draft.ts';

const repeat = (motif: readonly number[], length: number) => Array.from({ length }, (_, index) => motif[index % motif.length] ?? 0);
const size = 24;

function pattern(shafts: number, threading: number[], tieUp: number[][], treadling: number[], warp: number[], weft: number[]): Draft {
  return {
    shafts,
    threading: repeat(threading, size),
    tieUp,
    treadling: repeat(treadling, size),
    warp: repeat(warp, size),
    weft: repeat(weft, size),
  };
}

const straight = (shafts: number, raised: number) =>
  Array.from({ length: shafts }, (_, treadle) =>
    Array.from({ length: raised }, (_, step) => (treadle + step) % shafts).sort((a, b) => a - b),
  );
const up = (shafts: number) => Array.from({ length: shafts }, (_, index) => index);
const point = (shafts: number) => [...up(shafts), ...up(shafts).slice(1, -1).reverse()];

/** Each treadle raises four shafts, two and two, so that no yarn floats far. */
const eightShaft = Array.from({ length: 8 }, (_, treadle) => [0, 1, 4, 5].map((step) => (treadle + step) % 8).sort((a, b) => a - b));

/** The patterns of the gallery, by name. */
export const patterns: Readonly<Record<string, Draft>> = {
  'Straight twill': pattern(4, up(4), straight(4, 2), up(4), [0], [2]),
  'Plain weave': pattern(2, up(2), [[0], [1]], up(2), [7], [5]),
  Houndstooth: pattern(4, up(4), straight(4, 2), up(4), [0, 0, 0, 0, 1, 1, 1, 1], [0, 0, 0, 0, 1, 1, 1, 1]),
  'Bird’s eye': pattern(4, point(4), straight(4, 2), point(4), [0], [4]),
  'Log cabin': pattern(
    2,
    [...repeat([0, 1], 12)],
    [[0], [1]],
    up(2),
    [...repeat([1, 3], 6), ...repeat([3, 1], 6)],
    [...repeat([1, 3], 6), ...repeat([3, 1], 6)],
  ),
  'Eight-shaft point': pattern(8, point(8), eightShaft, point(8), [0], [6]),
  'Broken twill': pattern(4, up(4), straight(4, 2), [0, 1, 3, 2], [7], [2, 3]),
};
