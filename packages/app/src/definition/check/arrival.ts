import { suggest } from '@pallmist/address/explain';
import { Refusal, valueFrom } from '@pallmist/address/pages';
import type { PageDefinition } from '../app-definition.ts';
import { report, type CheckContext, type Place } from './context.ts';
import type { ScopeCheck } from './expressions.ts';

/**
 * What happens at arrival: its conditions and texts, and that it sets parameters of the page to values they accept.
 * @param scope what is known before anything is loaded @param shown what is known when the page is shown
 */
export function checkArrival(context: CheckContext, place: Place, page: PageDefinition, scope: ScopeCheck, shown: ScopeCheck): void {
  const compiled = context.compiled.pages.get(String(place[1]));
  for (const [index, rule] of (page.arrival ?? []).entries()) {
    const at = [...place, 'arrival', index];
    scope.condition([...at, 'when'], rule.when);
    if (rule.notice !== undefined) shown.text([...at, 'notice'], rule.notice);
    for (const [name, value] of Object.entries(rule.set ?? {})) {
      scope.value([...at, 'set', name], value);
      const parameter = compiled?.byName.get(name);
      if (compiled && parameter === undefined) {
        report(context, [...at, 'set', name], {
          code: 'undeclared',
          message: `The page has no parameter “${name}” to set.`,
          hint: suggest(name, compiled.byName.keys()),
        });
      } else if (parameter && !(typeof value === 'string' && value.includes('{'))) {
        const taken = valueFrom(value, parameter.plain);
        if (taken instanceof Refusal)
          report(context, [...at, 'set', name], {
            code: 'wrong-value',
            message: `“${name}” cannot be ${JSON.stringify(value)}: ${taken.message}`,
          });
      }
    }
    if (rule.set === undefined && rule.notice === undefined) {
      report(context, at, {
        code: 'arrival-without-effect',
        message: 'Nothing happens at this arrival.',
        hint: 'Give it “set” or “notice”.',
      });
    }
  }
}
