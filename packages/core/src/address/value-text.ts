import { isPlain, Refusal, type Codec } from '../parameters/codec.ts';
import type { ParameterValue } from '../parameters/declaration.ts';
import { encode } from './percent.ts';

/** A value as it stands in an address, percent-encoded; a repeated list is joined with “&”, which no encoded text holds. */
export function encodeValue(codec: Codec, repeated: boolean, value: unknown): string | Refusal {
  if (codec.several?.joins !== true) {
    const text = codec.write(value);
    return text instanceof Refusal ? text : encode(text);
  }
  const texts = codec.several.write(value);
  if (texts instanceof Refusal) return texts;
  return texts.map(encode).join(repeated ? '&' : ',');
}

/** Reads what a person or the app file wrote for a value: the value itself, or its text. */
export function valueFrom(given: unknown, codec: Codec): ParameterValue | Refusal {
  if (typeof given === 'string') {
    if (given === '' && codec.readsBlank !== true) return new Refusal('blank', 'It is empty.');
    const read = codec.read(given);
    const value = read instanceof Refusal || isPlain(read) ? read : read.value;
    // A packed text may itself be the value.
    if (!(value instanceof Refusal)) return value;
    const itself = codec.write(given);
    return itself instanceof Refusal ? value : given;
  }
  const refused = codec.write(given);
  return refused instanceof Refusal ? refused : (given as ParameterValue);
}
