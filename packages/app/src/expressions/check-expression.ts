import { Environment, type ObjectSchema } from '@marcbachmann/cel-js';
import { isPlainPath, type ScopeTypes } from './evaluator.ts';
import { celOptions } from './cel-options.ts';
import { withoutOptionalEntries } from './optional-entries.ts';
import { registerFunctions } from './functions/index.ts';
import type { ScopeType } from './scope-types.ts';

/** What the check of one expression finds: its CEL type, or what is wrong and where in the expression. */
export type CheckedExpression = { type: string } | { message: string; unknown?: string; start: number };

/** Checks expressions against what may be named where they stand. */
export class ExpressionChecker {
  readonly #types: ScopeTypes;
  #environment: Environment | undefined;

  constructor(types: ScopeTypes) {
    this.#types = types;
  }

  check(expression: string): CheckedExpression {
    // Most expressions only follow fields, which needs no engine.
    if (isPlainPath(expression)) return followPath(this.#types, expression);
    const text = withoutOptionalEntries(expression);
    const result = (this.#environment ??= environmentFor(this.#types)).check(text);
    if (result.valid) return { type: result.type ?? 'dyn' };
    const error = result.error;
    const message = error?.summary ?? 'It is not a CEL expression.';
    const unknown = /^(?:No such key|Unknown variable): (\w+)/.exec(message)?.[1];
    // The places are those of the text that the engine got.
    const start = text === expression ? (error?.range?.start ?? 0) : Math.max(0, expression.search(new RegExp(`\\b${unknown ?? '$'}\\b`)));
    return unknown === undefined ? { message, start } : { message, unknown, start };
  }
}

const base = registerFunctions(new Environment(celOptions));

/** The engine, told of every name and its type. */
export function environmentFor(types: ScopeTypes): Environment {
  const environment = base.clone();
  for (const [name, type] of Object.entries(types)) {
    const declared = declare(type);
    if (typeof declared === 'string') environment.registerVariable(name, declared);
    else environment.registerVariable({ name, schema: declared });
  }
  return environment;
}

/** The type of a path such as `record.specimen.name`, as CEL names it. */
function followPath(types: ScopeTypes, path: string): CheckedExpression {
  let type: ScopeType = { fields: types };
  let start = 0;
  for (const name of path.split('.')) {
    const fields: Record<string, ScopeType> | undefined = typeof type === 'object' && 'fields' in type ? type.fields : undefined;
    if (type === 'dyn') return { type };
    const next: ScopeType | undefined = fields && Object.hasOwn(fields, name) ? fields[name] : undefined;
    if (next === undefined) return { message: `No such key: ${name}`, unknown: name, start };
    type = next;
    start += name.length + 1;
  }
  if (typeof type === 'string') return { type };
  return { type: 'list' in type ? 'list' : 'map' };
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
