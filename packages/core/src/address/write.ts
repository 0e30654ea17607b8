import { suggest } from '../near.ts';
import { Refusal } from '../parameters/codec.ts';
import type { Values } from '../parameters/declaration.ts';
import { quote, type Problem } from '../problem.ts';
import type { CompiledApp, CompiledPage, CompiledParameter } from './compiled-app.ts';
import { encode } from './percent.ts';

/** Longest address that is written, and the length from which a warning is given, in characters (all ASCII). */
export const lengthBudget = { refused: 8000, warned: 2000 };

/** An address, or why there is none. Warnings may stand in `problems` beside an address. */
export type Written = { address: string; problems: Problem[] } | { address?: undefined; problems: Problem[] };

export interface WriteOptions {
  /** Leave out the parameters that are declared with `share: false`. */
  forSharing?: boolean;
}

/**
 * Writes the one canonical address of a page with these values: declared order, defaults left out, the expansion of
 * RFC 6570. Equal values always give the same text.
 * @param values by parameter name; `undefined` and `null` mean absent
 */
export function writeAddress(app: CompiledApp, pageName: string, values: Values, options: WriteOptions = {}): Written {
  const page = app.pages.get(pageName);
  if (page === undefined) {
    return failure({
      code: 'unknown-page',
      severity: 'error',
      message: `The app has no page ${quote(pageName)}.`,
      hint: suggest(pageName, app.pages.keys()),
    });
  }
  const problems: Problem[] = [];
  for (const name in values) {
    if (!page.byName.has(name) && values[name] !== undefined) problems.push(unknownParameter(page, name));
  }

  let address = app.mount;
  let pathIndex = 0;
  for (const segment of page.template.segments) {
    if ('literal' in segment) {
      address += '/' + segment.literal;
      continue;
    }
    const parameter = page.path[pathIndex++];
    const text = parameter && writeValue(parameter, values, problems);
    if (parameter === undefined || text === undefined) continue;
    if (text === '' || text === '.' || text === '..') {
      problems.push(
        refused(
          parameter,
          values[parameter.name],
          'A path segment cannot be empty, “.” or “..”: browsers would change the address.',
          'not-a-segment',
        ),
      );
    } else {
      address += '/' + encode(text);
    }
  }
  if (address === '' || (address === app.mount && app.mount === '')) address = '/';

  let separator = '?';
  for (const parameter of page.query) {
    if (options.forSharing === true && parameter.declaration.share === false) continue;
    const text = writeValue(parameter, values, problems);
    if (text === undefined) continue;
    address += separator + parameter.name + '=' + encode(text);
    separator = '&';
  }

  if (problems.length > 0) return { problems };
  if (address.length > lengthBudget.warned) {
    const problem = overBudget(page, values, address.length);
    return problem.severity === 'error' ? { problems: [problem] } : { address, problems: [problem] };
  }
  return { address, problems };
}

/** The written form of a parameter's value, or undefined where the address leaves it out. */
function writeValue(parameter: CompiledParameter, values: Values, problems: Problem[]): string | undefined {
  const value: unknown = values[parameter.name];
  if (value === undefined || value === null || (value === '' && parameter.codec.readsBlank !== true)) {
    if (parameter.required) {
      problems.push({
        code: 'missing',
        severity: 'error',
        message: `“${parameter.name}” is required and has no value.`,
        hint: 'Give it one.',
        parameter: parameter.name,
      });
    }
    return undefined;
  }
  const text = parameter.codec.write(value);
  if (text instanceof Refusal) {
    problems.push(refused(parameter, value, text.message, text.code));
    return undefined;
  }
  return text === parameter.defaultText ? undefined : text;
}

function refused(parameter: CompiledParameter, value: unknown, reason: string, code: string): Problem {
  return {
    code,
    severity: 'error',
    message: `“${parameter.name}” cannot be ${quote(value)}: ${reason}`,
    parameter: parameter.name,
  };
}

function unknownParameter(page: CompiledPage, name: string): Problem {
  return {
    code: 'unknown-parameter',
    severity: 'error',
    message: `The page “${page.name}” has no parameter ${quote(name)}.`,
    hint: suggest(name, page.byName.keys()),
    parameter: name,
  };
}

function overBudget(page: CompiledPage, values: Values, length: number): Problem {
  const sizes = page.parameters.map((parameter) => {
    const text = values[parameter.name] === undefined ? '' : parameter.codec.write(values[parameter.name]);
    return { name: parameter.name, size: text instanceof Refusal ? 0 : encode(text).length };
  });
  const largest = sizes.reduce((a, b) => (b.size > a.size ? b : a), { name: '', size: 0 });
  const tooLong = length > lengthBudget.refused;
  return {
    code: tooLong ? 'address-too-long' : 'address-long',
    severity: tooLong ? 'error' : 'warning',
    message: `The address would be ${String(length)} characters long; “${largest.name}” takes ${String(largest.size)} of them.`,
    hint: tooLong
      ? `At most ${String(lengthBudget.refused)} are written, because servers and chats cut longer ones.`
      : `Above ${String(lengthBudget.warned)} some programs cut addresses.`,
    parameter: largest.name,
  };
}

const failure = (problem: Problem): Written => ({ problems: [problem] });
