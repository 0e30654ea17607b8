import { declaredTextLimits } from '../declare/declared-text-limits.ts';
import type { DeclaredType } from '../declare/declared-type.ts';
import { refuse } from '../outcome.ts';
import { parameter, type CommonOptions, type Exactly, type Made } from '../parameter.ts';
import { decode, encode } from '../percent.ts';
import { limitText, type TextLimits } from './text-limits.ts';

/** Longest text that an address may carry in one parameter, in code points. */
const greatestLength = 2000;

export interface TextOptions extends CommonOptions<string>, TextLimits {
  /** What `?name=` means: the empty text, or that there is none; `empty` when left out. */
  blank?: 'empty' | 'absent' | undefined;
}

/** Any text, kept to the last character. */
export function text<const Options extends TextOptions = object>(options?: Exactly<Options, TextOptions>): Made<string, Options> {
  const accepts = limitText(options ?? {}, greatestLength);
  return parameter(
    'text',
    options,
    (source, from, to) => {
      const value = decode(source, from, to);
      return value !== undefined && accepts(value) ? value : undefined;
    },
    (value) => (typeof value !== 'string' ? refuse('not-a-text') : accepts(value) ? encode(value) : undefined),
    { blank: options?.blank !== 'absent' },
  );
}

/** `type: text` in an app file. */
export const declaredText: DeclaredType = {
  attributes: ['blank', 'minLength', 'maxLength', 'pattern'],
  inLists: true,
  make: (declaration) => text({ ...declaration, ...declaredTextLimits(declaration, greatestLength) } as TextOptions),
};
