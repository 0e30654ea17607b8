import type { CompiledPage, CompiledParameter, Reading } from '@pallmist/address/pages';

/**
 * Tells how one parameter stood in an address that a visitor followed.
 * @param state `given`, `corrected`, `blank` or `absent`; or `problem:` with a code
 * @param bucket a value that the app file itself names, such as a choice; else a size, a length or a month; never a visitor's text
 */
export type TellSighting = (parameter: string, state: string, bucket: string) => void;

/** What is counted of a reading: each parameter by itself, so that no address can be put together again. */
export function tellSightings(page: CompiledPage, { parameters }: Reading, tell: TellSighting): void {
  for (const { name, origin, value, corrected, problem } of parameters) {
    if (problem !== undefined) tell(name, `problem:${problem.code}`, '');
    else if (origin === 'default' || origin === 'absent') tell(name, 'absent', '');
    else {
      const declared = page.byName.get(name);
      const state = origin === 'blank' ? 'blank' : corrected ? 'corrected' : 'given';
      tell(name, state, value === undefined || declared === undefined ? '' : bucketOf(declared, value));
    }
  }
}

function bucketOf({ declaration: { type, of }, sealed }: CompiledParameter, value: unknown): string {
  if (sealed) return '';
  switch (type) {
    case 'choice':
    case 'page':
    case 'boolean':
      return String(value);
    case 'sort': {
      const [first] = value as { field: string; descending: boolean }[];
      return first === undefined ? '' : `${first.descending ? '-' : ''}${first.field}`;
    }
    case 'integer':
    case 'number':
      return sizeOf(value as number);
    case 'text':
      return lengthOf((value as string).length, characters);
    case 'date':
    case 'datetime':
      return (value as string).slice(0, 7);
    case 'list':
      return lengthOf((value as unknown[]).length, items);
    case 'range':
      return of ?? '';
    default:
      return '';
  }
}

const mostDigits = 16;
const digitWords = Array.from({ length: mostDigits + 1 }, (_, digits) =>
  digits === 0 ? 'below 1' : `${String(digits)} ${digits === 1 ? 'digit' : 'digits'}`,
);
const [positive, negative] = ['', 'below 0, '].map((sign) => digitWords.map((words) => sign + words)) as [string[], string[]];

/** Powers of ten: 1 to 9, 10 to 99, and so on. */
function sizeOf(value: number): string {
  const size = Math.abs(value);
  let digits = 0;
  for (let limit = 1; size >= limit && digits < mostDigits; limit *= 10) digits++;
  return (value < 0 ? negative : positive)[digits] ?? '';
}

const limits = [0, 1, 2, 5, 10, 20, 50, 100];
const upTo = (unit: string) => [...limits.map((limit) => `up to ${String(limit)} ${unit}`), `more than 100 ${unit}`];
// Made once: a text of its own for each visit would cost more than all else here.
const characters = upTo('characters');
const items = upTo('items');

/** @param words for each limit, and for what is longer than all */
function lengthOf(length: number, words: readonly string[]): string {
  let index = 0;
  while (index < limits.length && length > (limits[index] ?? 0)) index++;
  return words[index] ?? '';
}

/** A path of which only the segments that the app itself has as literals stand in clear. */
export function maskedPath(path: string, literals: ReadonlySet<string>): string {
  const segments = path
    .replace(/[?#].*$/s, '')
    .split('/')
    .slice(0, 9);
  return segments.map((segment) => (segment === '' || literals.has(segment) ? segment : '*')).join('/');
}
