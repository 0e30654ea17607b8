import { alternatives, shown, type Limits } from './shown.ts';

/** Makes a sentence of what a problem's code needs to be said. */
export type Sentence = (data: never) => string;
/** The sentence for each code, in one language. */
export type Sentences = Readonly<Record<string, Sentence>>;

/** What a visitor reads of a text or a value that was refused, by the code. */
export const english: Sentences = {
  'cannot-be': ([label, text, reason]: string[]) => `“${String(label)}” cannot be ${String(text)}: ${String(reason)}`,
  'perhaps-meant': ([reason, name]: string[]) => `${String(reason).slice(0, -1)}; perhaps “${String(name)}” was meant.`,
  lacks: ([name, label]: (string | undefined)[]) =>
    `The address lacks “${String(name)}”${label === undefined ? '' : ` (${label})`}, without which the page makes no sense.`,
  'lacks-hint': () => 'Start from a page that links here.',
  'should-be': (what) => `It should be ${String(what)}.`,
  'expected-integer': (limits: Limits) => `a whole number${span(limits)}`,
  'expected-number': (limits: Limits) => `a number${span(limits)}`,
  'expected-boolean': () => '“true” or “false”',
  'expected-date': (limits: Limits) => `a date like 2026-03-21${span(limits)}`,
  'expected-choice': ([names, more]: [string[], number]) =>
    more > 0 ? `one of ${names.join(', ')} and ${String(more)} others` : alternatives(names, ' or '),
  'expected-like': (sample) => `something like ${String(sample)}`,
  'expected-list': (item) => `${String(item)}, or several of them with commas between them`,
  'gone-value': (data) => (data as { reason?: string } | undefined)?.reason ?? 'It was removed.',
  'unknown-record': () => 'There is no such record.',
  'not-tied': (labels) => `It does not belong to ${(labels as string[]).map((label) => `“${label}”`).join(' and ')} of this address.`,
  'shown-without': ([label, keys]: [string, string[]]) =>
    `“${label}” cannot be ${keys.join(', ')}: ${keys.length === 1 ? 'There is no such record' : 'There are no such records'}.`,
  'malformed-escape': () => 'Its percent-encoding is not well-formed UTF-8.',
  repeated: () => 'The address gives it more than once.',
  'not-a-segment': () => 'A path segment cannot be empty, “.” or “..”: browsers would change the address.',
  blank: () => 'It is empty.',

  'not-a-text': () => 'It is not a text.',
  'forbidden-character': () => 'The text holds a character that cannot be shown.',
  'too-long': (most?: unknown) => (most === undefined ? 'It is too long.' : `The text is longer than ${shown(most)} characters.`),
  'too-short': (least: unknown) => `The text is shorter than ${shown(least)} characters.`,
  'pattern-mismatch': () => 'The text does not have the form that is expected here.',
  'not-a-key': () => 'It is not a record’s key.',

  'not-an-integer': () => 'It is not a whole number.',
  'not-a-number': () => 'It is not a number like 12.5.',
  'too-small': (least: unknown) => `The number must be at least ${shown(least)}.`,
  'too-large': (most?: unknown) => (most === undefined ? 'The number is too large.' : `The number must be at most ${shown(most)}.`),
  'not-a-boolean': () => 'It is neither “true” nor “false”.',

  'not-a-date': () => 'It is not a date like 2026-03-21.',
  'no-such-day': () => 'The calendar has no such day.',
  'not-a-datetime': () => 'It is not a time like 2026-03-21T11:00:00Z.',
  'offset-missing': () => 'It does not say its offset from UTC; add “Z” or an offset such as +01:00.',
  'not-in-utc': (written: unknown) => `Write it as ${shown(written)}.`,
  'too-early': (least: unknown) => `It must not be before ${shown(least)}.`,
  'too-late': (most?: unknown) => (most === undefined ? 'The time is beyond the year 9999.' : `It must not be after ${shown(most)}.`),

  'unknown-choice': () => 'It is not one of the choices.',
  'not-a-colour': () => 'It is not a colour like #3a7d44.',

  'not-a-list': () => 'It is not a list.',
  'too-few': (least: unknown) => `It needs at least ${shown(least)} items.`,
  'too-many': (most: unknown) => `It may have at most ${shown(most)} items.`,
  'repeated-item': () => 'It has an item twice.',
  'empty-item': () => 'An item is empty.',

  'not-a-sort': () => 'It is not a sort order.',
  'empty-sort': () => 'It names no field to sort by.',
  'unknown-sort-field': () => 'The list cannot be sorted by it.',
  'repeated-sort-field': () => 'It names a field twice.',

  'not-a-range': () => 'It is not a range with “from” and “to”.',
  'empty-range': () => 'The range has neither end.',
  'range-reversed': () => 'The range ends before it begins.',

  'not-packed': () => 'It is damaged, or was cut off.',
  'null-is-absent': () => 'It is null, which an address says by leaving it out.',
  'not-json': () => 'It is not a JSON value.',
  'schema-mismatch': (misfit: unknown) => `The packed value is not as it should be, ${shown(misfit)}`,

  // One sentence for a changed, a foreign and an expired value: what was tried must not show.
  'not-opened': () => 'It was cut or changed on its way, or it is no longer valid. Ask for the link again.',
  'not-sealed': () => 'There is no key here to seal it with.',
};

/** Where the limits are, beginning with what stands before it. */
const span = ([min, max]: Limits): string =>
  min === undefined
    ? max === undefined
      ? ''
      : `, ${shown(max)} or less`
    : max === undefined
      ? `, ${shown(min)} or more`
      : ` from ${shown(min)} to ${shown(max)}`;
