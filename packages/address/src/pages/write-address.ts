import type { Values } from '../declare/declaration.ts';
import { quote, type Problem } from '../declare/problem.ts';
import { suggest } from '../explain/near.ts';
import type { AddressProblem } from '../problem.ts';
import { sentenceOf } from '../sentences/index.ts';
import { longestWritten, tryWrite, writeProblems } from '../write.ts';
import { enterCall } from './call-context.ts';
import type { CompiledApp, CompiledPage, CompiledParameter } from './compiled-app.ts';

/** Longest address that is written, and the length from which a warning is given, in characters (all ASCII). */
export const lengthBudget = { refused: longestWritten, warned: 2000 };

/** An address, or why there is none. Warnings may stand in `problems` beside an address. */
export type Written = { address: string; problems: Problem[] } | { address?: undefined; problems: Problem[] };

export interface WriteOptions {
  /** Leave out the parameters that are declared with `share: false`, and those that act once. */
  forSharing?: boolean;
  /** Although it is for sharing, tell what is remembered for the visit, as far as it is among the values. */
  tellsVisit?: boolean;
  /** Leave out what acts once, for it has acted, and what is remembered for the visit. */
  afterArrival?: boolean;
  /** A link of the app: parameters that are given no value get the one that new links write (`inNewLinks`). */
  newLink?: boolean;
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
  enterCall(app);
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
  const given = options === undefined ? values : withOptions(page, values, options);
  const address = tryWrite(page.page, given);
  if (address === undefined) return { problems: sayProblems(page, given, writeProblems) };
  const long = address.length > lengthBudget.warned;
  return { address, problems: long ? [overBudget(page, given, address.length)] : [] };
}

function withOptions(page: CompiledPage, values: Values, options: WriteOptions): Values {
  const given = { ...values };
  for (const parameter of page.query) {
    const { name } = parameter;
    if (leftOut(parameter, options)) Reflect.deleteProperty(given, name);
    else if (given[name] !== undefined && given[name] !== null) continue;
    else if (parameter.carried && options.present?.[name] !== undefined) given[name] = options.present[name];
    else if (options.newLink === true && parameter.inNewLinks !== undefined) given[name] = parameter.inNewLinks;
  }
  return given;
}

function leftOut({ declaration, remembered }: CompiledParameter, { forSharing, tellsVisit, afterArrival }: WriteOptions): boolean {
  if (forSharing === true) return declaration.share === false || declaration.once === true || (remembered && tellsVisit !== true);
  return afterArrival === true && (declaration.once === true || remembered);
}

/** Problems of writing with their sentences: unknown names first, then in the order of the address. */
export function sayProblems(page: CompiledPage, values: Values, problems: readonly AddressProblem[]): Problem[] {
  const place = ({ parameter = '' }: AddressProblem) => page.page.byName.get(parameter)?.index ?? -1;
  return problems.toSorted((a, b) => place(a) - place(b)).map((problem) => sayProblem(page, values, problem));
}

function sayProblem(page: CompiledPage, values: Values, { code, parameter = '', data }: AddressProblem): Problem {
  const severity = 'error';
  switch (code) {
    case 'address-too-long':
      return overBudget(page, values, data as number);
    case 'missing':
      return { code, severity, message: `“${parameter}” is required and has no value.`, hint: 'Give it one.', parameter };
    case 'undeclared':
      return {
        code,
        severity,
        message: `The page “${page.name}” has no parameter ${quote(parameter)}.`,
        hint: suggest(parameter, page.byName.keys()),
        parameter,
      };
    default:
      return { code, severity, message: `“${parameter}” cannot be ${quote(values[parameter])}: ${sentenceOf(code, data)}`, parameter };
  }
}

function overBudget(page: CompiledPage, values: Values, length: number): Problem {
  let largest = { name: '', size: 0 };
  for (const { name, parameter } of page.parameters) {
    const size = values[name] === undefined ? 0 : (parameter.write(values[name])?.length ?? 0);
    if (size > largest.size) largest = { name, size };
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
