import { Corrected, Refusal, type ParameterType } from '../codec.ts';
import { limitNumber, numberLimit } from './bounds.ts';

const understood = /^\s*[+-]?(?:[0-9]{1,400}(?:\.[0-9]{0,400})?|\.[0-9]{1,400})(?:e[+-]?[0-9]{1,4})?\s*$/i;

/** Finite numbers (IEEE 754 double), written in the shortest form that reads back, as ECMA-262 has it. */
export const number: ParameterType = {
  attributes: ['min', 'max'],
  prepare({ min, max }) {
    const refuse = limitNumber(numberLimit('min', min, false), numberLimit('max', max, false));
    return {
      read(text) {
        const quick = plainDecimal(text);
        if (quick >= 0) return refuse(quick) ?? quick;
        if (!understood.test(text)) return new Refusal('not-a-number', 'It is not a number like 12.5.');
        const value = Number(text) || 0; // never -0, which no address could tell from 0
        if (!Number.isFinite(value)) return new Refusal('too-large', 'The number is too large.');
        return refuse(value) ?? (String(value) === text ? value : new Corrected(value));
      },
      write(value) {
        if (typeof value !== 'number' || !Number.isFinite(value)) return new Refusal('not-a-number', 'It is not a finite number.');
        return refuse(value) ?? String(value + 0);
      },
    };
  },
};

/**
 * The number that a text of at most fifteen digits writes in its shortest form, such as `12` or `0.5`; -1 for any other
 * text. So few digits are a whole number below 2^53, and dividing it by a power of ten is rounded right (IEEE 754).
 */
function plainDecimal(text: string): number {
  const { length } = text;
  if (length === 0 || length > 15) return -1;
  let digits = 0;
  let scale = 0;
  for (let i = 0; i < length; i++) {
    const code = text.charCodeAt(i);
    if (code === 46 && scale === 0 && i > 0) scale = 1;
    else if (code < 48 || code > 57) return -1;
    else {
      digits = digits * 10 + code - 48;
      if (scale > 0) scale *= 10;
    }
  }
  if (text.charCodeAt(0) === 48 && length > 1 && text.charCodeAt(1) !== 46) return -1;
  if (scale === 0) return digits;
  // A zero at the end, a point at the end, or a number so small that it is written with an exponent.
  return scale === 1 || text.charCodeAt(length - 1) === 48 || scale > 1e6 ? -1 : digits / scale;
}
