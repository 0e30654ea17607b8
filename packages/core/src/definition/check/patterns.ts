import { analyse } from 'scslre';
import { DeclarationError } from '../../parameters/codec.ts';
import { wholePattern } from '../../parameters/types/text-limits.ts';
import { quote } from '../../problem.ts';
import { report, type CheckContext, type Place } from './context.ts';

/** Patterns that were found harmless, or why they are not; the same few stand in many places. */
const known = new Map<string, string | undefined>();

/** A pattern has to be a regular expression, and one that no text can keep busy for long. */
export function checkPattern(context: CheckContext, place: Place, pattern: string): void {
  try {
    wholePattern(pattern);
  } catch (error) {
    if (!(error instanceof DeclarationError)) throw error;
    report(context, place, { code: error.code, message: error.message, ...(error.hint === undefined ? {} : { hint: error.hint }) });
    return;
  }
  if (!known.has(pattern)) known.set(pattern, slowness(pattern));
  const slow = known.get(pattern);
  if (slow === undefined) return;
  report(context, place, {
    code: 'pattern-slow',
    message: `The pattern ${quote(pattern, 60)} can take ${slow} time for a text made for it.`,
    hint: 'Give each repetition something that only it can match, as in [a-z]+(-[a-z]+)*.',
  });
}

/** How badly a pattern can backtrack: `exponential`, or undefined. */
function slowness(pattern: string): string | undefined {
  const { reports } = analyse(new RegExp(`^(?:${pattern})$`, 'u'), { reportTypes: { Move: false } });
  return reports.some(({ exponential }) => exponential) ? 'exponential' : undefined;
}

/** The patterns of parameters and of lists' items. */
export function checkParameterPatterns(context: CheckContext): void {
  const { pages, parameters = {} } = context.definition;
  const holders: [Place, typeof parameters][] = [
    [['parameters'], parameters],
    ...Object.entries(pages).map(([name, page]): [Place, typeof parameters] => [['pages', name, 'parameters'], page.parameters ?? {}]),
  ];
  for (const [place, declarations] of holders) {
    for (const [name, { pattern, items }] of Object.entries(declarations)) {
      if (pattern !== undefined) checkPattern(context, [...place, name, 'pattern'], pattern);
      if (items?.pattern !== undefined) checkPattern(context, [...place, name, 'items', 'pattern'], items.pattern);
    }
  }
}
