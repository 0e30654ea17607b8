import type { ParameterDeclaration } from '../declare/declaration.ts';
import { quote } from '../declare/problem.ts';
import type { CompiledParameter } from './compiled-app.ts';

/** Most choices that are named in a sentence. */
const mostNamed = 6;

/** Codes whose own sentence does not say what would be right. */
const vague: ReadonlySet<string> = new Set([
  'pattern-mismatch',
  'not-an-integer',
  'not-a-number',
  'not-a-boolean',
  'not-a-key',
  'too-small',
  'too-large',
  'too-early',
  'too-late',
  'unknown-choice',
  'range-of',
]);

/** Says a code in the language at hand. */
type Say = (code: string, data?: unknown) => string;

/** What a parameter takes, as a visitor reads it: “a whole number from 1 to 10”. Nothing where there is no more to say. */
export function expected({ declaration, parameter }: CompiledParameter, code: string, say: Say): string | undefined {
  return vague.has(code) ? inWords(declaration, parameter.of, say) : undefined;
}

function inWords(declaration: ParameterDeclaration, choices: unknown, say: Say): string | undefined {
  const { type, items, sample, min, max } = declaration;
  switch (type) {
    case 'integer':
    case 'number':
    case 'boolean':
    case 'date':
      return say(`expected-${type}`, [min, max]);
    case 'choice':
    case 'page':
      return oneOf(choices, say);
    case 'list':
      // What a list is of is the parameter of its items.
      return items === undefined ? undefined : itemsInWords(items, (choices as { of?: unknown } | undefined)?.of, say);
    default:
      return typeof sample === 'string' && sample !== '' ? say('expected-like', quote(sample, 60)) : undefined;
  }
}

function itemsInWords(items: NonNullable<ParameterDeclaration['items']>, choices: unknown, say: Say): string | undefined {
  const item = inWords({ ...items, type: String((items as { type?: string }).type) }, choices, say);
  return item === undefined ? undefined : say('expected-list', item);
}

function oneOf(choices: unknown, say: Say): string | undefined {
  const names = Array.isArray(choices) ? choices : typeof choices === 'object' && choices !== null ? Object.keys(choices) : [];
  const quoted = names.slice(0, mostNamed).map((name) => quote(name));
  return names.length === 0 ? undefined : say('expected-choice', [quoted, names.length - mostNamed]);
}
