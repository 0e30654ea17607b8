import type { DeclaredType } from '../declare/declared-type.ts';
import { corrected, refuse } from '../outcome.ts';
import { parameter, type CommonOptions, type Exactly, type Made } from '../parameter.ts';
import { decode, standsAt } from '../percent.ts';

/** Yes or no: written `true` and `false`; what forms and people write for it is understood. */
export function boolean<const Options extends CommonOptions<boolean> = object>(
  options?: Exactly<Options, CommonOptions<boolean>>,
): Made<boolean, Options> {
  return parameter(
    'boolean',
    options,
    (source, from, to) => {
      if (to - from === 4 && standsAt(source, from, 'true')) return true;
      if (to - from === 5 && standsAt(source, from, 'false')) return false;
      const given = decode(source, from, to)?.trim();
      if (given === undefined) return undefined;
      if (/^(?:true|1|on|yes)$/i.test(given)) return corrected(true);
      return /^(?:false|0|off|no)$/i.test(given) ? corrected(false) : refuse('not-a-boolean');
    },
    (value) => (typeof value === 'boolean' ? String(value) : refuse('not-a-boolean')),
  );
}

/** `type: boolean` in an app file. */
export const declaredBoolean: DeclaredType = { attributes: [], inLists: true, make: (declaration) => boolean(declaration as object) };
