import type { Environment } from '@marcbachmann/cel-js';
import { dateFunctions, formatFunctions } from './dates.ts';
import { type CelFunction, registerAll } from './kind.ts';
import { listFunctions } from './lists.ts';
import { numberFunctions } from './numbers.ts';
import { optionalEntries } from './optional-entries.ts';
import { textFunctions } from './texts.ts';

/** Every function of expressions beyond those of CEL itself, by what they work on. */
export const celFunctions: Readonly<Record<string, readonly CelFunction[]>> = {
  Texts: textFunctions,
  Lists: listFunctions,
  Numbers: numberFunctions,
  Dates: dateFunctions,
  Formatting: formatFunctions,
};

/** What stands before the functions of a group: `math.abs(-3)`. Each is a type of its own, so that none has the functions of another. */
const namespaces = ['math', 'lists', 'strings'] as const;

/** Makes the functions known to an engine: the check and the evaluation have the same. */
export function registerFunctions(environment: Environment): Environment {
  for (const name of namespaces) {
    const Namespace = class {
      readonly name = name;
    };
    environment.registerType(typeOf(name), Namespace);
    environment.registerConstant(name, typeOf(name), new Namespace());
  }
  registerAll(environment, optionalEntries);
  for (const functions of Object.values(celFunctions))
    registerAll(
      environment,
      functions.map((one) => ({ ...one, signatures: one.signatures.map(withType) })),
    );
  return environment;
}

const typeOf = (name: string) => `${name.charAt(0).toUpperCase()}${name.slice(1)}Functions`;
const withType = (signature: string) => signature.replace(/^(math|lists|strings)\./, (_, name: string) => `${typeOf(name)}.`);
