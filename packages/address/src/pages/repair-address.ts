import type { CompiledApp } from './compiled-app.ts';
import { readAddress } from './read-address.ts';
import type { Reading } from './reading.ts';

/** Punctuation at the end of an address, as it is or encoded; the typographic quotation marks too. */
const mark = /(?:[.,;:!?*'")\]}>_-]|%(?:2[1279AC]|3[ABEF]|5D|7D)|%C2%BB|%E2%80%9[89CD])$/i;
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

/** What happens to addresses on their way, undone: each gives another text, or the same where it did not happen. */
const repairs: readonly ((address: string) => string)[] = [
  // Punctuation, brackets or quotation marks of the sentence around it.
  withoutMarks,
  // Encoded twice.
  (address) => address.replaceAll(/%25(?=[0-9a-f]{2})/gi, '%'),
  // Taken out of the source of a page.
  (address) => address.replaceAll(/&(?:amp;)+/gi, '&'),
  // Broken at the end of a line of a mail, with the mark that quoted-printable puts there.
  (address) => address.replaceAll(/=?(?:%0D)?%0A(?:%20|\+)*|[\r\n]+ */gi, ''),
];
/** Several things can have happened. */
const all = (address: string) => repairs.reduceRight((text, repair) => repair(text), address);

/**
 * What a damaged address probably was, where what can be done about it leaves one meaning only: every value of it is right
 * then, and none of the first was lost.
 * @param reading of the address as it is
 * @returns another address, or undefined
 */
export function repairAddress(app: CompiledApp, address: string, reading: Reading): string | undefined {
  const wrong = weight(reading);
  if (wrong === 0 || reading.status === 'malformed') return undefined;
  const [, before = '', fragment = ''] = /^([^#]*)(.*)$/s.exec(address) ?? [];
  const found = new Map<string, string>();
  for (const repair of [...repairs, all]) {
    const repaired = repair(before);
    if (repaired === before) continue;
    const again = readAddress(app, repaired);
    if (again.status === 'found' && weight(again) === 0) found.set(JSON.stringify([again.page, again.values]), repaired);
  }
  const [only, other] = found.values();
  return only === undefined || other !== undefined ? undefined : only + fragment;
}

/** How much of an address is not understood: values that are refused, and names that came out of a damaged one. */
const weight = ({ status, problems, undeclared }: Reading): number =>
  problems.filter(({ severity }) => severity !== 'note').length +
  (status === 'found' ? 0 : 1) +
  undeclared.filter(({ name }) => /^(?:amp|%3B|;)|amp;/i.test(name)).length;
