import type { CheckContext, Place } from './context.ts';
import { report } from './context.ts';

const mention = /\bparam\.([A-Za-z_]\w*)/g;

/**
 * Points out an expression that computes with a parameter that may be absent. A lone `{param.q}` is not pointed out:
 * it shows nothing when absent, which is what its author expects.
 */
export function checkGuards(context: CheckContext, place: Place, expression: string): void {
  if (place[0] !== 'pages' || /^param\.\w+$/.test(expression)) return;
  const page = context.compiled.pages.get(String(place[1]));
  for (const [, name = ''] of expression.matchAll(mention)) {
    const parameter = page?.byName.get(name);
    if (!parameter || parameter.required || parameter.fallback !== undefined) continue;
    if (new RegExp(`\\bhas\\(\\s*param\\.${name}\\s*\\)`).test(expression)) continue;
    report(context, place, {
      code: 'unguarded',
      severity: 'warning',
      message: `The expression reads “param.${name}”, which may be absent; then it gives nothing.`,
      hint: `Ask has(param.${name}) first, or read it with param.?${name}.orValue(…).`,
    });
  }
}
