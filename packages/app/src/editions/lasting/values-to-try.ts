import type { ParameterDeclaration } from '@pallmist/address/declare';
import type { CompiledParameter } from '@pallmist/address/pages';
import { shortestText } from '@pallmist/address/patterns';
import { resolveRelativeDate } from '@pallmist/address/declare';
import { pagesList } from './page-version.ts';
import type { AddressableApp } from '@pallmist/address/pages';

/** Characters that a text may have where its declaration sets no limit. */
const longestText = 2000;
/** Most values of one parameter that are tried. */
const mostValues = 120;

/**
 * Values that a parameter of an earlier edition accepts, chosen so that a change of its declaration shows in one of them:
 * each choice, the limits of both declarations and what lies beside them, a text that matches the earlier pattern and not
 * today's.
 * @param now today's declaration; missing where the parameter is gone
 */
export function valuesToTry(then: CompiledParameter, now: ParameterDeclaration | undefined, app: AddressableApp): unknown[] {
  const { declaration, plain } = then;
  const found = new Map<string, unknown>();
  const other = now ?? declaration;
  for (const value of [declaration.sample, ...ofType(declaration, other, app), then.fallback?.()]) {
    if (value === undefined || found.size >= mostValues) continue;
    const text = plain.write(value);
    if (text !== undefined && !found.has(text)) found.set(text, value);
  }
  return [...found.values()];
}

function ofType(then: ParameterDeclaration, now: ParameterDeclaration, app: AddressableApp): unknown[] {
  switch (then.type) {
    case 'text':
      return texts(then, now);
    case 'integer':
      return numbers(then, now, 1);
    case 'number':
      return [...numbers(then, now, 1), ...longNumbers];
    case 'boolean':
      return [true, false];
    case 'date':
      return dates(then, now);
    case 'datetime':
      return [then.min, then.max, '2026-11-19T10:30:00Z', '1999-12-31T23:59:59Z', '2026-11-19T10:30:00.123456789Z'];
    case 'choice':
      return choicesOf(then.of, app);
    case 'page':
      return choicesOf(pagesList, app);
    case 'colour':
      return ['#17695a', '#000000', '#ffffff'];
    case 'record':
      return keys(then, now, app);
    case 'sort': {
      const fields = then.fields ?? Object.keys(app.collections?.[then.of ?? '']?.fields ?? {});
      return [
        ...fields.flatMap((field) => [[{ field, descending: false }], [{ field, descending: true }]]),
        fields.slice(0, 2).map((field) => ({ field, descending: false })),
      ];
    }
    case 'range':
      return ranges(then, now);
    case 'list':
      return lists(then, now, app);
    case 'packed':
      return [then.default, {}, [], '', 'a', 0, true, null, { a: 1 }, [1, 2]];
    default:
      return [];
  }
}

function texts(then: ParameterDeclaration, now: ParameterDeclaration): unknown[] {
  const matched = [...(then.pattern === undefined ? [] : [then.pattern]), ...lengths(then)];
  const unmatched = (pattern: string | undefined) => (pattern === undefined ? [] : [shortestText(matched, [pattern])]);
  return [
    ...(now.type === 'text' ? unmatched(now.pattern) : [shortestText(matched), shortestText([...matched], ['[0-9]+'])]),
    shortestText(matched),
    ...beyondLimits(then, now, matched),
    ...(then.pattern === undefined ? ['a', 'moss', '0', '05', 'true', 'On', '2026-11-19', 'Ünal & Söhne', 'a,b', 'A-1', ' x '] : []),
    ...(then.blank === 'absent' ? [] : ['']),
  ];
}

/** A text that is longer than today's declaration takes, and one that is shorter: any other of that kind would be refused alike. */
function beyondLimits(then: ParameterDeclaration, now: ParameterDeclaration, matched: readonly string[]): unknown[] {
  const { minLength = 0, maxLength = longestText } = then;
  const ofLength = (from: number, to: number) =>
    from > to
      ? undefined
      : then.pattern === undefined
        ? 'a'.repeat(from)
        : shortestText([...matched, `[^]{${String(from)},${to === longestText ? '' : String(to)}}`]);
  // What other types take depends on more than their declarations.
  if (now.type !== 'text') return [ofLength(Math.min(maxLength, 1000), maxLength)];
  return [
    ...(now.maxLength === undefined ? [] : [ofLength(Math.max(now.maxLength + 1, minLength), maxLength)]),
    ...(now.minLength === undefined ? [] : [ofLength(Math.max(1, minLength), Math.min(now.minLength - 1, maxLength))]),
  ];
}

