import type { z } from 'zod';
import { type PatchOperation, type Problem, quote, toPointer } from '@pallmist/address/declare';
import { nearest, suggest } from '@pallmist/address/explain';
import { componentKinds } from '../components/kinds.ts';
import { operatorFor, wordFor } from './common-slips.ts';
import { keysAt } from './keys-at.ts';
import { expressionExpected } from './schema-parts.ts';
import { operators } from './operators.ts';

const componentNames = componentKinds.map(({ name }) => name);

/** Says what Zod found in our own words, one problem for each thing that is wrong. */
export function shapeProblems(error: z.ZodError, data: unknown): Problem[] {
  const found = error.issues.flatMap((issue) => describe(issue, data));
  // A misspelt required key is unknown and missing at the same time. Report only the unknown key.
  const meant = new Set(found.flatMap(({ fix = [] }) => fix.flatMap((one) => (one.op === 'move' ? [one.path] : []))));
  return found.filter(({ code, pointer = '' }) => code !== 'missing-key' || !meant.has(pointer));
}

function describe(issue: z.core.$ZodIssue, data: unknown): Problem[] {
  const path = issue.path.map((key) => (typeof key === 'symbol' ? String(key) : key));
  const pointer = toPointer(path);
  const place = placeOf(path, data);
  const problem = (code: string, message: string, hint?: string, at = pointer): Problem => ({
    code,
    severity: 'error',
    message,
    ...(hint === undefined ? {} : { hint }),
    pointer: at,
  });
  switch (issue.code) {
    case 'unrecognized_keys':
      return issue.keys.map((key) =>
        looseText(key, valueAt(data, path))
          ? problem(
              'loose-text',
              `${quote(key)} stands by itself after a comma.`,
              'Put quotes around a text with a comma in it: between braces a comma begins the next key.',
              toPointer([...path, key]),
            )
          : {
              ...problem('unknown-key', `${place} has no “${key}”.`, near(key, path, data), toPointer([...path, key])),
              fix: fixUnknownKey(path, key, data),
            },
      );
    case 'invalid_type':
      return [
        valueAt(data, path) === undefined
          ? problem('missing-key', `${place} is missing.`, `Give it: ${article(issue.expected)}.`)
          : problem(
              'wrong-kind',
              `${place} should be ${article(issue.expected)}, not ${quote(valueAt(data, path))}.`,
              kindHint(issue.expected, valueAt(data, path), path),
            ),
      ];
    case 'invalid_value':
      return [wrongWord(pointer, place, issue.values, valueAt(data, path))];
    case 'invalid_union':
      // Of a component the name alone is wrong; of anything else, all that is known is that nothing fits.
      if (issue.discriminator === 'show') return [wrongComponent(path, data)];
      // A setting that may also be an expression: what is wrong with the setting.
      if (issue.errors[1]?.[0]?.message === expressionExpected)
        return (issue.errors[0] ?? []).flatMap((one) =>
          describe({ ...one, path: [...issue.path, ...one.path] }, data).map((found) =>
            looksLikeExpression(valueAt(data, path)) ? { ...found, hint: 'Put the expression in braces: "{…}".' } : found,
          ),
        );
      return [problem('wrong-kind', `${place} cannot be ${quote(valueAt(data, path))}.`, insteadOf(valueAt(data, path)))];
    case 'invalid_format':
      return [problem('wrong-form', `${place} cannot be ${quote(valueAt(data, path))}.`, `Expected: ${issue.message}.`)];
    case 'invalid_key':
      return [
        problem(
          'bad-name',
          `“${String(path.at(-1))}” cannot be a name here.`,
          `Expected: ${issue.issues[0]?.message ?? 'letters and digits'}.`,
        ),
      ];
    case 'too_small':
      return [problem('too-small', `${place} is too small or too short: at least ${String(issue.minimum)}.`)];
    case 'too_big':
      return [problem('too-large', `${place} is too large or too long: at most ${String(issue.maximum)}.`)];
    default:
      return [problem('wrong-kind', `${place} is not as it should be: ${issue.message}.`)];
  }
}

/** A key that is nearly one that may stand there takes its name; any other may be taken out. */
function fixUnknownKey(path: readonly (string | number)[], key: string, data: unknown): PatchOperation[] {
  const holder = valueAt(data, path);
  const meant = nearest(key, keysAt(path, data));
  const at = toPointer([...path, key]);
  if (meant === undefined || (typeof holder === 'object' && holder !== null && meant in holder)) return [{ op: 'remove', path: at }];
  return [{ op: 'move', from: at, path: toPointer([...path, meant]) }];
}

/** What to do where a value is of another kind than it should be. */
function kindHint(expected: string, given: unknown, path: readonly (string | number)[]): string | undefined {
  const key = path.at(-1);
  const list = path.at(-2);
  if (expected === 'array' && key === 'where') return 'Each condition is an entry with a field: [{ field: name, equals: "{param.q}" }].';
  if (expected === 'object' && list === 'columns') return `A column says what it shows: { field: ${String(given)} }.`;
  if (expected === 'array') return 'Begin each entry with “- ”, or put the whole in brackets.';
  if (expected === 'boolean') return 'Write true or false, without quotes.';
  if (expected === 'string' && typeof given === 'object') return insteadOf(given);
  if (expected === 'object' && typeof given === 'string' && given.startsWith('/'))
    return 'A link names its page rather than an address: { page: home, values: { … } }.';
  return undefined;
}

