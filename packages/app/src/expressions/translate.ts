import { Environment, type ASTNode } from '@marcbachmann/cel-js';
import { celOptions } from './cel-options.ts';
import type { ScopeTypes } from './evaluator.ts';
import { withoutOptionalEntries } from './optional-entries.ts';
import type { Operation, Program } from './program.ts';
import type { ScopeType } from './scope-types.ts';

/** A part of an expression as a program, and the type that it gives. */
interface Typed {
  program: Program;
  type: ScopeType;
}

const environment = new Environment({ ...celOptions, unlistedVariablesAreDyn: true });

/**
 * Translates an expression into a program that gives the same as the CEL engine does.
 * @returns undefined where it has an operation, or types, that programs do not know: then the engine is needed
 */
export function translate(expression: string, types: ScopeTypes): Program | undefined {
  try {
    const translated = part(environment.parse(withoutOptionalEntries(expression)).ast, types);
    // Whole records and dates of the engine's own stay with the engine.
    return translated && (typeof translated.type === 'string' || 'list' in translated.type) && isPlain(translated.type)
      ? translated.program
      : undefined;
  } catch {
    // What does not even parse has been found by the check.
    return undefined;
  }
}

const isPlain = (type: ScopeType): boolean => (typeof type === 'string' ? type !== 'dyn' : 'list' in type && isPlain(type.list));

function part(node: ASTNode, types: ScopeTypes): Typed | undefined {
  switch (node.op) {
    case 'value':
      return literal(node.args);
    case 'id':
    case '.':
      return path(node, types);
    case 'list':
      return list(node.args, types);
    case '?:': {
      const [condition, yes, no] = node.args.map((argument) => part(argument, types));
      return condition?.type === 'bool' && yes && no && yes.type === no.type
        ? { program: ['if', condition.program, yes.program, no.program], type: yes.type }
        : undefined;
    }
    case '!_':
      return typed('not', [part(node.args, types)], [['bool']], 'bool');
    case '-_': {
      const inner = part(node.args, types);
      return inner && isNumber(inner.type)
        ? { program: inner.type === 'int' ? ['negateInt', inner.program] : ['minus', 0, inner.program], type: inner.type }
        : undefined;
    }
    case '&&':
    case '||':
      return typed(node.op === '&&' ? 'and' : 'or', both(node.args, types), [['bool', 'bool']], 'bool');
    case '==':
    case '!=': {
      const equal = typed('equal', both(node.args, types), pairsOf('string', 'int', 'double', 'bool'), 'bool');
      return node.op === '==' ? equal : not(equal);
    }
    case '<':
      return less(both(node.args, types));
    case '>':
      return less(both(node.args, types).reverse());
    case '<=':
      return not(less(both(node.args, types).reverse()), node.args, types);
    case '>=':
      return not(less(both(node.args, types)), node.args, types);
    case '+':
    case '-':
    case '*':
      return calculation(node.op, both(node.args, types));
    case 'in': {
      const [item, of] = both(node.args, types);
      const fits = item && of && typeof of.type === 'object' && 'list' in of.type && of.type.list === item.type && isPlain(item.type);
      return fits ? { program: ['in', item.program, of.program], type: 'bool' } : undefined;
    }
    case 'call':
      return call(node.args[0], node.args[1], types);
    case 'rcall':
      return method(node.args[0], node.args[1], node.args[2], types);
    default:
      return undefined;
  }
}

const both = (nodes: readonly ASTNode[], types: ScopeTypes): (Typed | undefined)[] => nodes.map((node) => part(node, types));
const pairsOf = (...types: ScopeType[]): ScopeType[][] => types.map((type) => [type, type]);
const isNumber = (type: ScopeType) => type === 'int' || type === 'double';

/** An operation on values of one of these rows of types. */
function typed(operation: Operation, parts: (Typed | undefined)[], rows: ScopeType[][], type: ScopeType): Typed | undefined {
  const known = parts.filter((each) => each !== undefined);
  const fits = known.length === parts.length && rows.some((row) => row.every((wanted, index) => wanted === known[index]?.type));
  return fits ? { program: [operation, ...known.map(({ program }) => program)], type } : undefined;
}

const less = (parts: (Typed | undefined)[]) => typed('less', parts, pairsOf('int', 'double'), 'bool');

