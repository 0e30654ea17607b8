import { Environment, type ASTNode } from '@marcbachmann/cel-js';
import { optionalEntryFunctions, withoutOptionalEntries } from './optional-entries.ts';

/** A chain of names that an expression follows, such as `record.specimen.house.name`. */
export type Path = readonly string[];

const environment = new Environment({ unlistedVariablesAreDyn: true, enableOptionalTypes: true });
const known = new Map<string, readonly Path[]>();
const mostKept = 5000;

/** Macros that name the items of a list by a variable. */
const overItems = new Set(['map', 'filter', 'all', 'exists', 'exists_one']);
/** Macros whose result is made of the items themselves. */
const keepsItems = new Set(['filter']);
/** Methods that give what they are called on, or their argument. */
const passesOn = new Set(['orValue', 'or', 'value', ...Object.values(optionalEntryFunctions)]);

type Variables = ReadonlyMap<string, readonly Path[]>;

/**
 * Every path that an expression may read, wherever a value goes inside of it: through `["name"]`, lists, macros and
 * optional steps. An expression that is not well-formed reads nothing.
 */
export function pathsIn(expression: string): readonly Path[] {
  let paths = known.get(expression);
  if (paths === undefined) {
    if (known.size >= mostKept) known.clear();
    known.set(expression, (paths = findPaths(expression)));
  }
  return paths;
}

function findPaths(expression: string): Path[] {
  const found: Path[] = [];
  let ast: ASTNode;
  try {
    ast = environment.parse(withoutOptionalEntries(expression)).ast;
  } catch {
    return found;
  }
  const read = (paths: readonly Path[]) => {
    found.push(...paths);
  };
  /** Notes what a part reads on the way to its value, and gives the paths that its value may be. */
  const follow = (node: ASTNode, variables: Variables): readonly Path[] => {
    switch (node.op) {
      case 'value':
        return [];
      case 'id':
        return variables.get(node.args) ?? [[node.args]];
      case '.':
      case '.?': {
        const [holder, name] = node.args;
        return follow(holder, variables).map((path) => [...path, name]);
      }
      case '[]':
      case '[?]': {
        const [holder, index] = node.args;
        const held = follow(holder, variables);
        if (index.op === 'value' && typeof index.args === 'string') return held.map((path) => [...path, index.args as string]);
        read(follow(index, variables));
        return held;
      }
      case 'list':
        return partsOf(node.args).flatMap((item) => follow(item, variables));
      case '?:': {
        const [condition, yes, no] = node.args;
        read(follow(condition, variables));
        return [...follow(yes, variables), ...follow(no, variables)];
      }
      case 'rcall': {
        const [name, receiver, given] = node.args;
        const [variable, ...bodies] = given;
        if (name === 'bind' && receiver.op === 'id' && receiver.args === 'cel' && variable?.op === 'id') {
          const [bound, body] = bodies;
          if (bound === undefined || body === undefined) return [];
          return follow(body, new Map([...variables, [variable.args, follow(bound, variables)]]));
        }
        const held = follow(receiver, variables);
        if (overItems.has(name) && variable?.op === 'id') {
          const inner = new Map([...variables, [variable.args, held]]);
          const results = bodies.map((body) => follow(body, inner));
          const last = results.pop() ?? [];
          for (const result of results) read(result);
          if (name === 'map') return last;
          read(last);
          return keepsItems.has(name) ? held : [];
        }
        const others = given.flatMap((argument) => follow(argument, variables));
        if (passesOn.has(name)) return [...held, ...others];
        read(held);
        read(others);
        return [];
      }
      default: {
        for (const part of partsOf(node.args)) read(follow(part, variables));
        return [];
      }
    }
  };
  read(follow(ast, new Map()));
  return found;
}

/** The parts of an operation, of a list, of the entries of a map. */
function partsOf(args: unknown): ASTNode[] {
  if (Array.isArray(args)) return args.flatMap(partsOf);
  return typeof args === 'object' && args !== null && 'op' in args ? [args as ASTNode] : [];
}

/** The patterns that an expression matches texts against; undefined for one that is not written out. */
export function patternsIn(expression: string): (string | undefined)[] {
  const found: (string | undefined)[] = [];
  const look = (part: unknown): void => {
    if (Array.isArray(part)) part.forEach(look);
    else if (typeof part === 'object' && part !== null && 'op' in part) {
      const { op, args } = part as ASTNode;
      if (op === 'rcall' && args[0] === 'matches') {
        const [pattern] = args[2];
        found.push(pattern?.op === 'value' && typeof pattern.args === 'string' ? pattern.args : undefined);
      }
      look(args);
    }
  };
  try {
    look(environment.parse(withoutOptionalEntries(expression)).ast);
  } catch {
    // What is not well-formed is found by the check.
  }
  return found;
}

/** The names with which an expression’s paths begin. */
export const rootsOf = (expression: string): ReadonlySet<string> => new Set(pathsIn(expression).map(([root = '']) => root));
