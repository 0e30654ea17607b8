import { changeIn } from '../change.ts';
import type { Values } from '../declare/declaration.ts';
import { enterCall } from './call-context.ts';
import type { CompiledApp } from './compiled-app.ts';
import { lengthBudget, sayProblems, writeAddress, type Written } from './write-address.ts';

/** What becomes of an address when some of its values change. */
export interface AppChange {
  /** All values afterwards, defaults included. */
  values: Values;
  written: Written;
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
export function changeValues(app: CompiledApp, pageName: string, current: Values, changes: Values): AppChange {
  enterCall(app);
  const page = app.pages.get(pageName);
  if (page === undefined) return { values: current, written: writeAddress(app, pageName, current), entry: 'none', changed: [] };
  const { values, address, problems, entry, changed } = changeIn(page.page, current, changes, ({ name }) => {
    const parameter = page.byName.get(name);
    return parameter?.declaration.once === true || parameter?.remembered === true;
  });
  for (const name in values) if (values[name] === undefined) Reflect.deleteProperty(values, name);
  const written: Written =
    address === undefined
      ? { problems: sayProblems(page, values as Values, problems) }
      : address.length > lengthBudget.warned
        ? writeAddress(app, pageName, values as Values)
        : { address, problems: [] };
  return { values: values as Values, written, entry, changed };
}