function near(key: string, path: readonly (string | number)[], data: unknown): string | undefined {
  const instead = path.at(-2) === 'where' || path.at(-2) === 'whereAny' ? operatorFor(key) : undefined;
  if (instead !== undefined) return `Write “${instead}”.`;
  if (path.at(-2) === 'where' || path.at(-2) === 'whereAny') return `A condition has “field” and one of: ${operators.join(', ')}.`;
  const hint = suggest(key, keysAt(path, data));
  return hint.startsWith('Did') ? hint : 'Take it out, or see the guide “The app file” for what may stand here.';
}

/** A word that is not one of those that may stand there. */
function wrongWord(pointer: string, place: string, values: readonly unknown[], given: unknown): Problem {
  const words = values.map(String);
  const wrong = typeof given === 'string' ? given : '';
  const known = wordFor(wrong, words);
  const meant = known ?? nearest(wrong, words);
  return {
    code: given === undefined ? 'missing-key' : 'unknown-word',
    severity: 'error',
    message: given === undefined ? `${place} is missing.` : `${place} cannot be ${quote(given)}.`,
    hint: known === undefined ? suggest(wrong, words) : `Write “${known}”.`,
    pointer,
    ...(meant === undefined ? {} : { fix: [{ op: 'replace', path: pointer, value: meant }] }),
  };
}

/** What is at a place, as people know it: a component by its kind, an entry of a list by its number. */
function placeOf(path: readonly (string | number)[], data: unknown): string {
  const last = path.at(-1);
  if (last === undefined) return 'The app file';
  if (typeof last === 'string') return `“${last}”`;
  const value = valueAt(data, path);
  const kind = typeof value === 'object' && value !== null && 'show' in value && typeof value.show === 'string' ? value.show : undefined;
  const list = path.findLast((key) => typeof key === 'string');
  return kind === undefined ? `Entry ${String(last + 1)} of “${list ?? ''}”` : `The component “${kind}”`;
}

/** Whether a text was probably meant to be evaluated. */
const looksLikeExpression = (given: unknown): boolean => typeof given === 'string' && /\b(?:param|record|row|person)\./.test(given);

/** A key with nothing behind it and blanks in it was part of a text. */
const looseText = (key: string, holder: unknown): boolean =>
  /\s/.test(key) && typeof holder === 'object' && holder !== null && (holder as Record<string, unknown>)[key] === null;

/** A component whose kind is missing or unknown. */
function wrongComponent(path: readonly (string | number)[], data: unknown): Problem {
  const pointer = toPointer(path);
  const given = valueAt(data, path);
  const component = path.at(-1) === 'show' ? valueAt(data, path.slice(0, -1)) : given;
  const at = path.at(-1) === 'show' ? path.slice(0, -1) : path;
  const keys = typeof component === 'object' && component !== null ? Object.keys(component) : [];
  if (!keys.includes('show')) {
    const misspelt = keys.find((key) => key.toLowerCase() === 'show' || key === 'type' || key === 'component');
    const named = keys.find((key) => componentNames.includes(key as never));
    const missing = (message: string, hint: string): Problem => ({
      code: 'missing-key',
      severity: 'error',
      message,
      hint,
      pointer: toPointer(at),
    });
    const place = placeOf(at, data);
    if (misspelt !== undefined)
      return {
        ...missing(`${place} has no “show”.`, `Write “show” instead of “${misspelt}”.`),
        fix: [{ op: 'move', from: toPointer([...at, misspelt]), path: toPointer([...at, 'show']) }],
      };
    if (named !== undefined) return missing(`${place} has no “show”.`, `Its kind stands behind “show”: { show: ${named}, … }.`);
    return missing(`${place} has no “show”.`, `Begin it with its kind, such as { show: heading, text: Welcome }.`);
  }
  return wrongWord(pointer, '“show”', componentNames, path.at(-1) === 'show' ? given : (given as { show?: unknown } | undefined)?.show);
}

/** How to write what was given, where an expression is due. */
function insteadOf(given: unknown): string {
  if (Array.isArray(given)) {
    const items = given.map((item) => (typeof item === 'string' ? `'${item.replaceAll("'", "\\'")}'` : String(item))).join(', ');
    return `Write a list as an expression: "{[${items}]}".`;
  }
  if (typeof given === 'object' && given !== null) return 'If it is an expression in braces, put quotes around it: "{param.q}".';
  return 'See the guide “The app file” for what may stand here.';
}

const article = (kind: string) =>
  ({
    string: 'a text',
    number: 'a number',
    int: 'a whole number',
    boolean: 'true or false',
    array: 'a list',
    object: 'a map of names',
    record: 'a map of names',
  })[kind] ?? kind;

function valueAt(data: unknown, path: readonly (string | number)[]): unknown {
  return path.reduce<unknown>(
    (value, key) => (typeof value === 'object' && value !== null ? (value as Record<string | number, unknown>)[key] : undefined),
    data,
  );
}
