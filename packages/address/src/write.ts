import { refusalCode, refusalData, refuse } from './outcome.ts';
import type { LinkValues, Page } from './page.ts';
import { AddressError, noProblems, type AddressProblem } from './problem.ts';
import type { Slot, Template } from './template.ts';

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
export function tryWrite({ slots, byName, prefix, tail, inPath }: Template, given: object): string | undefined {
  const values = given as Readonly<Record<string, unknown>>;
  writeProblems = noProblems;
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
    const { name } = slot;
    const value = values[name];
    if (value === undefined || value === null) {
      if (slot.required) missing(name);
      continue;
    }
    if (value === slot.fixed) continue;
    const text = slot.write(value);
    if (text === undefined || (text === '' && !slot.parameter.blank)) {
      // An empty text is no value of a number, a choice, a record: forms send it for “none”.
      if (text === undefined && (value !== '' || slot.parameter.blank)) complain(name);
      else if (slot.required) missing(name);
      continue;
    }
    if (text === (slot.changing === undefined ? slot.fixedText : slot.write(slot.changing()))) continue;
    if (i >= inPath) query += (query === '' ? '?' : '&') + name + '=' + (slot.repeated ? text.replaceAll(',', `&${name}=`) : text);
    else {
      // Browsers would change the address.
      if (text === '' || text === '.' || text === '..') {
        refuse('not-a-segment');
        complain(name);
      }
      path += slot.lead + text;
    }
  }
  // Without a parameter in it, the path is what stands before the first.
  const address = ((path === '' ? prefix : path + tail) || '/') + query;
  if (address.length > longestWritten) {
    refuse('address-too-long', address.length);
    complain();
  }
  return writeProblems === noProblems ? address : undefined;
}

function missing(name: string): void {
  refuse('missing');
  complain(name);
}

function complain(parameter?: string): void {
  writeProblems = [...writeProblems, { code: refusalCode, severity: 'error', parameter, data: refusalData }];
}
