import type { Values } from '../declare/declaration.ts';
import type { Problem } from '../declare/problem.ts';
import { enterCall } from './call-context.ts';
import type { CompiledApp, CompiledPage } from './compiled-app.ts';
import type { Reading } from './reading.ts';

/**
 * The same reading after a value turned out to be wrong in a way that only the store could tell, such as the key of a
 * record that there is not: refused, or with the default in its place, as the parameter's `ifWrong` says.
 */
export function rejectValue(app: CompiledApp, page: CompiledPage, reading: Reading, name: string, code: string, message: string): Reading {
  enterCall(app);
  const parameter = page.byName.get(name);
  const refused = parameter?.refuses ?? true;
  const problem: Problem = { code, severity: refused ? 'error' : 'warning', message, parameter: name };
  const values = { ...reading.values };
  const fallback = parameter?.fallback?.();
  if (fallback === undefined || refused) Reflect.deleteProperty(values, name);
  else values[name] = fallback;
  return {
    ...reading,
    status: refused || parameter?.required === true ? 'refused' : reading.status,
    values,
    problems: [...reading.problems, problem],
    parameters: reading.parameters.map((entry) => {
      if (entry.name !== name) return entry;
      const { value: _, ...rest } = entry;
      const value = values[name];
      return { ...rest, origin: value === undefined ? 'absent' : 'default', problem, ...(value === undefined ? {} : { value }) };
    }),
  };
}

/**
 * The same reading after some items of a list turned out to be wrong: without them, or refused, as the parameter's `ifWrong` says.
 * @param kept the items that are right
 */
export function rejectItems(
  app: CompiledApp,
  page: CompiledPage,
  reading: Reading,
  name: string,
  kept: readonly unknown[],
  { code, message }: { code: string; message: string },
): Reading {
  if (kept.length === 0 || (page.byName.get(name)?.refuses ?? true)) return rejectValue(app, page, reading, name, code, message);
  const value = kept as Values[string];
  const problem: Problem = { code, severity: 'warning', message, parameter: name };
  return {
    ...reading,
    values: { ...reading.values, [name]: value },
    problems: [...reading.problems, problem],
    parameters: reading.parameters.map((entry) => (entry.name === name ? { ...entry, value, problem } : entry)) as Reading['parameters'],
  };
}
