import { checkLimits } from '../declare/declared-limits.ts';
import { refuseCrossedLimits, type DeclaredType } from '../declare/declared-type.ts';
import { isDate } from '../calendar.ts';
import { corrected, refuse } from '../outcome.ts';
import { parameter, type Exactly, type Made } from '../parameter.ts';
import { decode, encode } from '../percent.ts';
import { momentOf } from '../time-zone.ts';
import type { DateOptions } from './date.ts';

export interface DatetimeOptions extends DateOptions {
  /** IANA name of the time zone of texts that have no offset, as forms send them; these are refused when it is left out. */
  timeZone?: string | undefined;
}

const form =
  /^\s*([0-9]{4}-[0-9]{2}-[0-9]{2})[Tt ]([01][0-9]|2[0-3]):([0-5][0-9])(?::([0-5][0-9])(?:\.([0-9]{1,9}))?)?\s*([Zz]|[+-](?:[01][0-9]|2[0-3]):[0-5][0-9])?\s*$/;

/** A moment, RFC 3339 `date-time`, written in UTC without needless zeros: `2026-03-21T11:00:00Z`. */
export function datetime<const Options extends DatetimeOptions = object>(
  options?: Exactly<Options, DatetimeOptions>,
): Made<string, Options> {
  const least = options?.min === undefined ? '' : comparable(utc(options.min) ?? '');
  const most = options?.max === undefined ? '~' : comparable(utc(options.max) ?? '~~');
  const limited = (value: string | undefined) => {
    if (value === undefined) return undefined;
    const moment = comparable(value);
    return moment < least ? refuse('too-early', least + 'Z') : moment > most ? refuse('too-late', most + 'Z') : value;
  };
  return parameter(
    'datetime',
    options,
    (source, from, to) => {
      const given = decode(source, from, to);
      const value = given === undefined ? undefined : utc(given, options?.timeZone);
      return limited(value === given ? value : corrected(value));
    },
    (value) => {
      if (typeof value !== 'string') return refuse('not-a-datetime');
      const written = limited(utc(value));
      if (written === undefined) return undefined;
      // Two texts of one moment would give two addresses of one view.
      return written === value ? encode(written) : refuse('not-in-utc', written);
    },
  );
}

/**
 * The moment in its one written form.
 * @param timeZone of a text that has no offset
 * @returns undefined after refusing it
 */
export function utc(text: string, timeZone?: string): string | undefined {
  const parts = text.length > 60 ? null : form.exec(text);
  if (parts === null) return refuse('not-a-datetime');
  const [, day = '', hour = '', minute = '', second = '00', fraction = '', offset] = parts;
  if (!isDate(day)) return refuse('no-such-day');
  const local = Date.parse(`${day}T${hour}:${minute}:${second}Z`);
  if (offset === undefined && timeZone === undefined) return refuse('offset-missing');
  const moment = offset === undefined ? momentOf(local, timeZone ?? 'UTC') : local - minutesOf(offset) * 60_000;
  const written = new Date(moment).toISOString();
  if (!isDate(written.slice(0, 10))) return refuse('too-late');
  const kept = fraction.replace(/0+$/, '');
  return written.slice(0, 19) + (kept === '' ? '' : `.${kept}`) + 'Z';
}

const minutesOf = (offset: string) =>
  offset.length === 1 ? 0 : Number(`${offset.charAt(0)}1`) * (Number(offset.slice(1, 3)) * 60 + Number(offset.slice(4)));

/** Without the Z, texts of this form sort as the moments do, whatever their fractions. */
const comparable = (value: string) => value.slice(0, -1);

/** `type: datetime` in an app file. */
export const declaredDatetime: DeclaredType = {
  attributes: ['min', 'max'],
  inLists: true,
  make(declaration, { timeZone = 'UTC' }) {
    const moment = (limit: unknown) => (typeof limit === 'string' ? utc(limit) : undefined);
    checkLimits(declaration, (limit) => moment(limit) !== undefined, 'a time like "2026-03-21T11:00:00Z"');
    const { min, max } = declaration;
    refuseCrossedLimits(min === undefined ? min : comparable(moment(min) ?? ''), max === undefined ? max : comparable(moment(max) ?? ''));
    return datetime({ ...(declaration as DateOptions), timeZone });
  },
};
