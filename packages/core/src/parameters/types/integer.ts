import { Corrected, DeclarationError, Refusal, type ParameterType } from '../codec.ts';

const written = /^(?:0|-?[1-9][0-9]{0,15})$/;
const understood = /^\s*[+-]?[0-9]{1,40}\s*$/;

/** Whole numbers from -(2^53 - 1) to 2^53 - 1, in decimal. */
export const integer: ParameterType = {
  attributes: ['min', 'max'],
  prepare({ min, max }) {
    const least = bound('min', min, Number.MIN_SAFE_INTEGER);
    const most = bound('max', max, Number.MAX_SAFE_INTEGER);
    if (least > most) {
      throw new DeclarationError(
        'min',
        'limits-cross',
        `No number is at least ${String(least)} and at most ${String(most)}.`,
        'Make min at most max.',
      );
    }
    const refuse = (value: number) => {
      if (value < least) return new Refusal('too-small', `The number must be at least ${String(least)}.`);
      if (value > most) return new Refusal('too-large', `The number must be at most ${String(most)}.`);
      return undefined;
    };
    return {
      read(text) {
        if (written.test(text)) {
          const value = Number(text);
          return refuse(value) ?? value;
        }
        if (!understood.test(text)) return new Refusal('not-an-integer', 'It is not a whole number.');
        const value = Number(text) || 0; // never -0, which no address could tell from 0
        return refuse(value) ?? new Corrected(value);
      },
      write(value) {
        if (typeof value !== 'number' || !Number.isSafeInteger(value)) {
          return new Refusal('not-an-integer', 'It is not a whole number.');
        }
        return refuse(value) ?? String(value);
      },
    };
  },
};

function bound(attribute: 'min' | 'max', given: number | string | undefined, otherwise: number): number {
  if (given === undefined) return otherwise;
  if (typeof given === 'number' && Number.isSafeInteger(given)) return given;
  throw new DeclarationError(attribute, 'bad-limit', `The limit ${JSON.stringify(given)} is not a whole number.`);
}
