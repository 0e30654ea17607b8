const formats = new Map<string, Intl.DateTimeFormat>();

/** Minutes by which clocks in a time zone were ahead of UTC at a moment. */
function minutesAhead(timeZone: string, moment: number): number {
  let format = formats.get(timeZone);
  if (format === undefined) {
    const options = { year: 'numeric', month: '2-digit', day: '2-digit', hour: '2-digit', minute: '2-digit', second: '2-digit' } as const;
    formats.set(timeZone, (format = new Intl.DateTimeFormat('en-GB', { timeZone, hourCycle: 'h23', ...options })));
  }
  const part = Object.fromEntries(format.formatToParts(moment).map(({ type, value }) => [type, Number(value)]));
  const { year = 0, month = 1, day = 1, hour = 0, minute = 0, second = 0 } = part;
  const shown = new Date(0);
  // Not Date.UTC, which takes the years 0 to 99 for those of 1900.
  shown.setUTCFullYear(year, month - 1, day);
  shown.setUTCHours(hour, minute, second);
  return Math.round((shown.getTime() - Math.floor(moment / 1000) * 1000) / 60_000);
}

/**
 * The moment at which clocks in a time zone show a local time. Where they are put back, and show it twice, it is the first;
 * where they are put forward, and never show it, it is as long after the change as the text says.
 * @param local milliseconds since 1970, as if the local time were UTC
 * @param timeZone IANA name
 * @returns milliseconds since 1970
 */
export function momentOf(local: number, timeZone: string): number {
  const day = 24 * 60 * 60_000;
  // Clocks change at most once in two days: one of these offsets is right.
  const before = local - minutesAhead(timeZone, local - day) * 60_000;
  const after = local - minutesAhead(timeZone, local + day) * 60_000;
  const isRight = (moment: number) => moment + minutesAhead(timeZone, moment) * 60_000 === local;
  return isRight(before) || !isRight(after) ? before : after;
}

/**
 * What clocks in a time zone show at a moment, as `2026-03-21T11:00`, with seconds where there are any.
 * @param moment RFC 3339
 */
export function localTime(moment: string, timeZone: string): string {
  const at = Date.parse(moment);
  if (Number.isNaN(at)) return '';
  const shown = new Date(at + minutesAhead(timeZone, at) * 60_000).toISOString().slice(0, 19);
  return shown.endsWith(':00') ? shown.slice(0, -3) : shown;
}