/** The lengths that a text may have, as a pattern. */
function lengths({ minLength = 0, maxLength }: ParameterDeclaration): string[] {
  if (minLength === 0 && maxLength === undefined) return [];
  return [`[^]{${String(minLength)},${maxLength === undefined ? '' : String(maxLength)}}`];
}

/** Fractions, among them those with the longest texts: a text of today may have a limit. */
const longNumbers = [0.5, -2.25, 1e-300, -2.2250738585072014e-308, 0.30000000000000004, -1.7976931348623157e308];

/** Among them at least two that the earlier declaration takes, where there are two: lists are made of them. */
function numbers(then: ParameterDeclaration, now: ParameterDeclaration, step: number): unknown[] {
  const limits = [then.min, then.max, now.min, now.max].filter((limit): limit is number => typeof limit === 'number');
  const [least, most] = [Number(then.min ?? -Infinity), Number(then.max ?? Infinity)];
  return [
    1,
    2,
    7,
    0,
    -1,
    ...limits.flatMap((limit) => [limit, limit - step, limit + step]),
    10,
    1000,
    123_456,
    Number.MAX_SAFE_INTEGER,
    Number.MIN_SAFE_INTEGER,
  ].filter((number) => number >= least && number <= most);
}

function dates(then: ParameterDeclaration, now: ParameterDeclaration): unknown[] {
  const limits = [then.min, then.max, now.min, now.max].filter((limit): limit is string => typeof limit === 'string');
  const fixed = limits.filter((limit) => /^\d{4}-/.test(limit));
  return [
    '2026-11-19',
    ...fixed.flatMap((day) => [day, resolveRelativeDate('today-1d', day), resolveRelativeDate('today+1d', day)]),
    '1999-12-31',
    '2050-02-28',
  ];
}

function choicesOf(list: string | undefined, { choices = {} }: AddressableApp): unknown[] {
  return Object.keys(choices[list ?? ''] ?? {});
}

function keys(then: ParameterDeclaration, now: ParameterDeclaration, { collections = {} }: AddressableApp): unknown[] {
  const shape = collections[then.of ?? ''];
  const field = shape?.fields[then.by ?? shape.keyField];
  const declared = {
    ...(field?.pattern === undefined ? {} : { pattern: field.pattern }),
    ...(field?.maxLength === undefined ? {} : { maxLength: field.maxLength }),
  };
  const matched = [...(field?.pattern === undefined ? [] : [field.pattern]), ...lengths({ type: 'text', ...declared })];
  const beyond = now.pattern === undefined ? [] : [shortestText(matched, [now.pattern])];
  return [...beyond, shortestText([...matched, '[^]+']), ...(field?.pattern === undefined ? ['moss', 'A-1', '7', 'Ünal'] : []), 1, 7];
}

function ranges(then: ParameterDeclaration, now: ParameterDeclaration): unknown[] {
  const ofEnds = { ...then, type: then.of ?? 'integer' };
  const ends = (
    then.of === 'date' ? dates(ofEnds, now) : [...numbers(ofEnds, now, 1), ...(then.of === 'number' ? longNumbers : [])]
  ).filter((end) => end !== undefined) as (number | string)[];
  const sorted = [...new Set(ends)].sort((one, other) => (one < other ? -1 : 1));
  const [first, last] = [sorted[0], sorted.at(-1)];
  return [...sorted.flatMap((end) => [{ from: end, to: end }, { from: end }, { to: end }]), { from: first, to: last }];
}

function lists(then: ParameterDeclaration, now: ParameterDeclaration, app: AddressableApp): unknown[] {
  const items = then.items ?? { type: 'text' };
  const found = ofType({ ...items }, { ...(now.items ?? items) }, app).filter((item) => item !== undefined && item !== '');
  const some = (count: number) => Array.from({ length: count }, (_, index) => found[index % Math.max(1, found.length)]);
  const counts = [then.minItems, then.maxItems, now.minItems, now.maxItems].filter((limit) => limit !== undefined);
  const near = [...new Set(counts.flatMap((count) => [count - 1, count, count + 1]))].filter((count) => count > 0 && count <= 60);
  return [
    ...found.map((item) => [item]),
    ...near.flatMap((count) => [
      some(count),
      some(count).map((item, index) => (typeof item === 'string' ? `${item}${String(index)}` : typeof item === 'number' ? index : item)),
    ]),
    some(2),
    found.slice(0, 3),
    // Twice the same: today each may have to be there once.
    ...found.map((item) => [item, item]),
    ['a,b', 'c'],
    [],
  ];
}
