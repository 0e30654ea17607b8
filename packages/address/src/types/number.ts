import { checkLimits } from '../declare/declared-limits.ts';
import type { DeclaredType } from '../declare/declared-type.ts';
import { corrected, refuse } from '../outcome.ts';
import { parameter, type Exactly, type Made } from '../parameter.ts';
import { decode, encode } from '../percent.ts';
import { limited, type NumberOptions } from './number-limits.ts';

const understood = /^\s*[+-]?(?:[0-9]{1,400}(?:\.[0-9]{0,400})?|\.[0-9]{1,400})(?:e[+-]?[0-9]{1,4})?\s*$/i;

/** Finite numbers (IEEE 754 double), written in the shortest form that reads back, as ECMA-262 has it. */
export function number<const Options extends NumberOptions = object>(options?: Exactly<Options, NumberOptions>): Made<number, Options> {
  const { min = -Infinity, max = Infinity } = options ?? {};
  return parameter(
    'number',
    options,
    (source, from, to) => {
      const quick = plainDecimal(source, from, to);
      if (quick >= 0) return limited(quick, min, max);
      const given = decode(source, from, to);
      if (given === undefined) return undefined;
      if (!understood.test(given)) return refuse('not-a-number');
      const value = Number(given) || 0; // never -0, which no address could tell from 0
      if (!Number.isFinite(value)) return refuse('too-large');
      return limited(String(value) === given ? value : corrected(value), min, max);
    },
    (value) => {
      if (!Number.isFinite(value)) return refuse('not-a-number');
      return limited(value as number, min, max) === undefined
        ? undefined
        : Math.abs(value as number) < 1e21
          ? String((value as number) + 0)
          : encode(String(value));
    },
  );
}

/**
 * The number that at most fifteen digits write in its shortest form, such as `12` or `0.5`; -1 for any other text. So few
 * digits are a whole number below 2^53, and dividing it by a power of ten is rounded right (IEEE 754).
 */
function plainDecimal(text: string, from: number, to: number): number {
  if (to === from || to - from > 15) return -1;
  let digits = 0;
  let scale = 0;
  for (let i = from; i < to; i++) {
    const code = text.charCodeAt(i);
    if (code === 46 && scale === 0 && i > from) scale = 1;
    else if (code < 48 || code > 57) return -1;
    else {
      digits = digits * 10 + code - 48;
      if (scale > 0) scale *= 10;
    }
  }
  if (text.charCodeAt(from) === 48 && to - from > 1 && text.charCodeAt(from + 1) !== 46) return -1;
  if (scale === 0) return digits;
  // A zero at the end, a point at the end, or a number so small that it is written with an exponent.
  return scale === 1 || text.charCodeAt(to - 1) === 48 || scale > 1e6 ? -1 : digits / scale;
}

/** `type: number` in an app file. */
export const declaredNumber: DeclaredType = {
  attributes: ['min', 'max'],
  inLists: true,
  make(declaration) {
    checkLimits(declaration, Number.isFinite, 'a number');
    return number(declaration as NumberOptions);
  },
};
