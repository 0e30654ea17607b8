import { Environment, type ObjectSchema } from '@marcbachmann/cel-js';
import type { ScopeTypes } from './evaluator.ts';
import type { ScopeType } from './scope-types.ts';

/** What the check of one expression finds: its CEL type, or what is wrong and where in the expression. */
export type CheckedExpression = { type: string } | { message: string; unknown?: string; start: number };

/** Checks expressions against what may be named where they stand. Making one costs more than using it. */
export class ExpressionChecker {
  readonly #environment: Environment;

  constructor(types: ScopeTypes) {
    this.#environment = new Environment({ enableOptionalTypes: true });
    for (const [name, type] of Object.entries(types)) {
      const declared = declare(type);
      if (typeof declared === 'string') this.#environment.registerVariable(name, declared);
      else this.#environment.registerVariable({ name, schema: declared });
    }
  }

  check(expression: string): CheckedExpression {
    const result = this.#environment.check(expression);
    if (result.valid) return { type: result.type ?? 'dyn' };
    const error = result.error;
    const start = error?.range?.start ?? 0;
    const message = error?.summary ?? 'It is not a CEL expression.';
    const unknown = /^(?:No such key|Unknown variable): (\w+)/.exec(message)?.[1];
    return unknown === undefined ? { message, start } : { message, unknown, start };
  }
}

function declare(type: ScopeType): string | ObjectSchema {
  if (typeof type === 'string') return type;
  if ('list' in type) return typeof type.list === 'string' ? `list<${type.list}>` : 'list<dyn>';
  return Object.fromEntries(Object.entries(type.fields).map(([name, field]) => [name, declare(field)]));
}

/** The names that stand after a path such as `record.specimen`, for saying what is available. */
export function namesAfter(types: ScopeTypes, path: readonly string[]): string[] {
  let fields: Record<string, ScopeType> | undefined = types;
  for (const name of path) {
    const next: ScopeType | undefined = fields[name];
    fields = typeof next === 'object' && 'fields' in next ? next.fields : undefined;
    if (fields === undefined) return [];
  }
  return Object.keys(fields);
}
