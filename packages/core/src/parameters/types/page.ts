import type { ParameterType } from '../codec.ts';
import { oneOf } from './choice.ts';

/** The name of one of the app’s pages. */
export const page: ParameterType = {
  attributes: [],
  prepare: (_, { pages }) => oneOf(pages, new Map()),
};
