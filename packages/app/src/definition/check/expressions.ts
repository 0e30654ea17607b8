import { checkGuards } from './guards.ts';
import { ExpressionChecker, namesAfter, type CheckedExpression } from '../../expressions/check-expression.ts';
import type { ScopeTypes } from '../../expressions/evaluator.ts';
import { patternsIn } from '../../expressions/paths.ts';
import { parseText, TextError } from '../../expressions/template-text.ts';
import { quote, toPointer, withArticle } from '@pallmist/address/declare';
import { nearest, suggest } from '@pallmist/address/explain';
import { celHint, slipIn } from '../common-slips.ts';
import { report, type CheckContext, type Place } from './context.ts';
import { checkPattern } from './patterns.ts';

/** Checks the expressions that stand in one scope. */
export class ScopeCheck {
  readonly #context: CheckContext;
  readonly types: ScopeTypes;
  readonly #checker: ExpressionChecker;

  constructor(context: CheckContext, types: ScopeTypes) {
    this.#context = context;
    this.types = types;
    this.#checker = new ExpressionChecker(types);
  }

  /** A text that may hold expressions. */
  text(place: Place, text: string): void {
    for (const part of this.#parts(place, text)) {
      if ('expression' in part) this.expression(place, part.expression, text);
    }
  }

  /** A condition: it has to be true or false. */
  condition(place: Place, expression: string): void {
    const type = this.expression(place, expression);
    if (type === undefined || type === 'bool' || type === 'dyn') return;
    report(this.#context, place, {
      code: 'condition-not-bool',
      message: `The condition ${quote(expression, 60)} gives ${withArticle(type)}, not true or false.`,
      hint: 'Compare it with something, or ask has(…).',
    });
  }

  /** A value: the CEL type of a whole expression in braces, `string` for a text; undefined when it is wrong. */
  value(place: Place, given: string | number | boolean): string | undefined {
    if (typeof given !== 'string') return undefined;
    const parts = this.#parts(place, given);
    const [only] = parts;
    if (parts.length === 1 && only && 'expression' in only) return this.expression(place, only.expression, given);
    this.text(place, given);
    return 'string';
  }

  /** @returns the CEL type, or undefined when the expression is wrong, which is then reported */
  expression(place: Place, expression: string, whole = expression): string | undefined {
    const checked = this.#checker.check(expression);
    if ('type' in checked) {
      checkGuards(this.#context, place, expression);
      this.#patterns(place, expression);
      return checked.type;
    }
    report(this.#context, place, {
      code: checked.unknown === undefined ? 'bad-expression' : 'unknown-in-expression',
      message:
        checked.unknown === undefined
          ? `The expression ${quote(expression, 60)} is not right: ${checked.message}`
          : `The expression ${quote(expression, 60)} names “${checked.unknown}”, which is not available here.`,
      hint:
        slipIn(expression) ??
        (checked.unknown === undefined
          ? (celHint(checked.message) ?? 'See the guide “Expressions”.')
          : this.#available(expression, checked)),
      ...(checked.unknown === undefined ? {} : this.#fix(place, whole, expression, checked)),
    });
    return undefined;
  }

  /** Patterns are written out, and can be matched in linear time. */
  #patterns(place: Place, expression: string): void {
    if (!expression.includes('matches')) return;
    for (const pattern of patternsIn(expression)) {
      if (pattern !== undefined) checkPattern(this.#context, place, pattern, 'part');
      else
        report(this.#context, place, {
          code: 'pattern-not-literal',
          message: `The expression ${quote(expression, 60)} matches against a pattern that is not written out.`,
          hint: 'Write the pattern as a text in quotes: one that comes from the address could keep the service busy.',
        });
    }
  }

  /** The whole text again, with the name that was probably meant. */
  #fix(place: Place, whole: string, expression: string, { unknown = '', start }: { unknown?: string; start: number }) {
    const before = /([A-Za-z_][\w.]*)\.\??$/.exec(expression.slice(0, start))?.[1];
    const near = nearest(unknown, namesAfter(this.types, before?.split('.') ?? []));
    if (near === undefined || expression.slice(start, start + unknown.length) !== unknown) return {};
    const fixed = expression.slice(0, start) + near + expression.slice(start + unknown.length);
    return { fix: [{ op: 'replace' as const, path: toPointer(place), value: whole.replace(expression, () => fixed) }] };
  }

  #available(expression: string, checked: CheckedExpression & { unknown?: string; start: number }): string {
    const before = /([A-Za-z_][\w.]*)\.\??$/.exec(expression.slice(0, checked.start))?.[1];
    const names = namesAfter(this.types, before?.split('.') ?? []);
    return names.length === 0 ? `Available: ${Object.keys(this.types).join(', ')}.` : suggest(checked.unknown ?? '', names);
  }

  #parts(place: Place, text: string): ReturnType<typeof parseText> {
    // Two braces stand for one: the expression would be shown as it is written.
    if (/\{\{\s*(?:param|record|rows?|person|visit|app|word|label)\./.test(text))
      report(this.#context, place, {
        code: 'doubled-braces',
        severity: 'warning',
        message: 'Double braces mean a literal brace, so the page shows this expression as text.',
        hint: 'Write one brace on each side: “{param.q}”.',
      });
    try {
      return parseText(text);
    } catch (error) {
      if (!(error instanceof TextError)) throw error;
      report(this.#context, place, { code: 'bad-braces', message: error.message, hint: 'Write “{{” for a brace itself.' });
      return [];
    }
  }
}
