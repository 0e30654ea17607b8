import { Environment, type ParseResult } from '@marcbachmann/cel-js';
import type { EvaluateCel } from './evaluator.ts';
import { fromCel, toCel } from './scope-types.ts';

/** At run time the types are known from the check; here every name is taken as it comes. */
const environment = new Environment({ unlistedVariablesAreDyn: true, enableOptionalTypes: true });
const compiled = new Map<string, ParseResult | undefined>();
const mostKept = 5000;

/** Evaluates an expression with the CEL engine. What fails at run time is absent, as the design has it. */
export const evaluateCel: EvaluateCel = (expression, scope, types) => {
  if (!compiled.has(expression)) {
    if (compiled.size >= mostKept) compiled.clear();
    let parsed: ParseResult | undefined;
    try {
      parsed = environment.parse(expression);
    } catch {
      parsed = undefined;
    }
    compiled.set(expression, parsed);
  }
  try {
    const context: Record<string, unknown> = {};
    for (const name of Object.keys(scope)) context[name] = toCel(scope[name], types[name]);
    return fromCel(compiled.get(expression)?.(context)) ?? undefined;
  } catch {
    return undefined;
  }
};
