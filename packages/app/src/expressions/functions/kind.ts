import type { Environment } from '@marcbachmann/cel-js';

/** A function of expressions, beyond those of CEL itself. */
export interface CelFunction {
  readonly name: string;
  /** How the engine is told of it: `string.charAt(int): string`. One for each combination of types. */
  readonly signatures: readonly string[];
  readonly sentence: string;
  /** An expression, and what it gives in English with the time zone UTC; the tests evaluate it. */
  readonly example: readonly [expression: string, gives: unknown];
  /** What the engine calls: integers are BigInts. A thrown error makes the expression absent. */
  readonly run: (...given: never[]) => unknown;
}

/** What functions depend on beside their arguments. */
export interface Locale {
  /** BCP 47 tag. */
  language: string;
  /** IANA name. */
  timeZone: string;
}

let present: Locale = { language: 'en', timeZone: 'UTC' };

/** Sets the language and the time zone for the evaluation that follows. */
export function enterLocale(locale: Locale): void {
  present = locale;
}

export const presentLocale = (): Locale => present;

/** Tells an engine of functions. */
export function registerAll(environment: Environment, functions: readonly CelFunction[]): void {
  for (const { signatures, run, sentence } of functions)
    for (const signature of signatures) environment.registerFunction(signature, { handler: run, description: sentence });
}
