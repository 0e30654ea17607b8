import { nearest, suggest } from '../../near.ts';
import { Corrected, DeclarationError, Refusal, type Codec, type ParameterType } from '../codec.ts';

/** One of the values of a choices list. Capitals do not matter where no two values differ only by them. */
export const choice: ParameterType = {
  attributes: ['of'],
  prepare({ of }, { choices }) {
    const list = of === undefined || !Object.hasOwn(choices, of) ? undefined : choices[of];
    if (of === undefined || list === undefined) {
      throw new DeclarationError(
        'of',
        of === undefined ? 'choices-missing' : 'unknown-choices',
        of === undefined ? 'A choice needs a choices list.' : `There is no choices list “${of}”.`,
        of === undefined ? 'Name one with “of”.' : suggest(of, Object.keys(choices)),
      );
    }
    const former = new Map<string, string>();
    for (const [value, definition] of Object.entries(list)) {
      for (const name of typeof definition === 'string' ? [] : (definition.formerly ?? [])) {
        if (!Object.hasOwn(list, name)) former.set(name, value);
      }
    }
    return oneOf(Object.keys(list), former);
  },
};

/** Reads and writes one of some values. @param former values of the past, with those that took their place */
export function oneOf(values: readonly string[], former: ReadonlyMap<string, string>): Codec {
  const exact = new Set(values);
  const folded = new Map<string, string | undefined>();
  for (const value of values) {
    const lower = value.toLowerCase();
    folded.set(lower, folded.has(lower) ? undefined : value);
  }
  return {
    read(text) {
      if (exact.has(text)) return text;
      const trimmed = text.trim();
      const today = former.get(trimmed);
      if (today !== undefined) return new Corrected(today, true);
      const meant = exact.has(trimmed) ? trimmed : folded.get(trimmed.toLowerCase());
      if (meant !== undefined) return new Corrected(meant);
      const near = nearest(text, values);
      return new Refusal('unknown-choice', `It is not one of the choices${near === undefined ? '' : `; perhaps “${near}” was meant`}.`);
    },
    write: (value) =>
      typeof value === 'string' && exact.has(value) ? value : new Refusal('unknown-choice', 'It is not one of the choices.'),
  };
}
