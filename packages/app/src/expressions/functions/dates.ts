import { isDate } from '@pallmist/address/types';
import { type CelFunction, presentLocale } from './kind.ts';

const dayLength = 86_400_000;

function dayOf(date: string): number {
  if (!isDate(date)) throw new RangeError('It is no date.');
  return Date.parse(`${date}T00:00:00Z`);
}

function written(time: number): string {
  const text = new Date(time).toISOString();
  if (text.length !== 24) throw new RangeError('The date is beyond the calendar.');
  return text.slice(0, 10);
}

/** Adds months; the day is the last one of the month where the month has no such day. */
function addMonths(date: string, months: number): string {
  dayOf(date);
  const [year = 0, month = 1, day = 1] = date.split('-').map(Number);
  const count = year * 12 + month - 1 + months;
  const last = new Date(0);
  last.setUTCFullYear(Math.floor(count / 12), (((count % 12) + 12) % 12) + 1, 0);
  last.setUTCDate(Math.min(day, last.getUTCDate()));
  return written(last.getTime());
}

/** Calculating with dates, which are texts such as `2026-03-21`. */
export const dateFunctions: readonly CelFunction[] = [
  {
    name: 'addDays',
    signatures: ['addDays(string, int): string'],
    sentence: 'The date some days after a date, or before it for a negative number.',
    example: ["addDays('2026-12-30', 3)", '2027-01-02'],
    run: (date: string, days: bigint) => written(dayOf(date) + Number(days) * dayLength),
  },
  {
    name: 'addMonths',
    signatures: ['addMonths(string, int): string'],
    sentence: 'The same day some months after a date; the last day of the month where it is shorter.',
    example: ["addMonths('2026-01-31', 1)", '2026-02-28'],
    run: (date: string, months: bigint) => addMonths(date, Number(months)),
  },
  {
    name: 'daysBetween',
    signatures: ['daysBetween(string, string): int'],
    sentence: 'How many days after the first date the second one is; negative if it is before.',
    example: ["daysBetween('2026-03-01', '2026-03-21')", 20],
    run: (from: string, to: string) => BigInt((dayOf(to) - dayOf(from)) / dayLength),
  },
  {
    name: 'weekday',
    signatures: ['weekday(string): int'],
    sentence: 'The day of the week, from 1 for Monday to 7 for Sunday (ISO 8601).',
    example: ["weekday('2026-03-21')", 6],
    run: (date: string) => BigInt(((new Date(dayOf(date)).getUTCDay() + 6) % 7) + 1),
  },
];

const styles = ['short', 'medium', 'long', 'full'] as const;

function styleOf(style: string): (typeof styles)[number] {
  const known = styles.find((one) => one === style);
  if (known === undefined) throw new RangeError('There is no such style.');
  return known;
}

const formats = new Map<string, Intl.DateTimeFormat | Intl.NumberFormat>();

/** Making a formatter costs far more than using it. */
function formatter<Format extends Intl.DateTimeFormat | Intl.NumberFormat>(key: string, make: () => Format): Format {
  let format = formats.get(key) as Format | undefined;
  if (format === undefined) {
    if (formats.size > 200) formats.clear();
    formats.set(key, (format = make()));
  }
  return format;
}

function formatDate(date: string, style: string): string {
  const { language } = presentLocale();
  const dateStyle = styleOf(style);
  return formatter(`d ${language} ${style}`, () => new Intl.DateTimeFormat(language, { dateStyle, timeZone: 'UTC' })).format(dayOf(date));
}

function formatTime(moment: string, style: string): string {
  const { language, timeZone } = presentLocale();
  const dateStyle = styleOf(style);
  const at = Date.parse(moment);
  if (Number.isNaN(at)) throw new RangeError('It is no moment.');
  const make = () => new Intl.DateTimeFormat(language, { dateStyle, timeStyle: 'short', timeZone });
  return formatter(`t ${language} ${timeZone} ${style}`, make).format(at);
}

function formatNumber(value: bigint | number, options: Intl.NumberFormatOptions): string {
  const { language } = presentLocale();
  return formatter(`n ${language} ${JSON.stringify(options)}`, () => new Intl.NumberFormat(language, options)).format(value);
}

function digitsOf(digits: bigint): number {
  if (digits < 0n || digits > 20n) throw new RangeError('A number has from 0 to 20 digits after the point.');
  return Number(digits);
}

/** Writing values as people in the language of the page do. */
export const formatFunctions: readonly CelFunction[] = [
  {
    name: 'formatNumber',
    signatures: [
      'formatNumber(int): string',
      'formatNumber(double): string',
      'formatNumber(double, int): string',
      'formatNumber(int, int): string',
    ],
    sentence: 'A number as the language of the page writes it, with so many digits after the point.',
    example: ['formatNumber(1234.5, 2)', '1,234.50'],
    run: (value: bigint | number, digits?: bigint) =>
      formatNumber(value, digits === undefined ? {} : { minimumFractionDigits: digitsOf(digits), maximumFractionDigits: digitsOf(digits) }),
  },
  {
    name: 'formatMoney',
    signatures: ['formatMoney(int, string): string', 'formatMoney(double, string): string'],
    sentence: 'An amount of money in a currency (ISO 4217).',
    example: ["formatMoney(12.5, 'GBP')", '£12.50'],
    run: (value: bigint | number, currency: string) => formatNumber(value, { style: 'currency', currency }),
  },
  {
    name: 'formatDate',
    signatures: ['formatDate(string): string', 'formatDate(string, string): string'],
    sentence: 'A date in words: short, medium (the default), long or full.',
    example: ["formatDate('2026-03-21', 'long')", 'March 21, 2026'],
    run: (date: string, style = 'medium') => formatDate(date, style),
  },
  {
    name: 'formatTime',
    signatures: ['formatTime(string): string', 'formatTime(string, string): string'],
    sentence: 'A moment as date and time in the app’s time zone: short, medium (the default), long or full.',
    example: ["formatTime('2026-03-21T11:00:00Z', 'short').substring(0, 7)", '3/21/26'],
    run: (moment: string, style = 'medium') => formatTime(moment, style),
  },
];
