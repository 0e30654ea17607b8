import { checkLimits } from '../declare/declared-limits.ts';
import type { DeclaredType } from '../declare/declared-type.ts';
import { corrected, refuse } from '../outcome.ts';
import { parameter, type Exactly, type Made } from '../parameter.ts';
import { decode } from '../percent.ts';
import { limited, type NumberOptions } from './number-limits.ts';

/** Whole numbers from -(2^53 - 1) to 2^53 - 1, in decimal. */
export function integer<const Options extends NumberOptions = object>(options?: Exactly<Options, NumberOptions>): Made<number, Options> {
  const { min = Number.MIN_SAFE_INTEGER, max = Number.MAX_SAFE_INTEGER } = options ?? {};
  return parameter(
    'integer',
    options,
    (source, from, to) => {
      // Up to nine digits without a zero before them are what nearly every address holds.
      let value = to - from < 10 && (source.charCodeAt(from) !== 48 || to - from === 1) ? 0 : NaN;
      for (let i = from; i < to; i++) {
        const digit = source.charCodeAt(i) - 48;
        value = digit >= 0 && digit < 10 ? value * 10 + digit : NaN;
      }
      if (value >= 0) return limited(value, min, max);
      const given = decode(source, from, to);
      if (given === undefined) return undefined;
      if (!/^\s*[+-]?\d{1,40}\s*$/.test(given)) return refuse('not-an-integer');
      const number = Number(given) || 0; // never -0, which no address could tell from 0
      return limited(String(number) === given ? number : corrected(number), min, max);
    },
    (value) => {
      if (!Number.isSafeInteger(value)) return refuse('not-an-integer');
      return limited(value as number, min, max) === undefined ? undefined : String(value);
    },
  );
}

/** `type: integer` in an app file. */
export const declaredInteger: DeclaredType = {
  attributes: ['min', 'max'],
  inLists: true,
  make(declaration) {
    checkLimits(declaration, Number.isSafeInteger, 'a whole number');
    return integer(declaration as NumberOptions);
  },
};
