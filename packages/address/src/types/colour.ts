import type { DeclaredType } from '../declare/declared-type.ts';
import { corrected, refuse } from '../outcome.ts';
import { parameter, type CommonOptions, type Exactly, type Made } from '../parameter.ts';
import { decode } from '../percent.ts';

/** A colour, `#rrggbb` in small letters; in an address without the `#`, which would begin the fragment there. */
export function colour<const Options extends CommonOptions<string> = object>(
  options?: Exactly<Options, CommonOptions<string>>,
): Made<string, Options> {
  return parameter(
    'colour',
    options,
    (source, from, to) => {
      const given = decode(source, from, to);
      if (given === undefined) return undefined;
      const digits = /^\s*#?([0-9a-f]{6}|[0-9a-f]{3})\s*$/i.exec(given)?.[1]?.toLowerCase();
      if (digits === undefined) return refuse('not-a-colour');
      const value = '#' + (digits.length === 3 ? digits.replace(/./g, '$&$&') : digits);
      return value.slice(1) === given ? value : corrected(value);
    },
    (value) => (typeof value === 'string' && /^#[0-9a-f]{6}$/.test(value) ? value.slice(1) : refuse('not-a-colour')),
  );
}

/** `type: colour` in an app file. */
export const declaredColour: DeclaredType = { attributes: [], inLists: true, make: (declaration) => colour(declaration as object) };
