import type { EvaluateCel, Scope } from './evaluator.ts';

/**
 * A CEL expression taken apart beforehand, as plain JSON: a literal, or an operation and what it works on. It holds the
 * operations that most expressions have, on values whose types are known, so that a browser needs no CEL engine for them.
 */
export type Program = string | number | boolean | readonly [Operation, ...Program[]];

export type Operation =
  | 'at'
  | 'has'
  | 'orValue'
  | 'if'
  | 'not'
  | 'and'
  | 'or'
  | 'equal'
  | 'less'
  | 'plus'
  | 'minus'
  | 'times'
  | 'plusInt'
  | 'minusInt'
  | 'timesInt'
  | 'negateInt'
  | 'in'
  | 'size'
  | 'length'
  | 'list'
  | 'string'
  | 'contains'
  | 'startsWith'
  | 'endsWith';

/** Programs by the text of their expressions. */
export type Programs = Readonly<Record<string, Program>>;

/** Evaluates the expressions that have programs by these, and the others by the engine. */
export const celWith =
  (programs: Programs | undefined, engine: EvaluateCel): EvaluateCel =>
  (expression, scope, types) => {
    const program = programs?.[expression];
    return program === undefined ? engine(expression, scope, types) : resultOf(program, scope);
  };

/** The value of a program; absent where it is, or holds, an integer that a number cannot hold exactly, as with the engine. */
export function resultOf(program: Program, scope: Scope): unknown {
  const value = run(program, scope);
  return typeof value === 'bigint' || (Array.isArray(value) && value.some((item) => typeof item === 'bigint')) ? undefined : value;
}

/**
 * Runs a program as CEL defines its operations. Integers are numbers while these hold them exactly, and else BigInts. `undefined` is CEL's error: what is absent makes absent what depends on
 * it, except where `and`, `or` and `if` can do without.
 */
function run(program: Program, scope: Scope): unknown {
  if (typeof program !== 'object') return program;
  const [operation, ...parts] = program;
  const value = (index: number) => run(parts[index] as Program, scope);
  switch (operation) {
    case 'at':
      return follow(scope, parts);
    case 'has': {
      const holder = follow(scope, parts.slice(0, -1));
      return holder === undefined ? undefined : follow(holder, parts.slice(-1)) !== undefined;
    }
    case 'orValue': {
      const [path, otherwise = ''] = parts;
      const names = (path as readonly Program[]).slice(1);
      const holder = follow(scope, names.slice(0, -1));
      return holder === undefined ? undefined : (follow(holder, names.slice(-1)) ?? run(otherwise, scope));
    }
    case 'if': {
      const condition = value(0);
      return condition === undefined ? undefined : value(condition === true ? 1 : 2);
    }
    case 'and':
    case 'or': {
      // One that decides does so whatever the other is, be it an error.
      const deciding = operation === 'or';
      const first = value(0);
      if (first === deciding) return deciding;
      const second = value(1);
      return second === deciding ? deciding : first === undefined || second === undefined ? undefined : !deciding;
    }
    default: {
      const values = parts.map((_, index) => value(index));
      return values.includes(undefined) ? undefined : operate(operation, values);
    }
  }
}

/** The operations that need every value. Of which types these are, the translation has made sure. */
function operate(operation: Operation, values: unknown[]): unknown {
  const [first, second] = values;
  const [number, other] = values as number[];
  const [text = '', part = ''] = values as string[];
  switch (operation) {
    case 'not':
      return first === false;
    case 'equal':
      return first === second;
    case 'less':
      return (number as number | bigint) < (other as number | bigint);
    case 'plus':
      return typeof first === 'string' ? text + part : Number(number) + Number(other);
    case 'minus':
      return Number(number) - Number(other);
    case 'times':
      return Number(number) * Number(other);
    case 'plusInt':
    case 'minusInt':
    case 'timesInt':
      return calculate(operation, first as Integer, second as Integer);
    case 'negateInt':
      return narrowed(-BigInt(first as Integer));
    case 'in':
      return (second as unknown[]).includes(first);
    case 'size':
      return (first as unknown[]).length;
    case 'length':
      return [...text].length;
    case 'string':
      return String(first);
    case 'contains':
      return text.includes(part);
    case 'startsWith':
      return text.startsWith(part);
    case 'endsWith':
      return text.endsWith(part);
    default:
      return values;
  }
}

type Integer = number | bigint;
const greatest = 2n ** 63n - 1n;
const least = -(2n ** 63n);

/** Calculates with 64-bit integers; undefined where the result has more bits. */
function calculate(operation: 'plusInt' | 'minusInt' | 'timesInt', first: Integer, second: Integer): Integer | undefined {
  if (typeof first === 'number' && typeof second === 'number') {
    const result = operation === 'plusInt' ? first + second : operation === 'minusInt' ? first - second : first * second;
    if (Number.isSafeInteger(result)) return result;
  }
  const [one, other] = [BigInt(first), BigInt(second)];
  const exact = operation === 'plusInt' ? one + other : operation === 'minusInt' ? one - other : one * other;
  return exact > greatest || exact < least ? undefined : narrowed(exact);
}

/** As a number where that holds it. The engine negates -2^63 without looking at its bits: so do we. */
function narrowed(exact: bigint): Integer {
  const result = Number(exact);
  return Number.isSafeInteger(result) ? result : exact;
}

function follow(start: unknown, names: readonly Program[]): unknown {
  let value = start;
  for (const name of names) {
    if (typeof value !== 'object' || value === null || !Object.hasOwn(value, name as string)) return undefined;
    value = (value as Record<string, unknown>)[name as string] ?? undefined;
  }
  return value;
}
