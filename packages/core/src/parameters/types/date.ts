import { isDate } from '../calendar.ts';
import { refuseCrossedLimits } from './bounds.ts';
import { Corrected, DeclarationError, Refusal, type ParameterType } from '../codec.ts';

const loose = /^\s*([0-9]{4})-([0-9]{1,2})-([0-9]{1,2})\s*$/;

/** A day of the Gregorian calendar, `YYYY-MM-DD` as RFC 3339 `full-date`, from 0001-01-01 to 9999-12-31. */
export const date: ParameterType = {
  attributes: ['min', 'max'],
  prepare({ min, max }) {
    const least = bound('min', min);
    const most = bound('max', max);
    refuseCrossedLimits(least, most);
    // Texts of this form sort as the days do.
    const refuse = (value: string) => {
      if (least !== undefined && value < least) return new Refusal('too-early', `The date must not be before ${least}.`);
      if (most !== undefined && value > most) return new Refusal('too-late', `The date must not be after ${most}.`);
      return undefined;
    };
    return {
      read(text) {
        if (isDate(text)) return refuse(text) ?? text;
        const parts = text.length > 40 ? null : loose.exec(text);
        if (parts === null) return new Refusal('not-a-date', 'It is not a date like 2026-03-21.');
        const value = `${parts[1] ?? ''}-${(parts[2] ?? '').padStart(2, '0')}-${(parts[3] ?? '').padStart(2, '0')}`;
        if (!isDate(value)) return new Refusal('no-such-day', 'The calendar has no such day.');
        return refuse(value) ?? new Corrected(value);
      },
      write(value) {
        if (typeof value !== 'string' || !isDate(value)) return new Refusal('not-a-date', 'It is not a date like 2026-03-21.');
        return refuse(value) ?? value;
      },
    };
  },
};

function bound(attribute: 'min' | 'max', given: number | string | undefined): string | undefined {
  if (given === undefined) return undefined;
  if (typeof given === 'string' && isDate(given)) return given;
  throw new DeclarationError(attribute, 'bad-limit', `The limit ${JSON.stringify(given)} is not a date like "2026-03-21".`);
}
