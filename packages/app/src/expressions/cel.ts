import { Environment, type ASTNode, type ParseResult } from '@marcbachmann/cel-js';
import { linearSearch } from '@pallmist/address/patterns';
import { celOptions } from './cel-options.ts';
import { registerFunctions } from './functions/index.ts';
import { enterLocale } from './functions/kind.ts';
import type { EvaluateCel } from './evaluator.ts';
import { withoutOptionalEntries } from './optional-entries.ts';
import { fromCel, toCel } from './scope-types.ts';

/** At run time the types are known from the check; here every name is taken as it comes. */
const environment = registerFunctions(new Environment({ ...celOptions, unlistedVariablesAreDyn: true }));
environment.registerFunction('string.matchesInLinearTime(string): bool', (text: string, pattern: string) =>
  linearSearch(pattern).test(text),
);

/** The engine's own `matches` can take exponential time: ours takes its place. */
function replaceMatches(part: unknown): void {
  if (Array.isArray(part)) part.forEach(replaceMatches);
  else if (typeof part === 'object' && part !== null && 'op' in part) {
    const { op, args } = part as ASTNode;
    if (op === 'rcall' && args[0] === 'matches') (args as unknown[])[0] = 'matchesInLinearTime';
    replaceMatches(args);
  }
}
const compiled = new Map<string, ParseResult | undefined>();
const mostKept = 5000;

/** Evaluates an expression with the CEL engine. What fails at run time is absent, as the design has it. */
export const evaluateCel: EvaluateCel = (expression, scope, types) => {
  if (!compiled.has(expression)) {
    if (compiled.size >= mostKept) compiled.clear();
    let parsed: ParseResult | undefined;
    try {
      parsed = environment.parse(withoutOptionalEntries(expression));
      replaceMatches(parsed.ast);
    } catch {
      parsed = undefined;
    }
    compiled.set(expression, parsed);
  }
  try {
    const context: Record<string, unknown> = {};
    for (const name of Object.keys(scope)) context[name] = toCel(scope[name], types[name]);
    const { language = 'en', timeZone = 'UTC' } = (scope['app'] ?? {}) as { language?: string; timeZone?: string };
    enterLocale({ language, timeZone });
    return fromCel(compiled.get(expression)?.(context)) ?? undefined;
  } catch {
    return undefined;
  }
};
