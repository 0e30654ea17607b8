import type { z } from 'zod';
import { type PatchOperation, type Problem, quote, toPointer } from '@pallmist/address/declare';
import { nearest, suggest } from '@pallmist/address/explain';
import { componentKinds } from '../components/kinds.ts';
import { appFileJsonSchema } from './app-file.ts';

let collectedKeys: string[] | undefined;

/** Every key of the app file, for “did you mean”. */
function knownKeys(): readonly string[] {
  if (collectedKeys === undefined) {
    const keys = new Set<string>();
    const collect = (schema: unknown) => {
      if (typeof schema !== 'object' || schema === null) return;
      if ('properties' in schema) for (const key of Object.keys(schema.properties as object)) keys.add(key);
      for (const part of Object.values(schema)) collect(part);
    };
    collect(appFileJsonSchema());
    collectedKeys = [...keys];
  }
  return collectedKeys;
}

const componentNames = componentKinds.map(({ name }) => name);

/** Says what Zod found in our own words, one problem for each thing that is wrong. */
export function shapeProblems(error: z.ZodError, data: unknown): Problem[] {
  return error.issues.flatMap((issue) => describe(issue, data));
}

function describe(issue: z.core.$ZodIssue, data: unknown): Problem[] {
  const path = issue.path.map((key) => (typeof key === 'symbol' ? String(key) : key));
  const pointer = toPointer(path);
  const place = path.length === 0 ? 'the app file' : `“${String(path.at(-1))}”`;
  const problem = (code: string, message: string, hint?: string, at = pointer): Problem => ({
    code,
    severity: 'error',
    message,
    ...(hint === undefined ? {} : { hint }),
    pointer: at,
  });
  switch (issue.code) {
    case 'unrecognized_keys':
      return issue.keys.map((key) => ({
        ...problem('unknown-key', `${place} has no “${key}”.`, near(key), toPointer([...path, key])),
        fix: fixUnknownKey(path, key, valueAt(data, path)),
      }));
    case 'invalid_type':
      return [
        valueAt(data, path) === undefined
          ? problem('missing-key', `${place} is missing.`, `Give it: ${article(issue.expected)}.`)
          : problem('wrong-kind', `${place} should be ${article(issue.expected)}, not ${quote(valueAt(data, path))}.`),
      ];
    case 'invalid_value':
      return [wrongWord(pointer, place, issue.values, valueAt(data, path))];
    case 'invalid_union':
      // Of a component the name alone is wrong; of anything else, all that is known is that nothing fits.
      if (issue.discriminator === 'show') return [wrongWord(pointer, place, componentNames, valueAt(data, path))];
      return [
        problem('wrong-kind', `${place} cannot be ${quote(valueAt(data, path))}.`, 'See the guide “The app file” for what may stand here.'),
      ];
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

/** A key that is nearly one that belongs there takes its name; any other is taken out. */
function fixUnknownKey(path: readonly (string | number)[], key: string, holder: unknown): PatchOperation[] {
  const meant = nearest(key, knownKeys());
  const at = toPointer([...path, key]);
  if (meant === undefined || (typeof holder === 'object' && holder !== null && meant in holder)) return [{ op: 'remove', path: at }];
  return [{ op: 'move', from: at, path: toPointer([...path, meant]) }];
}

function near(key: string): string | undefined {
  const hint = suggest(key, knownKeys());
  return hint.startsWith('Did') ? hint : 'Take it out, or see the guide “The app file” for what may stand here.';
}

/** A word that is not one of those that may stand there. */
function wrongWord(pointer: string, place: string, values: readonly unknown[], given: unknown): Problem {
  const words = values.map(String);
  const wrong = typeof given === 'string' ? given : '';
  const meant = nearest(wrong, words);
  return {
    code: given === undefined ? 'missing-key' : 'unknown-word',
    severity: 'error',
    message: given === undefined ? `${place} is missing.` : `${place} cannot be ${quote(given)}.`,
    hint: suggest(wrong, words),
    pointer,
    ...(meant === undefined ? {} : { fix: [{ op: 'replace', path: pointer, value: meant }] }),
  };
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
