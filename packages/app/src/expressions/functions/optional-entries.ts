import { Optional } from '@marcbachmann/cel-js';
import { optionalEntryFunctions } from '../optional-entries.ts';
import type { CelFunction } from './kind.ts';

/** What a list or a map has of an entry: nothing, or a value. */
function present<Value>(entry: unknown, made: (value: unknown) => Value): Value[] {
  if (!(entry instanceof Optional)) throw new TypeError('What stands behind “?” is not optional.');
  return entry.hasValue() ? [made(entry.value())] : [];
}

/** What the entries of optional syntax are made of; nobody writes these by hand. */
export const optionalEntries: readonly CelFunction[] = [
  {
    name: optionalEntryFunctions.list,
    signatures: [`list.${optionalEntryFunctions.list}(): list`],
    sentence: 'The values that are there.',
    example: ["[?optional.none(), 'fern']", ['fern']],
    run: (entries: unknown[]) => entries.flatMap((entry) => present(entry, (value) => value)),
  },
  {
    name: optionalEntryFunctions.map,
    signatures: [`list.${optionalEntryFunctions.map}(): map`],
    sentence: 'A map of the values that are there.',
    example: ["{?'a': optional.none(), 'b': 1}", { b: 1 }],
    run: (pairs: unknown[][]) => Object.fromEntries(pairs.flatMap(([key, entry]) => present(entry, (value) => [key as string, value]))),
  },
];
