import { checkLimits } from '../declare/declared-limits.ts';
import type { DeclaredType } from '../declare/declared-type.ts';
import { isDate, isDateAt } from '../calendar.ts';
import { corrected, refuse } from '../outcome.ts';
import { parameter, type CommonOptions, type Exactly, type Made } from '../parameter.ts';
import { decode } from '../percent.ts';

export interface DateOptions extends CommonOptions<string> {
  /** Earliest and latest day, both included, as `2026-03-21`. */
  min?: string | undefined;
  max?: string | undefined;
}

/** A day of the Gregorian calendar, `YYYY-MM-DD` as RFC 3339 `full-date`, from 0001-01-01 to 9999-12-31. */
export function date<const Options extends DateOptions = object>(options?: Exactly<Options, DateOptions>): Made<string, Options> {
  const { min = '', max = '~' } = options ?? {};
  // Texts of this form sort as the days do.
  const limited = (value: string) => (value < min ? refuse('too-early', min) : value > max ? refuse('too-late', max) : value);
  return parameter(
    'date',
    options,
    (source, from, to) => {
      if (isDateAt(source, from, to)) return limited(source.slice(from, to));
      const given = decode(source, from, to)?.trim();
      if (given === undefined) return undefined;
      // People write “2026-3-1”. But “2026-11-2” is what is left of “2026-11-21” where an address was cut.
      const [, year, month, day = ''] = /^(\d{4})-(\d)-(\d\d?)$/.exec(given) ?? [];
      const value = year === undefined ? given : `${year}-0${String(month)}-${day.padStart(2, '0')}`;
      if (isDate(value)) return limited(corrected(value));
      return refuse(/^\d{4}-\d\d-\d\d$/.test(value) ? 'no-such-day' : 'not-a-date');
    },
    (value) => (typeof value === 'string' && isDate(value) ? limited(value) : refuse('not-a-date')),
  );
}

/** `type: date` in an app file. */
export const declaredDate: DeclaredType = {
  attributes: ['min', 'max'],
  inLists: true,
  make(declaration) {
    checkLimits(declaration, (limit) => typeof limit === 'string' && isDate(limit), 'a date like "2026-03-21"');
    return date(declaration as DateOptions);
  },
};
