import { DeclarationError } from '../../parameters/codec.ts';
import { wholePattern } from '../../parameters/types/text-limits.ts';
import { quote } from '../../problem.ts';
import { report, type CheckContext, type Place } from './context.ts';

/** What was found of each pattern; the same few stand in many places. */
const known = new Map<string, boolean>();

/** A pattern has to be a regular expression, and one that no text can keep busy for long. */
export function checkPattern(context: CheckContext, place: Place, pattern: string): void {
  try {
    wholePattern(pattern);
  } catch (error) {
    if (!(error instanceof DeclarationError)) throw error;
    report(context, place, { code: error.code, message: error.message, ...(error.hint === undefined ? {} : { hint: error.hint }) });
    return;
  }
  const { isSlowPattern } = context;
  if (isSlowPattern === undefined) return;
  let slow = known.get(pattern);
  if (slow === undefined) known.set(pattern, (slow = isSlowPattern(pattern)));
  if (!slow) return;
  report(context, place, {
    code: 'pattern-slow',
    message: `The pattern ${quote(pattern, 60)} can take exponential time for a text made for it.`,
    hint: 'Give each repetition something that only it can match, as in [a-z]+(-[a-z]+)*.',
  });
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
