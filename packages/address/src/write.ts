import { refusalCode, refusalData, refuse } from './outcome.ts';
import type { LinkValues, Page } from './page.ts';
import { AddressError, noProblems, type AddressProblem } from './problem.ts';
import type { Slot, Template } from './template.ts';
import { beginWriting, fragile, protect } from './travel.ts';

/** Longest address that is written, in characters (all ASCII). */
export const longestWritten = 8000;

/** Why the last address could not be written. */
export let writeProblems: readonly AddressProblem[] = noProblems;

/**
 * Writes the one canonical address of a page with these values: declared order, defaults left out, the expansion of
 * RFC 6570. Equal values always give the same text.
 * @param values by parameter name; `undefined` and `null` mean absent
 * @throws AddressError where a value is missing or cannot be written, or the address would be longer than 8,000 characters
 */
export function write<P extends Page<string, unknown>>(page: P, values: LinkValues<P>): string {
  const address = tryWrite(page, values);
  if (address === undefined) throw new AddressError(writeProblems);
  return address;
}

/** As `write`, for values of which nothing is known. @returns undefined where there is none; `writeProblems` says why */
export function tryWrite(template: Template, given: object): string | undefined {
  const { slots, byName } = template;
  const values = given as Readonly<Record<string, unknown>>;
  writeProblems = noProblems;
  refuse('');
  beginWriting(template.fragile);
  let at = 0;
  for (const name in values) {
    // Values that were read have the names in written order.
    if (slots[at++]?.name !== name && byName.get(name)?.name !== name && values[name] !== undefined) {
      refuse('undeclared');
      complain(name);
    }
  }
  let path = '';
  let query = '';
  for (let i = 0; i < slots.length; i++) {
    const slot = slots[i] as Slot;
    const value = values[slot.name];
    if (value === undefined && !slot.required) continue;
    const text = textFor(slot, value);
    if (text === undefined) {
      if (refusalCode !== '') complain(slot.name);
    } else if (slot.inPath) path += slot.lead + text;
    else query = withPair(query, slot, text);
  }
  let address = whole(template, path, query);
  if (fragile) address = protect(address);
  if (address.length > longestWritten) {
    refuse('address-too-long', address.length);
    complain();
  }
  return writeProblems === noProblems ? address : undefined;
}

/** A query with one text more. */
const withPair = (query: string, { lead, repeated }: Slot, text: string) =>
  query + (query === '' ? '?' + lead.slice(1) : lead) + (repeated ? text.replaceAll(',', lead) : text);

/** Without a parameter in it, the path is what stands before the first. */
const whole = ({ prefix, tail, root }: Template, path: string, query: string) => ((path && path + tail) || prefix || root) + query || '?';

/** Puts the texts of an address together; it is not protected yet. @param texts by the places of the slots */
export function join(page: Template, texts: readonly (string | undefined)[]): string {
  let path = '';
  let query = '';
  for (const slot of page.slots) {
    const text = texts[slot.index];
    if (text === undefined) continue;
    if (slot.inPath) path += slot.lead + text;
    else query = withPair(query, slot, text);
  }
  return whole(page, path, query);
}

/**
 * The text that an address has for a value, percent-encoded.
 * @returns undefined where it has none: the value is absent or the default, or it is refused: then `refusalCode`, which
 *   is to be empty before, says why
 */
export function textFor(slot: Slot, value: unknown): string | undefined {
  const absent = value === undefined || value === null;
  if (!absent && value === slot.fixed) return undefined;
  const text = absent ? '' : slot.write(value);
  // An empty text is no value of a number, a choice, a record: forms send it for “none”.
  if (absent || ((text ?? value) === '' && !slot.parameter.blank)) return refuse(slot.required ? 'missing' : '');
  if (text === (slot.changing === undefined ? slot.fixedText : slot.write(slot.changing()))) return undefined;
  // Browsers would change the address.
  return slot.inPath && (text === '' || text === '.' || text === '..') ? refuse('not-a-segment') : text;
}

function complain(parameter?: string): void {
  writeProblems = [...writeProblems, { code: refusalCode, severity: 'error', parameter, data: refusalData }];
  refuse('');
}
