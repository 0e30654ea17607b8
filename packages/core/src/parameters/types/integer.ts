import { Corrected, Refusal, type ParameterType } from '../codec.ts';
import { limitNumber, numberLimit } from './bounds.ts';

const understood = /^\s*[+-]?[0-9]{1,40}\s*$/;

/** Whole numbers from -(2^53 - 1) to 2^53 - 1, in decimal. */
export const integer: ParameterType = {
  attributes: ['min', 'max'],
  prepare({ min, max }) {
    const refuse = limitNumber(
      numberLimit('min', min, true) ?? Number.MIN_SAFE_INTEGER,
      numberLimit('max', max, true) ?? Number.MAX_SAFE_INTEGER,
    );
    return {
      read(text) {
        const quick = plainNumber(text);
        if (quick >= 0) return refuse(quick) ?? quick;
        if (!understood.test(text)) return new Refusal('not-an-integer', 'It is not a whole number.');
        const value = Number(text) || 0; // never -0, which no address could tell from 0
        return refuse(value) ?? (String(value) === text ? value : new Corrected(value));
      },
      write(value) {
        if (typeof value !== 'number' || !Number.isSafeInteger(value)) {
          return new Refusal('not-an-integer', 'It is not a whole number.');
        }
        return refuse(value) ?? String(value + 0);
      },
    };
  },
};

/** The number that up to nine digits without a zero before them write, or -1: what nearly every address holds. */
function plainNumber(text: string): number {
  const { length } = text;
  if (length === 0 || length > 9) return -1;
  const first = text.charCodeAt(0);
  if (first === 48) return length === 1 ? 0 : -1;
  let value = 0;
  for (let i = 0; i < length; i++) {
    const digit = text.charCodeAt(i) - 48;
    if (digit < 0 || digit > 9) return -1;
    value = value * 10 + digit;
  }
  return value;
}
