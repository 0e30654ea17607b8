import { Corrected, DeclarationError, isPlain, Refusal, type Codec, type ParameterType } from '../codec.ts';
import { rangeTypeNames, type RangeValue } from '../declaration.ts';
import { date } from './date.ts';
import { integer } from './integer.ts';
import { number } from './number.ts';

const types = { integer, number, date };
type End = number | string;

/** From one end to the other, both included, written `from..to`; `from..` and `..to` have an open end. */
export const range: ParameterType = {
  attributes: ['of', 'min', 'max'],
  prepare(declaration, surroundings) {
    const of = rangeTypeNames.find((name) => name === declaration.of);
    if (of === undefined) {
      const given = declaration.of === undefined ? 'nothing' : `“${declaration.of}”`;
      throw new DeclarationError('of', 'range-of', `A range cannot be of ${given}.`, `It can be of: ${rangeTypeNames.join(', ')}.`);
    }
    const { min, max } = declaration;
    const end = types[of].prepare({ type: of, min, max }, surroundings);
    const codec: Codec = {
      // Two texts are its two ends: a form without JavaScript sends them so.
      several: {
        joins: false,
        read: (texts) => {
          const read = codec.read(texts.length === 2 ? `${texts[0] ?? ''}..${texts[1] ?? ''}` : texts.join(','));
          return isPlain(read) && texts.length === 2 ? new Corrected(read) : read;
        },
        write(value) {
          const text = codec.write(value);
          return text instanceof Refusal ? text : [text];
        },
      },
      read(text) {
        if (text.length > 900) return new Refusal('too-long', 'The range is too long.');
        const trimmed = text.trim();
        const dots = trimmed.indexOf('..');
        // One value alone is the range from it to itself.
        const from = readEnd(dots === -1 ? trimmed : trimmed.slice(0, dots), end);
        const to = readEnd(dots === -1 ? trimmed : trimmed.slice(dots + 2), end);
        if (from instanceof Refusal) return from;
        if (to instanceof Refusal) return to;
        const value: RangeValue = {
          ...(from.value === undefined ? {} : { from: from.value }),
          ...(to.value === undefined ? {} : { to: to.value }),
        };
        const written = writeRange(value, end);
        if (written instanceof Refusal) return written;
        return written === text ? value : new Corrected(value);
      },
      write: (value) => (isRange(value) ? writeRange(value, end) : new Refusal('not-a-range', 'It is not a range with “from” and “to”.')),
    };
    return codec;
  },
};

function readEnd(text: string, codec: Codec): { value?: End } | Refusal {
  if (text === '') return {};
  const read = codec.read(text);
  if (read instanceof Refusal) return read;
  return { value: (isPlain(read) ? read : read.value) as End };
}

function writeRange({ from, to }: RangeValue, end: Codec): string | Refusal {
  if (from === undefined && to === undefined) return new Refusal('empty-range', 'The range has neither end.');
  if (from !== undefined && to !== undefined && from > to) return new Refusal('range-reversed', 'The range ends before it begins.');
  const first = from === undefined ? '' : end.write(from);
  const last = to === undefined ? '' : end.write(to);
  if (first instanceof Refusal) return first;
  return last instanceof Refusal ? last : `${first}..${last}`;
}

function isRange(value: unknown): value is RangeValue {
  return (
    typeof value === 'object' &&
    value !== null &&
    !Array.isArray(value) &&
    Object.keys(value).every((key) => key === 'from' || key === 'to')
  );
}
