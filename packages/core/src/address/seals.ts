import { Refusal, type Codec } from '../parameters/codec.ts';

/**
 * Opens and seals the texts of sealed parameters. What stands in an address is bound to one parameter of one page, so
 * that it is worth nothing anywhere else. Sealing is slow and needs a key, hence whoever implements this has it done
 * before: in a browser there is no key, only what the service has opened and sealed for this page.
 */
export interface Seals {
  /** @returns the text, or undefined for whatever reason it cannot be opened */
  open(page: string, parameter: string, sealed: string): string | undefined;
  /** @returns what is to stand in the address, or undefined where nothing was sealed for this text */
  seal(page: string, parameter: string, text: string): string | undefined;
}

/** One sentence for a changed, a foreign and an expired value: what was tried must not show. */
const notOpened = new Refusal('not-opened', 'It was cut or changed on its way, or it is no longer valid.');
const notSealed = new Refusal('not-sealed', 'There is no key here to seal it with.');

/** Wraps a codec so that its text stands sealed in the address. A value of several texts is sealed as one. */
export function sealedCodec(plain: Codec, seals: Seals | undefined, page: string, parameter: string): Codec {
  const several = plain.several?.joins === true ? plain.several : undefined;
  return {
    read(sealed) {
      const text = seals?.open(page, parameter, sealed);
      if (text === undefined) return notOpened;
      if (several === undefined) return text === '' && plain.readsBlank !== true ? notOpened : plain.read(text);
      return several.read(textsIn(text));
    },
    write(value) {
      const text = several === undefined ? plain.write(value) : several.write(value);
      if (text instanceof Refusal) return text;
      return seals?.seal(page, parameter, typeof text === 'string' ? text : JSON.stringify(text)) ?? notSealed;
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
