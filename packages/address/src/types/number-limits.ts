import { refuse } from '../outcome.ts';
import type { CommonOptions } from '../parameter.ts';

export interface NumberOptions extends CommonOptions<number> {
  /** Least and greatest number, both included. */
  min?: number | undefined;
  max?: number | undefined;
}

/** @returns the number, or undefined after refusing it */
export const limited = (value: number, least: number, most: number): number | undefined =>
  value < least ? refuse('too-small', least) : value > most ? refuse('too-large', most) : value;
