import { isDate } from '../calendar.ts';
import { Corrected, DeclarationError, Refusal, type ParameterType } from '../codec.ts';
import { refuseCrossedLimits } from './bounds.ts';

const form =
  /^\s*([0-9]{4}-[0-9]{2}-[0-9]{2})[Tt ]([01][0-9]|2[0-3]):([0-5][0-9])(?::([0-5][0-9])(?:\.([0-9]{1,9}))?)?\s*([Zz]|[+-](?:[01][0-9]|2[0-3]):[0-5][0-9])?\s*$/;

/** A moment, RFC 3339 `date-time`, written in UTC without needless zeros: `2026-03-21T11:00:00Z`. */
export const datetime: ParameterType = {
  attributes: ['min', 'max'],
  prepare({ min, max }) {
    const least = bound('min', min);
    const most = bound('max', max);
    refuseCrossedLimits(least, most);
    const refuse = (value: string) => {
      const moment = comparable(value);
      if (least !== undefined && moment < least) return new Refusal('too-early', `The time must not be before ${least}Z.`);
      if (most !== undefined && moment > most) return new Refusal('too-late', `The time must not be after ${most}Z.`);
      return undefined;
    };
    return {
      read(text) {
        const value = toUtc(text);
        if (value instanceof Refusal) return value;
        return refuse(value) ?? (value === text ? value : new Corrected(value));
      },
      write(value) {
        const written = typeof value === 'string' ? toUtc(value) : undefined;
        if (written === undefined || written instanceof Refusal) return written ?? notATime;
        // Two texts of one moment would give two addresses of one view.
        if (written !== value) return new Refusal('not-in-utc', `Write it as ${written}.`);
        return refuse(written) ?? written;
      },
    };
  },
};

const notATime = new Refusal('not-a-datetime', 'It is not a time like 2026-03-21T11:00:00Z.');

/** The moment in its one written form. */
function toUtc(text: string): string | Refusal {
  const parts = text.length > 60 ? null : form.exec(text);
  if (parts === null) return notATime;
  const [, day = '', hour, minute, second = '00', fraction = '', offset] = parts;
  if (!isDate(day)) return new Refusal('no-such-day', 'The calendar has no such day.');
  if (offset === undefined)
    return new Refusal('offset-missing', 'It does not say its offset from UTC; add “Z” or an offset such as +01:00.');
  const local = Date.parse(`${day}T${hour ?? ''}:${minute ?? ''}:${second}Z`);
  const [, sign, hours = 0, minutes = 0] = /([+-])(\d\d):(\d\d)/.exec(offset) ?? [];
  const utc = new Date(local - (sign === '-' ? -1 : 1) * (Number(hours) * 60 + Number(minutes)) * 60_000);
  const written = utc.toISOString();
  if (!isDate(written.slice(0, 10))) return new Refusal('too-late', 'The time is beyond the years 1 to 9999.');
  const kept = fraction.replace(/0+$/, '');
  return written.slice(0, 19) + (kept === '' ? '' : `.${kept}`) + 'Z';
}

/** Without the Z, texts of this form sort as the moments do, whatever their fractions. */
const comparable = (value: string) => value.slice(0, -1);

function bound(attribute: 'min' | 'max', given: number | string | undefined): string | undefined {
  if (given === undefined) return undefined;
  const value = typeof given === 'string' ? toUtc(given) : notATime;
  if (typeof value === 'string') return comparable(value);
  throw new DeclarationError(attribute, 'bad-limit', `The limit ${JSON.stringify(given)} is not a time like "2026-03-21T11:00:00Z".`);
}
