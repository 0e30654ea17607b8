import type { Page, PageValues } from './page.ts';
import type { AddressProblem } from './problem.ts';
import type { Slot, Template } from './template.ts';
import { tryWrite, writeProblems } from './write.ts';

/** What becomes of an address when some of its values change. */
export interface Change<Values> {
  /** All values afterwards, defaults included. */
  values: Values;
  /** The address of them; missing where it cannot be written, for the reasons in `problems`. */
  address: string | undefined;
  problems: readonly AddressProblem[];
  /** The entry of the browser's history that it takes: a new one, which Back undoes, the same, or none where nothing changed. */
  entry: 'new' | 'same' | 'none';
  /** Names of the parameters whose value changed. */
  changed: string[];
}

/**
 * The next address of a page when some values change. Parameters that a changed one `resets` return to their defaults,
 * unless the same change sets them too; values that act once have acted, and leave.
 * @param current values as read from the present address
 * @param changes the new values; `undefined` or `null` returns a parameter to its default
 */
export function change<P extends Page<string, unknown>>(
  page: P,
  current: PageValues<P>,
  changes: { readonly [Name in keyof PageValues<P>]?: PageValues<P>[Name] | null | undefined },
): Change<PageValues<P>> {
  return changeIn(page, current, changes, acts) as Change<PageValues<P>>;
}

const acts = (slot: Slot) => slot.parameter.options.once === true;

/** As `change`, for values of which nothing is known. @param leaves whether a parameter leaves the address after arrival */
export function changeIn(
  page: Template,
  current: Readonly<Record<string, unknown>>,
  changes: Readonly<Record<string, unknown>>,
  leaves: (slot: Slot) => boolean,
): Change<Record<string, unknown>> {
  const values = { ...current };
  const changed: string[] = [];
  const set = (name: string, wanted: unknown) => {
    const slot = page.byName.get(name);
    const value = wanted ?? (slot?.changing === undefined ? slot?.fixed : slot.changing());
    if (!same(slot, current[name], value)) changed.push(name);
    values[name] = value;
  };
  for (const name in changes) set(name, changes[name]);
  // What the person has changed decides whether Back undoes it, not what that resets.
  const step = changed.some((name) => page.byName.get(name)?.parameter.options.step !== false);
  for (const name of [...changed]) {
    for (const other of page.byName.get(name)?.parameter.options.resets ?? []) {
      if (!Object.hasOwn(changes, other)) set(other, undefined);
    }
  }
  for (const slot of page.slots) if (!slot.inPath && leaves(slot) && !Object.hasOwn(changes, slot.name)) set(slot.name, undefined);
  const address = tryWrite(page, values);
  return { values, address, problems: writeProblems, entry: changed.length === 0 ? 'none' : step ? 'new' : 'same', changed };
}

/** Whether two values of a parameter are written alike; that is what makes them equal. */
function same(slot: Slot | undefined, a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (a === undefined || b === undefined || slot === undefined) return false;
  const text = slot.write(a);
  return text !== undefined && text === slot.write(b);
}
