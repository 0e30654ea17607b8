import type { CompiledApp } from './compiled-app.ts';
import { readAddress } from './read-address.ts';
import type { Reading } from './reading.ts';

/**
 * Punctuation at the end of an address, as it is or encoded: that of sentences, quotation marks, brackets, also those of
 * Chinese and Japanese texts.
 */
const mark =
  /(?:[.,;:!?*'")\]}>_…。、！？，）」』»”’“-]|%(?:2[1279AC]|3[ABEF]|5D|7D)|%C2%BB|%E2%80%(?:9[89CD]|A6)|%E3%80%8[12DF]|%EF%BC%(?:81|89|8C|9F))$/iu;
/** The longest of them, in characters, and most that are taken off. */
const longestMark = 9;
const mostMarks = 6;

/** An address without the punctuation at its end. Only its last few characters are looked at, however long it is. */
export function withoutMarks(address: string): string {
  let text = address;
  for (let taken = 0; taken < mostMarks; taken++) {
    const found = mark.exec(text.slice(-longestMark))?.[0];
    if (found === undefined) break;
    text = text.slice(0, -found.length);
  }
  return text;
}

/** A line break, with the spaces that programs put at the beginning of the next line. */
const lineBreak = /(=?)(?:(?:%0D)?%0A(?:%20|\+)*|[\r\n]+ *)/gi;

/**
 * Joins what was broken at the end of a line. A mail in quoted-printable puts “=” there; the one that parts a name from its
 * value is no such sign.
 */
const joinLines = (address: string): string =>
  address.replaceAll(lineBreak, (_, equals: string, at: number) => {
    const pair = address.slice(Math.max(address.lastIndexOf('&', at - 1), address.lastIndexOf('?', at - 1)) + 1, at);
    return pair.includes('=') || !address.slice(0, at).includes('?') ? '' : equals;
  });

/** What happens to addresses on their way, undone: each gives another text, or the same where it did not happen. */
const repairs: readonly ((address: string) => string)[] = [
  // Punctuation, brackets or quotation marks of the sentence around it.
  withoutMarks,
  // Encoded twice.
  (address) => address.replaceAll(/%25(?=[0-9a-f]{2})/gi, '%'),
  // Taken out of the source of a page.
  (address) => address.replaceAll(/&(?:amp;)+/gi, '&'),
  joinLines,
];
/** Several things can have happened. */
const all = (address: string) => repairs.filter((repair) => repair !== joinLines).reduceRight((text, repair) => repair(text), address);

/** What no damage on the way does to a value: it is what was meant, and beyond a limit. */
const limits = new Set([
  'too-long',
  'too-short',
  'too-many',
  'too-few',
  'too-small',
  'too-large',
  'too-early',
  'too-late',
  'repeated-item',
]);

/**
 * What a damaged address probably was, where what can be done about it leaves one meaning only: every value of it is right
 * then, and every name that the damaged one gives is still there.
 * @param reading of the address as it is
 * @returns another address, or undefined
 */
export function repairAddress(app: CompiledApp, address: string, reading: Reading): string | undefined {
  const wrong = weight(reading);
  if (wrong === 0 || reading.status === 'malformed') return undefined;
  const refused = reading.problems.filter(({ severity }) => severity !== 'note');
  if (refused.length === wrong && refused.every(({ code }) => limits.has(code))) return undefined;
  const names = givenNames(reading);
  const [, before = '', fragment = ''] = /^([^#]*)(.*)$/s.exec(address) ?? [];
  const found = new Map<string, string>();
  for (const repair of [...repairs, all]) {
    // A text may hold line breaks of its own.
    const repaired = repair === joinLines && refused.some(({ parameter }) => isText(app, reading, parameter)) ? before : repair(before);
    if (repaired === before) continue;
    const again = readAddress(app, repaired);
    if (again.status !== 'found' || weight(again) > 0 || again.undeclared.length > reading.undeclared.length) continue;
    const left = givenNames(again);
    if ([...names].every((name) => left.has(name)) && keepsRight(reading, again))
      found.set(JSON.stringify([again.page, again.values]), repaired);
  }
  const [only, other] = found.values();
  return only === undefined || other !== undefined ? undefined : only + fragment;
}

/** Whether a parameter takes texts of any form. */
function isText(app: CompiledApp, { page }: Reading, parameter: string | undefined): boolean {
  const { type, items } = app.pages.get(page ?? '')?.byName.get(parameter ?? '')?.declaration ?? {};
  return type === 'text' || (items as { type?: string } | undefined)?.type === 'text';
}

/** Whether what was right is still the same; what was encoded twice is one text with the rest of its address. */
function keepsRight(before: Reading, after: Reading): boolean {
  const same = ({ page, values }: Reading, name: string) => JSON.stringify([page, values[name] ?? null]);
  return before.parameters.every(
    ({ name, text = '', problem }) =>
      text === '' || problem !== undefined || text.includes('%25') || same(before, name) === same(after, name),
  );
}

/** The parameters for which an address gives a text. */
const givenNames = ({ parameters }: Reading): ReadonlySet<string> =>
  new Set(parameters.flatMap(({ name, text }) => (text === undefined || text === '' ? [] : [name])));

/** How much of an address is not understood: values that are refused, and names that came out of a damaged one. */
const weight = ({ status, problems, undeclared }: Reading): number =>
  problems.filter(({ severity }) => severity !== 'note').length +
  (status === 'found' ? 0 : 1) +
  undeclared.filter(({ name }) => /^(?:amp|%3B|;)|amp;/i.test(name)).length;
