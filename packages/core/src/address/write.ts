import { suggest } from '../near.ts';
import { Refusal } from '../parameters/codec.ts';
import type { Values } from '../parameters/declaration.ts';
import { quote, type Problem } from '../problem.ts';
import type { CompiledApp, CompiledPage, CompiledParameter } from './compiled-app.ts';
import { encodeValue } from './value-text.ts';

/** Longest address that is written, and the length from which a warning is given, in characters (all ASCII). */
export const lengthBudget = { refused: 8000, warned: 2000 };

/** An address, or why there is none. Warnings may stand in `problems` beside an address. */
export type Written = { address: string; problems: Problem[] } | { address?: undefined; problems: Problem[] };

export interface WriteOptions {
  /** Leave out the parameters that are declared with `share: false`, and those that act once. */
  forSharing?: boolean;
  /** Although it is for sharing, tell what is remembered for the visit, as far as it is among the values. */
  tellsVisit?: boolean;
  /** Leave out what acts once, for it has acted, and what is remembered for the visit. */
  afterArrival?: boolean;
  /** The values of the page where the link stands; those that the app carries on are taken from them. */
  present?: Values;
}

/**
 * Writes the one canonical address of a page with these values: declared order, defaults left out, the expansion of
 * RFC 6570. Equal values always give the same text.
 * @param pageName today's name of the page, or a former one
 * @param values by parameter name; `undefined` and `null` mean absent
 */
export function writeAddress(app: CompiledApp, pageName: string, values: Values, options?: WriteOptions): Written {
  const page = app.pages.get(pageName) ?? app.formerPages.get(pageName);
  if (page === undefined) {
    return {
      problems: [
        {
          code: 'unknown-page',
          severity: 'error',
          message: `The app has no page ${quote(pageName)}.`,
          hint: suggest(pageName, app.pages.keys()),
        },
      ],
    };
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
    const parameter = page.path[pathIndex++] as CompiledParameter;
    const text = writeValue(parameter, values, undefined, problems);
    if (text === undefined) continue;
    if (text === '' || text === '.' || text === '..') {
      const reason = 'A path segment cannot be empty, “.” or “..”: browsers would change the address.';
      problems.push(refused(parameter, values[parameter.name], reason, 'not-a-segment'));
    } else {
      address += '/' + text;
    }
  }
  if (address === '') address = '/';

  let separator = '?';
  for (const parameter of page.query) {
    if (options !== undefined && leftOut(parameter, options)) continue;
    const text = writeValue(parameter, values, options?.present, problems);
    if (text === undefined) continue;
    // An encoded text holds no “&”: what does is a list that is repeated.
    address += separator + parameter.name + '=' + (parameter.repeated ? text.replaceAll('&', `&${parameter.name}=`) : text);
    separator = '&';
  }

  if (problems.length > 0) return { problems };
  if (address.length > lengthBudget.warned) {
    const problem = overBudget(page, values, address.length);
    return problem.severity === 'error' ? { problems: [problem] } : { address, problems: [problem] };
  }
  return { address, problems };
}

function leftOut({ declaration, remembered }: CompiledParameter, { forSharing, tellsVisit, afterArrival }: WriteOptions): boolean {
  if (forSharing === true) return declaration.share === false || declaration.once === true || (remembered && tellsVisit !== true);
  return afterArrival === true && (declaration.once === true || remembered);
}

/** The encoded text of a parameter's value, or undefined where the address leaves it out. */
function writeValue(parameter: CompiledParameter, values: Values, present: Values | undefined, problems: Problem[]): string | undefined {
  let value: unknown = values[parameter.name];
  if (value === undefined && parameter.carried) value = present?.[parameter.name];
  const text = value === undefined || value === null ? undefined : encodeValue(parameter.codec, parameter.repeated, value);
  // An empty text is no value of a number, a choice, a record: forms send it for “none”.
  if (text === undefined || (parameter.codec.readsBlank !== true && (text === '' || (value === '' && text instanceof Refusal)))) {
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
  if (text instanceof Refusal) {
    problems.push(refused(parameter, value, text.message, text.code));
    return undefined;
  }
  if (parameter.fallback !== undefined && text === parameter.fallback()?.text) return undefined;
  return text;
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
  let largest = { name: '', size: 0 };
  for (const { name, codec, repeated } of page.parameters) {
    const text = values[name] === undefined ? '' : encodeValue(codec, repeated, values[name]);
    if (!(text instanceof Refusal) && text.length > largest.size) largest = { name, size: text.length };
  }
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
