import { corrected, refuse } from '../outcome.ts';
import type { Parameter } from '../parameter.ts';
import { decode, encode, standsAt } from '../percent.ts';
import { beginWriting, fragile, mayBreak } from '../travel.ts';

/** Most values that are compared one after the other where they stand; of more, the text is looked up. */
const mostCompared = 16;

/**
 * Reads and writes one of some values, such as the values of a choice. Capitals do not matter where no two values differ
 * only by them.
 * @param formerValues values of the past, with those that took their place
 */
export function oneOf<Value extends string>(
  values: readonly Value[],
  formerValues: Iterable<readonly [former: string, value: Value]>,
): Pick<Parameter<Value>, 'read' | 'write'> {
  beginWriting(false);
  const encoded = new Map<unknown, string>(values.map((value) => [value, encode(value)]));
  /** Whether one of them may be taken for the end of an address: it is encoded now, and written later. */
  const breaks = fragile;
  const asTheyAre = values.length > mostCompared ? [] : values.filter((value) => encoded.get(value) === value);
  let loose: ReturnType<typeof looseNames<Value>> | undefined;
  return {
    read(source, from, to) {
      for (const value of asTheyAre) if (value.length === to - from && standsAt(source, from, value)) return value;
      const given = decode(source, from, to);
      if (given === undefined) return undefined;
      if (encoded.has(given)) return given as Value;
      loose ??= looseNames(values, formerValues);
      const name = given.trim();
      const [value, former] = loose.get('=' + name) ?? loose.get(name.toLowerCase()) ?? [];
      return value === undefined ? refuse('unknown-choice', values) : corrected(value, former);
    },
    write: (value) => {
      if (breaks) mayBreak();
      return encoded.get(value) ?? refuse('unknown-choice', values);
    },
  };
}

/**
 * What a text stands for: by the name itself after “=”, else by the name in small letters, unless two differ only by
 * their capitals. Today's values go before those of the past.
 */
function looseNames<Value extends string>(values: readonly Value[], formerValues: Iterable<readonly [string, Value]>) {
  const names = new Map<string, readonly [value: Value | undefined, former: boolean]>();
  const add = (name: string, value: Value, former: boolean) => {
    const lower = name.toLowerCase();
    const held = names.get(lower);
    names.set(lower, [held?.[1] === former && held[0] !== value ? undefined : value, former]).set('=' + name, [value, former]);
  };
  for (const [name, value] of formerValues) add(name, value, true);
  for (const value of values) add(value, value, false);
  return names;
}
