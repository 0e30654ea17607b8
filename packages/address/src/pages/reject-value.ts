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
