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

/** What a parameter takes, as a visitor reads it: “a whole number from 1 to 10”. Nothing where there is no more to say. */
export function expected({ declaration, parameter }: CompiledParameter, code: string): string | undefined {
  return vague.has(code) ? inWords(declaration, parameter.of) : undefined;
}

function inWords(declaration: ParameterDeclaration, choices: unknown): string | undefined {
  const { type, items, sample } = declaration;
  switch (type) {
    case 'integer':
      return `a whole number${span(declaration)}`;
    case 'number':
      return `a number${span(declaration)}`;
    case 'boolean':
      return '“true” or “false”';
    case 'date':
      return `a date like 2026-03-21${span(declaration)}`;
    case 'choice':
    case 'page':
      return oneOf(choices);
    case 'list':
      return items === undefined ? undefined : itemsInWords(items, choices);
    default:
      return typeof sample === 'string' && sample !== '' ? `something like ${quote(sample, 60)}` : undefined;
  }
}

function itemsInWords(items: NonNullable<ParameterDeclaration['items']>, choices: unknown): string | undefined {
  const item = inWords({ ...items, type: String((items as { type?: string }).type) }, choices);
  return item === undefined ? undefined : `${item}, or several of them with commas between them`;
}

/** Where the limits are, beginning with a blank. */
function span({ min, max }: ParameterDeclaration): string {
  if (min !== undefined && max !== undefined) return ` from ${String(min)} to ${String(max)}`;
  if (min !== undefined) return `, ${String(min)} or more`;
  return max === undefined ? '' : `, ${String(max)} or less`;
}

function oneOf(choices: unknown): string | undefined {
  const names = Array.isArray(choices) ? choices : typeof choices === 'object' && choices !== null ? Object.keys(choices) : [];
  if (names.length === 0) return undefined;
  const [last = '', ...others] = names
    .slice(0, mostNamed)
    .map((name) => quote(name))
    .reverse();
  const more = names.length - mostNamed;
  if (more > 0) return `one of ${[...others.reverse(), last].join(', ')} and ${String(more)} others`;
  return others.length === 0 ? last : `${others.reverse().join(', ')} or ${last}`;
}
