import { declaredBoolean } from '../types/boolean.ts';
import { declaredChoice, declaredPage } from '../types/choice.ts';
import { declaredColour } from '../types/colour.ts';
import { declaredDate } from '../types/date.ts';
import { declaredDatetime } from '../types/datetime.ts';
import { declaredInteger } from '../types/integer.ts';
import { declaredList } from '../types/list.ts';
import { declaredNumber } from '../types/number.ts';
import { declaredRange } from '../types/range.ts';
import { declaredRecord } from '../types/record.ts';
import { declaredSort } from '../types/sort.ts';
import { declaredText } from '../types/text.ts';
import type { DeclaredTypes } from './declared-type.ts';

/** The types that need no other package, by the name that a declaration gives. `packed` is added where it is wanted. */
export const parameterTypes = {
  text: declaredText,
  integer: declaredInteger,
  number: declaredNumber,
  boolean: declaredBoolean,
  date: declaredDate,
  datetime: declaredDatetime,
  choice: declaredChoice,
  record: declaredRecord,
  page: declaredPage,
  colour: declaredColour,
  sort: declaredSort,
  range: declaredRange,
  list: declaredList,
} satisfies DeclaredTypes;
