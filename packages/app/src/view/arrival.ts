import type { Values } from '@pallmist/address/declare';
import { type CompiledPage, Refusal, valueFrom } from '@pallmist/address/pages';
import type { AppDefinition, PageDefinition } from '../definition/app-definition.ts';
import { Evaluator, type EvaluateCel } from '../expressions/evaluator.ts';
import { pageScopeTypes } from '../expressions/page-scope.ts';
import { scopeBeforeLoad } from './load-plan.ts';
import type { RequestContext } from './page-payload.ts';

/** What arriving at a page with certain values brings about. */
export interface Arrival {
  /** The values to begin with. */
  values: Values;
  /** Which of the page's rules held, by their numbers from 0. */
  held: number[];
}

/**
 * Carries out a page's rules for arrivals: view state to begin with, and notices. Pure; nothing is saved by arriving.
 * What the address itself gives is not overwritten.
 */
export function arrive(
  app: Pick<AppDefinition, 'title' | 'mount' | 'collections' | 'parameters' | 'words'>,
  page: PageDefinition,
  compiled: CompiledPage,
  given: { values: Values; stated: ReadonlySet<string> },
  requestContext: RequestContext,
  cel: EvaluateCel,
): Arrival {
  const values = { ...given.values };
  const held: number[] = [];
  for (const [index, rule] of (page.arrival ?? []).entries()) {
    const evaluator = new Evaluator(scopeBeforeLoad(app, values, requestContext), pageScopeTypes(app, page), cel);
    if (!evaluator.holds(rule.when)) continue;
    held.push(index);
    for (const [name, wanted] of Object.entries(rule.set ?? {})) {
      const parameter = compiled.byName.get(name);
      const evaluated = evaluator.value(wanted);
      if (parameter === undefined || evaluated === undefined || given.stated.has(name)) continue;
      const value = valueFrom(evaluated, parameter.plain);
      if (!(value instanceof Refusal)) values[name] = value;
    }
  }
  return { values, held };
}
