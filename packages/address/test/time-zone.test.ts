import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { localTime, momentOf } from '../src/time-zone.ts';

const at = (local: string, zone: string) => new Date(momentOf(Date.parse(`${local}Z`), zone)).toISOString().replace('.000Z', 'Z');

describe('local times of a time zone', () => {
  it.each([
    ['2026-01-15T12:00:00', 'Europe/London', '2026-01-15T12:00:00Z'],
    ['2026-07-15T12:00:00', 'Europe/London', '2026-07-15T11:00:00Z'],
    ['2026-07-15T12:00:00', 'Asia/Kolkata', '2026-07-15T06:30:00Z'],
    ['2026-07-15T00:30:00', 'Pacific/Auckland', '2026-07-14T12:30:00Z'],
    // Clocks are put back, and show 01:30 twice: the first one counts.
    ['2026-10-25T01:30:00', 'Europe/London', '2026-10-25T00:30:00Z'],
    // Clocks are put forward, and never show 01:30: half an hour after the change.
    ['2026-03-29T01:30:00', 'Europe/London', '2026-03-29T01:30:00Z'],
    ['0050-06-01T12:00:00', 'UTC', '0050-06-01T12:00:00Z'],
  ])('%s in %s is %s', (local, zone, moment) => {
    expect(at(local, zone)).toBe(moment);
  });

  it('a moment that is shown, and read again, is the same, but where clocks show a time twice', () => {
    const zones = fc.constantFrom('Europe/London', 'America/St_Johns', 'Asia/Kathmandu', 'Pacific/Chatham', 'UTC');
    const minutes = fc.integer({ min: 0, max: 60 * 24 * 365 * 60 });
    fc.assert(
      fc.property(zones, minutes, (zone, minute) => {
        const moment = new Date(minute * 60_000 + Date.parse('1990-01-01T00:00:00Z'));
        const shown = localTime(moment.toISOString(), zone);
        const again = new Date(momentOf(Date.parse(`${shown}Z`), zone));
        expect(localTime(again.toISOString(), zone)).toBe(shown);
        expect(moment.getTime() - again.getTime()).toBeOneOf([0, 30 * 60_000, 60 * 60_000]);
      }),
    );
  });
});
