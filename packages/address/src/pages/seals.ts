import { joinItems } from '../joins.ts';
import { refuse } from '../outcome.ts';
import type { Parameter } from '../parameter.ts';
import { decode, decodeForShow, encode } from '../percent.ts';
import { presentSeals } from './call-context.ts';

/** The names of a page, or of a parameter: today's, by which values are sealed, and former ones, by which they still open. */
export type Names = readonly [today: string, ...former: string[]];

/** The same parameter with its text sealed in the address. A list is sealed as one: a JSON array of its items' texts. */
export function sealedParameter(plain: Parameter, pages: Names, parameters: Names): Parameter {
  const isList = plain.joins === joinItems;
  const open = (sealed: string) => {
    const seals = presentSeals();
    for (const page of pages)
      for (const parameter of parameters) {
        const text = seals?.open(page, parameter, sealed);
        if (text !== undefined) return text;
      }
    return undefined;
  };
  return {
    ...plain,
    blank: false,
    joins: undefined,
    read(source, from, to) {
      const sealed = decode(source, from, to);
      const text = sealed === undefined ? undefined : open(sealed);
      if (text === undefined || (text === '' && !plain.blank && !isList)) return sealed === undefined ? undefined : refuse('not-opened');
      const encoded = isList ? textsIn(text).map(encode).join(',') : encode(text);
      return plain.read(encoded, 0, encoded.length);
    },
    write(value) {
      const written = plain.write(value);
      if (written === undefined) return undefined;
      const text = isList ? JSON.stringify(written === '' ? [] : written.split(',').map(decodeForShow)) : decodeForShow(written);
      const sealed = presentSeals()?.seal(pages[0], parameters[0], text);
      return sealed === undefined ? refuse('not-sealed') : encode(sealed);
    },
  };
}

function textsIn(text: string): string[] {
  try {
    const parsed: unknown = JSON.parse(text);
    return Array.isArray(parsed) ? parsed.map(String) : [text];
  } catch {
    return [text];
  }
}
