import type { Values } from '@pallmist/address/declare';
import { localTime } from '@pallmist/address/pages';
import { display } from '../../expressions/evaluator.ts';

/** A value as a box shows it for a person to change: moments by the clocks of the app, packed values as JSON. */
export function boxText(type: string | undefined, value: Values[string] | undefined, timeZone = 'UTC'): string {
  if (value === undefined) return '';
  if (type === 'packed') return JSON.stringify(value, undefined, 2);
  if (type === 'datetime') return localTime(display(value), timeZone);
  return display(value);
}
