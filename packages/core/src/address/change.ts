import { Refusal } from '../parameters/codec.ts';
import type { Values } from '../parameters/declaration.ts';
import type { CompiledApp, CompiledPage } from './compiled-app.ts';
import { encodeValue } from './value-text.ts';
import { writeAddress, type Written } from './write.ts';

/** What becomes of an address when some of its values change. */
export interface Change {
  /** All values afterwards, defaults included. */
  values: Values;
  written: Written;
  /** How the browser's history takes it; `none` when the address stays as it is. */
  history: 'step' | 'replace' | 'none';
  /** Names of the parameters whose value is another one now. */
  changed: string[];
}

/**
 * The next address of a page when some values change. Parameters that a changed one `resets` return to their defaults,
 * unless the same change sets them too; values that act once have acted, and leave.
 * @param current values as read from the present address
 * @param changes the new values; `undefined` or `null` returns a parameter to its default
 */
export function changeValues(app: CompiledApp, pageName: string, current: Values, changes: Values): Change {
  const page = app.pages.get(pageName);
  if (page === undefined) return { values: current, written: writeAddress(app, pageName, current), history: 'none', changed: [] };
  const values: Values = { ...current };
  const changed: string[] = [];
  const set = (name: string, wanted: unknown) => {
    const parameter = page.byName.get(name);
    const value = (wanted ?? parameter?.fallback?.()?.value) as Values[string];
    if (!same(page, name, current[name], value)) changed.push(name);
    if (value === undefined) Reflect.deleteProperty(values, name);
    else values[name] = value;
  };
  for (const name in changes) set(name, changes[name]);
  // What the person has changed decides whether Back undoes it, not what that resets.
  const step = changed.some((name) => page.byName.get(name)?.step ?? true);
  for (const name of [...changed]) {
    for (const other of page.byName.get(name)?.resets ?? []) {
      if (!Object.hasOwn(changes, other)) set(other, undefined);
    }
  }
  if (page.leavesAddress) {
    for (const { name, declaration, remembered } of page.query)
      if ((declaration.once === true || remembered) && !Object.hasOwn(changes, name)) set(name, undefined);
  }
  const written = writeAddress(app, pageName, values);
  return { values, written, history: changed.length === 0 ? 'none' : step ? 'step' : 'replace', changed };
}

/** Whether two values of a parameter are written alike; that is what makes them equal. */
function same(page: CompiledPage, name: string, a: Values[string], b: Values[string]): boolean {
  if (a === b) return true;
  const parameter = page.byName.get(name);
  if (a === undefined || b === undefined || parameter === undefined) return false;
  const text = encodeValue(parameter.codec, parameter.repeated, a);
  return !(text instanceof Refusal) && text === encodeValue(parameter.codec, parameter.repeated, b);
}
