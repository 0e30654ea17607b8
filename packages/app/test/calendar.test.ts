import fc from 'fast-check';
import { expect, it } from 'vitest';
import { isRelativeDate, resolveRelativeDate, todayIn } from '@pallmist/address/declare';
import { isDate } from '@pallmist/address/types';

/** What the platform says: a text that is a day comes back the same. */
const byThePlatform = (text: string) => {
  const date = new Date(`${text}T00:00:00Z`);
  return !Number.isNaN(date.getTime()) && date.toISOString().slice(0, 10) === text;
};
const padded = (value: number, length: number) => String(value).padStart(length, '0');

it('knows every day, as the platform does', () => {
  for (const year of [1, 4, 100, 400, 1600, 1700, 1900, 1999, 2000, 2024, 2025, 2100, 9999]) {
    for (let month = 0; month <= 13; month++) {
      for (let day = 0; day <= 32; day++) {
        const text = `${padded(year, 4)}-${padded(month, 2)}-${padded(day, 2)}`;
        expect(isDate(text), text).toBe(byThePlatform(text));
      }
    }
  }
});

it('takes nothing else for a day', () => {
  fc.assert(
    fc.property(fc.oneof(fc.string(), fc.stringMatching(/^[0-9-]{8,11}$/)), (text) => {
      if (isDate(text)) expect(byThePlatform(text)).toBe(true);
    }),
  );
});

it.each([
  ['today', '2024-03-31', '2024-03-31'],
  ['today-7d', '2024-03-03', '2024-02-25'],
  ['today+2w', '2024-12-25', '2025-01-08'],
  ['today-1m', '2024-03-31', '2024-02-29'],
  ['today+1m', '2024-01-31', '2024-02-29'],
  ['today+12m', '2024-02-29', '2025-02-28'],
  ['today-1y', '2024-02-29', '2023-02-28'],
  ['today+4y', '2024-02-29', '2028-02-29'],
  ['today-30y', '0020-01-01', undefined],
  ['today+9999y', '2024-01-01', undefined],
])('%s of %s is %s', (text, today, expected) => {
  expect(resolveRelativeDate(text, today)).toBe(expected);
});

it('days forward and the same days back come to the same day', () => {
  const day = fc
    .date({ min: new Date('1000-01-01'), max: new Date('3000-01-01'), noInvalidDate: true })
    .map((date) => date.toISOString().slice(0, 10));
  fc.assert(
    fc.property(day, fc.nat(9999), fc.constantFrom('d', 'w'), (today, amount, unit) => {
      const there = resolveRelativeDate(`today+${String(amount)}${unit}`, today) ?? '';
      expect(resolveRelativeDate(`today-${String(amount)}${unit}`, there)).toBe(today);
    }),
  );
});

it('knows its own words only', () => {
  for (const text of ['today', 'today-1d', 'today+999w']) expect(isRelativeDate(text)).toBe(true);
  for (const text of ['Today', 'tomorrow', 'today-', 'today-1', 'today-1h', 'today -1d', '', 5, undefined])
    expect(isRelativeDate(text)).toBe(false);
  const now = Date.parse('2026-11-19T11:30:00Z');
  expect(['Pacific/Kiritimati', 'UTC', 'Pacific/Niue'].map((zone) => todayIn(zone, now))).toEqual([
    '2026-11-20',
    '2026-11-19',
    '2026-11-19',
  ]);
  expect(todayIn('Pacific/Niue', now - 60 * 60 * 1000)).toBe('2026-11-18');
});
