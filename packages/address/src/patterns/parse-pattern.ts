import { PallmistError } from '../error.ts';
/** What a regular expression is made of, as far as it can be matched in linear time. */
export type PatternNode =
  | { kind: 'empty' }
  /** One character, of those that a class, an escape or a letter stands for; its source matches it alone. */
  | { kind: 'character'; source: string }
  | { kind: 'sequence'; parts: PatternNode[] }
  | { kind: 'choice'; parts: PatternNode[] }
  | { kind: 'repeat'; part: PatternNode; least: number; most: number }
  | { kind: 'assertion'; of: 'start' | 'end' | 'boundary' | 'no-boundary' };

/** Something that no matcher of linear time can do. */
export class PatternNotLinear extends PallmistError {
  readonly code = 'pattern-not-linear';
}

/**
 * Takes a regular expression apart (ECMA-262, flag u).
 * @param source well-formed: the platform's own parser has taken it
 * @throws PatternNotLinear for what looks around or back
 */
export function parsePattern(source: string): PatternNode {
  let at = 0;
  const choice = (): PatternNode => {
    const parts = [sequence()];
    while (source[at] === '|') {
      at++;
      parts.push(sequence());
    }
    return parts.length === 1 ? (parts[0] as PatternNode) : { kind: 'choice', parts };
  };
  const sequence = (): PatternNode => {
    const parts: PatternNode[] = [];
    while (at < source.length && source[at] !== '|' && source[at] !== ')') parts.push(quantified(atom()));
    return parts.length === 1 ? (parts[0] as PatternNode) : parts.length === 0 ? { kind: 'empty' } : { kind: 'sequence', parts };
  };
  const quantified = (part: PatternNode): PatternNode => {
    const [sign, least = '', comma, most = ''] = /^(?:[*+?]|\{(\d+)(,?)(\d*)\})/.exec(source.slice(at, at + 30)) ?? [];
    if (sign === undefined) return part;
    at += sign.length;
    // Whether it takes much or little makes no difference to whether the whole text matches.
    if (source[at] === '?') at++;
    if (sign === '*') return { kind: 'repeat', part, least: 0, most: Infinity };
    if (sign === '+') return { kind: 'repeat', part, least: 1, most: Infinity };
    if (sign === '?') return { kind: 'repeat', part, least: 0, most: 1 };
    return { kind: 'repeat', part, least: Number(least), most: comma === '' ? Number(least) : most === '' ? Infinity : Number(most) };
  };
  const atom = (): PatternNode => {
    const sign = source[at] ?? '';
    if (sign === '(') return group();
    if (sign === '[') return { kind: 'character', source: take(classEnd()) };
    if (sign === '^' || sign === '$') {
      at++;
      return { kind: 'assertion', of: sign === '^' ? 'start' : 'end' };
    }
    if (sign !== '\\') return { kind: 'character', source: take(at + (String.fromCodePoint(source.codePointAt(at) ?? 0).length || 1)) };
    const next = source[at + 1] ?? '';
    if (next === 'b' || next === 'B') {
      at += 2;
      return { kind: 'assertion', of: next === 'b' ? 'boundary' : 'no-boundary' };
    }
    if (next === 'k' || /[1-9]/.test(next)) throw new PatternNotLinear('It refers back to what a group has matched.');
    return { kind: 'character', source: take(at + escapeLength()) };
  };
  const group = (): PatternNode => {
    const [opening = ''] = /^\((?:\?(?:<?[=!]|:|<[^>]*>))?/.exec(source.slice(at)) ?? [];
    if (/[=!]$/.test(opening)) throw new PatternNotLinear('It looks ahead or behind.');
    at += opening.length;
    const inner = choice();
    at++;
    return inner;
  };
  const take = (end: number) => {
    const taken = source.slice(at, end);
    at = end;
    return taken;
  };
  const classEnd = () => {
    let end = at + 1;
    while (source[end] !== ']') end += source[end] === '\\' ? 2 : 1;
    return end + 1;
  };
  const escapeLength = () => {
    const rest = source.slice(at, at + 40);
    const [escape = ''] =
      /^\\(?:[pP]\{[^}]*\}|u\{[^}]*\}|u[dD][89abAB][0-9a-fA-F]{2}\\u[dD][c-fC-F][0-9a-fA-F]{2}|u[0-9a-fA-F]{4}|x[0-9a-fA-F]{2}|c[A-Za-z]|.)/su.exec(
        rest,
      ) ?? [];
    return escape.length;
  };
  return choice();
}
