import { isDate } from '../calendar.ts';

const form = /^today(?:([+-])([0-9]{1,4})([dwmy]))?$/;

/** Whether a text names a day relative to today, such as `today`, `today-7d`, `today+1m` (days, weeks, months, years). */
export function isRelativeDate(text: unknown): text is string {
  return typeof text === 'string' && form.test(text);
}

/**
 * The day that a relative date names. A month or a year later is the same day of the month, or its last day.
 * @param today YYYY-MM-DD
 * @returns undefined beyond the years 1 to 9999
 */
export function resolveRelativeDate(text: string, today: string): string | undefined {
  const [, sign, amount = '0', unit = 'd'] = form.exec(text) ?? [];
  const steps = (sign === '-' ? -1 : 1) * Number(amount);
  const [year = 0, month = 0, day = 0] = today.split('-').map(Number);
  const date = new Date(0);
  if (unit === 'd' || unit === 'w') {
    date.setUTCFullYear(year, month - 1, day + steps * (unit === 'w' ? 7 : 1));
  } else {
    const months = year * 12 + month - 1 + steps * (unit === 'y' ? 12 : 1);
    const lastDay = new Date(0);
    lastDay.setUTCFullYear(Math.floor(months / 12), (months % 12) + 1, 0);
    date.setUTCFullYear(Math.floor(months / 12), months % 12, Math.min(day, lastDay.getUTCDate()));
  }
  const written = `${String(date.getUTCFullYear()).padStart(4, '0')}-${String(date.getUTCMonth() + 1).padStart(2, '0')}-${String(date.getUTCDate()).padStart(2, '0')}`;
  return isDate(written) ? written : undefined;
}

const days = new Map<string, { second: number; day: string; format: Intl.DateTimeFormat }>();

/**
 * Today in a time zone (IANA name), as YYYY-MM-DD.
 * @param now milliseconds since 1970
 */
export function todayIn(timeZone: string, now: number): string {
  const second = Math.floor(now / 1000);
  let kept = days.get(timeZone);
  // Asking the calendar is slow, and within a second it says the same.
  if (kept?.second !== second) {
    const format = kept?.format ?? new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' });
    days.set(timeZone, (kept = { second, format, day: format.format(now) }));
  }
  return kept.day;
}
