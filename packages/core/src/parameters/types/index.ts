import type { ParameterTypes } from '../codec.ts';
import { boolean } from './boolean.ts';
import { choice } from './choice.ts';
import { date } from './date.ts';
import { datetime } from './datetime.ts';
import { integer } from './integer.ts';
import { list } from './list.ts';
import { number } from './number.ts';
import { page } from './page.ts';
import { range } from './range.ts';
import { record } from './record.ts';
import { sort } from './sort.ts';
import { text } from './text.ts';

const simpleTypes = { text, integer, number, boolean, date, datetime, choice, record, page };

/** The types that need no other package, by the name that a declaration gives. `packed` is added where it is wanted. */
export const parameterTypes: ParameterTypes = { ...simpleTypes, sort, range, list: list(simpleTypes) };
