import { inEnglish, type Say } from '../languages/say.ts';
import { parseText, TextError } from './template-text.ts';
import type { ScopeType } from './scope-types.ts';

/** What an expression may name, by name. */
export type Scope = Record<string, unknown>;
export type ScopeTypes = Record<string, ScopeType>;

/** Evaluates CEL. `undefined` stands for a value that is absent, or an expression that fails at run time. */
export type EvaluateCel = (expression: string, scope: Scope, types: ScopeTypes) => unknown;

const plainPath = /^[A-Za-z_][A-Za-z0-9_]*(?:\.[A-Za-z_][A-Za-z0-9_]*)*$/;
const words = new Set(['true', 'false', 'null']);

/** Whether an expression only follows fields, which needs no CEL engine to be evaluated. */
export function isPlainPath(expression: string): boolean {
  return plainPath.test(expression) && !words.has(expression);
}

/** Evaluates the texts, values and conditions of an app file in one scope. */
export class Evaluator {
  readonly scope: Scope;
  readonly #types: ScopeTypes;
  readonly #cel: EvaluateCel;
  readonly #say: Say;

  /** @param say gives “yes” and “no” in the language of the page */
  constructor(scope: Scope, types: ScopeTypes, cel: EvaluateCel, say: Say = inEnglish) {
    this.#say = say;
    this.scope = scope;
    this.#types = types;
    this.#cel = cel;
  }

  /** The same scope with more in it, for a row of a table. */
  with(name: string, value: unknown, type: ScopeType): Evaluator {
    return new Evaluator({ ...this.scope, [name]: value }, { ...this.#types, [name]: type }, this.#cel, this.#say);
  }

  /** The value of one expression; `undefined` when it is absent. */
  expression(expression: string): unknown {
    if (!isPlainPath(expression)) return this.#cel(expression, this.scope, this.#types);
    let value: unknown = this.scope;
    for (const key of expression.split('.')) {
      if (typeof value !== 'object' || value === null || !Object.hasOwn(value, key)) return undefined;
      value = (value as Record<string, unknown>)[key];
    }
    return value ?? undefined;
  }

  /** Whether a condition holds; one that cannot be evaluated does not. */
  holds(condition: string | undefined): boolean {
    return condition === undefined || this.expression(condition) === true;
  }

  /** A text with its expressions filled in; absent values show nothing. */
  text(text: string): string {
    try {
      return parseText(text)
        .map((part) => ('words' in part ? part.words : display(this.expression(part.expression), this.#say)))
        .join('');
    } catch (error) {
      if (error instanceof TextError) return text;
      throw error;
    }
  }

  /** A value: an expression in braces keeps its type, anything else is as it stands. */
  value(given: string | number | boolean): unknown {
    if (typeof given !== 'string') return given;
    try {
      const parts = parseText(given);
      const [only] = parts;
      if (parts.length === 1 && only && 'expression' in only) return this.expression(only.expression);
    } catch (error) {
      if (!(error instanceof TextError)) throw error;
    }
    return this.text(given);
  }
}

/** A value as people read it. */
export function display(value: unknown, say: Say = inEnglish): string {
  if (value === undefined || value === null) return '';
  if (typeof value === 'string') return value;
  if (typeof value === 'number' || typeof value === 'bigint') return String(value);
  if (typeof value === 'boolean') return say(value ? 'Yes' : 'No').toLowerCase();
  if (Array.isArray(value)) return value.map((item) => display(item, say)).join(', ');
  return '';
}
