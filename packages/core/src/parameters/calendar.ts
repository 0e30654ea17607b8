const daysOfMonth = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];

/** Whether a text is a day of the proleptic Gregorian calendar in the form YYYY-MM-DD (RFC 3339 `full-date`). */
export function isDate(text: string): boolean {
  if (text.length !== 10 || text.charCodeAt(4) !== 45 || text.charCodeAt(7) !== 45) return false;
  const year = digits(text, 0, 4);
  const month = digits(text, 5, 7);
  const day = digits(text, 8, 10);
  if (!(year >= 1) || !(month >= 1 && month <= 12) || !(day >= 1)) return false;
  const leap = month === 2 && year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0);
  return day <= (daysOfMonth[month - 1] ?? 0) + (leap ? 1 : 0);
}

/** The decimal number written from `start` to `end`, or NaN. */
function digits(text: string, start: number, end: number): number {
  let value = 0;
  for (let i = start; i < end; i++) {
    const digit = text.charCodeAt(i) - 48;
    if (digit < 0 || digit > 9) return NaN;
    value = value * 10 + digit;
  }
  return value;
}
