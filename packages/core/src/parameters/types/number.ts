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
