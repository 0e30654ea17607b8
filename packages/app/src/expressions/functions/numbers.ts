import type { CelFunction } from './kind.ts';

type Numeric = bigint | number;

const greatest = (values: readonly Numeric[]): Numeric => extreme(values, (one, other) => one > other);
const least = (values: readonly Numeric[]): Numeric => extreme(values, (one, other) => one < other);

function extreme(values: readonly Numeric[], beats: (one: Numeric, other: Numeric) => boolean): Numeric {
  const [first] = values;
  if (first === undefined) throw new RangeError('There is no number.');
  return values.reduce((best, value) => (beats(value, best) ? value : best), first);
}

const pairs = (name: string) => [
  `math.${name}(int, int): int`,
  `math.${name}(double, double): double`,
  `math.${name}(int, double): dyn`,
  `math.${name}(double, int): dyn`,
  `math.${name}(list): dyn`,
];

const chosen = (choose: (values: readonly Numeric[]) => Numeric) => (_: unknown, first: Numeric | Numeric[], second?: Numeric) =>
  choose(Array.isArray(first) ? first : second === undefined ? [first] : [first, second]);

const ofDouble = (
  name: string,
  sentence: string,
  example: CelFunction['example'],
  calculate: (value: number) => number | boolean,
  type = 'double',
): CelFunction => ({
  name: `math.${name}`,
  signatures: [`math.${name}(double): ${type}`],
  sentence,
  example,
  run: (_: unknown, value: number) => calculate(value),
});

const ofEither = (
  name: string,
  sentence: string,
  example: CelFunction['example'],
  ofInt: (value: bigint) => bigint,
  ofNumber: (value: number) => number,
): CelFunction => ({
  name: `math.${name}`,
  signatures: [`math.${name}(int): int`, `math.${name}(double): double`],
  sentence,
  example,
  run: (_: unknown, value: Numeric) => (typeof value === 'bigint' ? ofInt(value) : ofNumber(value)),
});

/** CEL rounds half away from zero. */
const round = (value: number) => Math.sign(value) * Math.round(Math.abs(value));

/** The math extension of CEL. */
export const numberFunctions: readonly CelFunction[] = [
  {
    name: 'math.greatest',
    signatures: pairs('greatest'),
    sentence: 'The greatest of two numbers, or of a list.',
    example: ['math.greatest([3, 8, 5])', 8],
    run: chosen(greatest),
  },
  {
    name: 'math.least',
    signatures: pairs('least'),
    sentence: 'The least of two numbers, or of a list.',
    example: ['math.least(3, 8)', 3],
    run: chosen(least),
  },
  ofDouble('ceil', 'The next whole number upwards.', ['math.ceil(1.2)', 2], Math.ceil),
  ofDouble('floor', 'The next whole number downwards.', ['math.floor(1.8)', 1], Math.floor),
  ofDouble('round', 'The nearest whole number; half is rounded away from zero.', ['math.round(-1.5)', -2], round),
  ofDouble('trunc', 'The number without its fraction.', ['math.trunc(-1.8)', -1], Math.trunc),
  ofDouble('isNaN', 'Whether it is not a number.', ['math.isNaN(0.0 / 0.0)', true], Number.isNaN, 'bool'),
  ofDouble('isFinite', 'Whether it is a finite number.', ['math.isFinite(1.0 / 0.0)', false], Number.isFinite, 'bool'),
  ofDouble('sqrt', 'The square root.', ['math.sqrt(9.0)', 3], Math.sqrt),
  ofEither('abs', 'The number without its sign.', ['math.abs(-3)', 3], (value) => (value < 0n ? -value : value), Math.abs),
  ofEither('sign', '-1, 0 or 1.', ['math.sign(-3)', -1], (value) => (value === 0n ? 0n : value < 0n ? -1n : 1n), Math.sign),
];
