import { checkGuards } from './guards.ts';
import { ExpressionChecker, namesAfter, type CheckedExpression } from '../../expressions/check-expression.ts';
import type { ScopeTypes } from '../../expressions/evaluator.ts';
import { parseText, TextError } from '../../expressions/template-text.ts';
import { suggest } from '../../near.ts';
import { quote } from '../../problem.ts';
import { report, type CheckContext, type Place } from './context.ts';

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
      if ('expression' in part) this.expression(place, part.expression);
    }
  }

  /** A condition: it has to be true or false. */
  condition(place: Place, expression: string): void {
    const type = this.expression(place, expression);
    if (type === undefined || type === 'bool' || type === 'dyn') return;
    report(this.#context, place, {
      code: 'condition-not-bool',
      message: `The condition ${quote(expression, 60)} gives a ${type}, not true or false.`,
      hint: 'Compare it with something, or ask has(…).',
    });
  }

  /** A value: the CEL type of a whole expression in braces, `string` for a text; undefined when it is wrong. */
  value(place: Place, given: string | number | boolean): string | undefined {
    if (typeof given !== 'string') return undefined;
    const parts = this.#parts(place, given);
    const [only] = parts;
    if (parts.length === 1 && only && 'expression' in only) return this.expression(place, only.expression);
    this.text(place, given);
    return 'string';
  }

  /** @returns the CEL type, or undefined when the expression is wrong, which is then reported */
  expression(place: Place, expression: string): string | undefined {
    const checked = this.#checker.check(expression);
    if ('type' in checked) {
      checkGuards(this.#context, place, expression);
      return checked.type;
    }
    report(this.#context, place, {
      code: checked.unknown === undefined ? 'bad-expression' : 'unknown-in-expression',
      message:
        checked.unknown === undefined
          ? `The expression ${quote(expression, 60)} is not right: ${checked.message}`
          : `The expression ${quote(expression, 60)} names “${checked.unknown}”, which is not available here.`,
      hint: checked.unknown === undefined ? 'See the guide “Expressions”.' : this.#available(expression, checked),
    });
    return undefined;
  }

  #available(expression: string, checked: CheckedExpression & { unknown?: string; start: number }): string {
    const before = /([A-Za-z_][\w.]*)\.\??$/.exec(expression.slice(0, checked.start))?.[1];
    const names = namesAfter(this.types, before?.split('.') ?? []);
    return names.length === 0 ? `Available: ${Object.keys(this.types).join(', ')}.` : suggest(checked.unknown ?? '', names);
  }

  #parts(place: Place, text: string): ReturnType<typeof parseText> {
    try {
      return parseText(text);
    } catch (error) {
      if (!(error instanceof TextError)) throw error;
      report(this.#context, place, { code: 'bad-braces', message: error.message, hint: 'Write “{{” for a brace itself.' });
      return [];
    }
  }
}