/** The opposite. With numbers that are not a number, “not less” is not “at least”: doubles stay with the engine. */
function not(inner: Typed | undefined, compared?: readonly ASTNode[], types: ScopeTypes = {}): Typed | undefined {
  if (inner === undefined || compared?.some((node) => part(node, types)?.type === 'double')) return undefined;
  return { program: ['not', inner.program], type: 'bool' };
}

function literal(value: unknown): Typed | undefined {
  if (typeof value === 'string') return { program: value, type: 'string' };
  if (typeof value === 'boolean') return { program: value, type: 'bool' };
  if (typeof value === 'number') return { program: value, type: 'double' };
  if (typeof value === 'bigint' && Number.isSafeInteger(Number(value))) return { program: Number(value), type: 'int' };
  return undefined;
}

/** The names along a path of plain steps. */
function namesOf(node: ASTNode): string[] | undefined {
  if (node.op === 'id') return [node.args];
  if (node.op !== '.') return undefined;
  const [holder, name] = node.args;
  const before = namesOf(holder);
  return before && [...before, name];
}

function path(node: ASTNode, types: ScopeTypes): Typed | undefined {
  const names = namesOf(node);
  return names && typeOfPath(names, types);
}

/** A path whose every step is a field that is known. */
function typeOfPath(names: readonly string[], types: ScopeTypes): Typed | undefined {
  let type: ScopeType = { fields: types };
  for (const name of names) {
    const next: ScopeType | undefined =
      typeof type === 'object' && 'fields' in type && Object.hasOwn(type.fields, name) ? type.fields[name] : undefined;
    if (next === undefined) return undefined;
    type = next;
  }
  return { program: ['at', ...names], type };
}

function list(items: readonly ASTNode[], types: ScopeTypes): Typed | undefined {
  const parts = both(items, types);
  const [first] = parts;
  if (first === undefined || !isPlain(first.type) || parts.some((each) => each?.type !== first.type)) return undefined;
  return { program: ['list', ...parts.map((each) => each?.program ?? '')], type: { list: first.type } };
}

function calculation(sign: '+' | '-' | '*', parts: (Typed | undefined)[]): Typed | undefined {
  const type = parts[0]?.type;
  const kind = type === 'int' ? 'Int' : '';
  const operation = `${sign === '+' ? 'plus' : sign === '-' ? 'minus' : 'times'}${kind}` as const;
  if (type === undefined || !(isNumber(type) || (type === 'string' && sign === '+'))) return undefined;
  return typed(operation, parts, [[type, type]], type);
}

function call(name: string, given: readonly ASTNode[], types: ScopeTypes): Typed | undefined {
  const [first, ...more] = given;
  if (first === undefined || more.length > 0) return undefined;
  if (name === 'has') {
    const known = first.op === '.' ? path(first, types) : undefined;
    return known && { program: ['has', ...(known.program as readonly Program[]).slice(1)], type: 'bool' };
  }
  const argument = part(first, types);
  if (argument === undefined) return undefined;
  if (name === 'size') return size(argument);
  // How a double is written, the engine knows.
  if (name === 'string') return typed('string', [argument], [['int'], ['string'], ['bool']], 'string');
  return undefined;
}

function size(of: Typed): Typed | undefined {
  if (of.type === 'string') return { program: ['length', of.program], type: 'int' };
  return typeof of.type === 'object' && 'list' in of.type ? { program: ['size', of.program], type: 'int' } : undefined;
}

function method(name: string, on: ASTNode, given: readonly ASTNode[], types: ScopeTypes): Typed | undefined {
  const [first, ...more] = given;
  if (name === 'orValue' && first !== undefined && on.op === '.?') {
    const before = namesOf(on.args[0]);
    const value = before && typeOfPath([...before, on.args[1]], types);
    const otherwise = part(first, types);
    return value && otherwise && value.type === otherwise.type && isPlain(value.type)
      ? { program: ['orValue', value.program, otherwise.program], type: value.type }
      : undefined;
  }
  const target = part(on, types);
  if (target === undefined || more.length > 0) return undefined;
  if (name === 'size' && first === undefined) return size(target);
  if (first === undefined || !(name === 'contains' || name === 'startsWith' || name === 'endsWith')) return undefined;
  return typed(name, [target, part(first, types)], [['string', 'string']], 'bool');
}
