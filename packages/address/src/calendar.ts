/** Whether a stretch of text is a day of the proleptic Gregorian calendar in the form YYYY-MM-DD (RFC 3339 `full-date`). */
export function isDateAt(text: string, from: number, to: number): boolean {
  if (to - from !== 10 || text.charCodeAt(from + 4) !== 45 || text.charCodeAt(from + 7) !== 45) return false;
  const year = digits(text, from, from + 4);
  const month = digits(text, from + 5, from + 7);
  const day = digits(text, from + 8, to);
  if (!(year >= 1 && month >= 1 && month <= 12 && day >= 1)) return false;
  if (month === 2) return day <= (year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0) ? 29 : 28);
  // Up to July the odd months are long, from August on the even ones.
  return day <= 30 + ((month + (month > 7 ? 1 : 0)) % 2);
}

/** Whether a text is such a day. */
export const isDate = (text: string): boolean => isDateAt(text, 0, text.length);

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
