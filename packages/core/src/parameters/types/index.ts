import type { ParameterType } from '../codec.ts';
import type { ParameterTypeName } from '../declaration.ts';
import { boolean } from './boolean.ts';
import { choice } from './choice.ts';
import { date } from './date.ts';
import { integer } from './integer.ts';
import { record } from './record.ts';
import { sort } from './sort.ts';
import { text } from './text.ts';

/** Every type of parameters, by the name that a declaration gives. */
export const parameterTypes: Record<ParameterTypeName, ParameterType> = {
  text,
  integer,
  boolean,
  date,
  choice,
  record,
  sort,
};
