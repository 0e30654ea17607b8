import type { CelFunction } from './kind.ts';

/** A text by its Unicode code points, which CEL counts. */
const points = (text: string): string[] => [...text];
/** Most characters that a function makes: an address must not make a small expression a large text. */
const longest = 100_000;

function bounded(text: string): string {
  if (text.length > longest) throw new RangeError('The text is too long.');
  return text;
}

/** The string extension of CEL, as far as the engine does not have it. */
export const textFunctions: readonly CelFunction[] = [
  {
    name: 'charAt',
    signatures: ['string.charAt(int): string'],
    sentence: 'The character at a position, from 0; empty at the end.',
    example: ["'fern'.charAt(1)", 'e'],
    run(text: string, at: bigint) {
      const all = points(text);
      if (at < 0n || at > all.length) throw new RangeError('There is no such position.');
      return all[Number(at)] ?? '';
    },
  },
  {
    name: 'replace',
    signatures: ['string.replace(string, string): string', 'string.replace(string, string, int): string'],
    sentence: 'The text with each occurrence of a part replaced, or the first ones alone.',
    example: ["'moss, moss'.replace('moss', 'fern', 1)", 'fern, moss'],
    run(text: string, part: string, by: string, most = -1n) {
      const pieces = text.split(part);
      const kept = most < 0n ? pieces.length - 1 : Math.min(Number(most), pieces.length - 1);
      const length = text.length + kept * (by.length - part.length);
      if (length > longest) throw new RangeError('The text is too long.');
      return [...pieces.slice(0, kept).map((piece) => piece + by), pieces.slice(kept).join(part)].join('');
    },
  },
  {
    name: 'reverse',
    signatures: ['string.reverse(): string'],
    sentence: 'The text from its end to its beginning.',
    example: ["'fern'.reverse()", 'nref'],
    run: (text: string) => points(text).reverse().join(''),
  },
  {
    name: 'format',
    signatures: ['string.format(list): string'],
    sentence: 'The text with %s, %d and %.2f replaced by the values of a list; %% is a per cent sign.',
    example: ["'%s is %d m, or %.1f'.format(['Palm', 12, 12.25])", 'Palm is 12 m, or 12.3'],
    run(text: string, values: unknown[]) {
      let next = 0;
      return bounded(
        text.replace(/%(?:%|(?:\.(\d{1,2}))?([sdf]))/g, (_, digits: string | undefined, kind: string | undefined) => {
          if (kind === undefined) return '%';
          if (next >= values.length) throw new RangeError('The list has too few values.');
          const value = values[next++];
          if (kind === 's') return asText(value);
          if (typeof value !== 'bigint' && typeof value !== 'number') throw new TypeError('It is no number.');
          return kind === 'd' ? String(value) : Number(value).toFixed(digits === undefined ? 6 : Number(digits));
        }),
      );
    },
  },
  {
    name: 'quote',
    signatures: ['strings.quote(string): string'],
    sentence: 'The text in quotation marks, with what is special escaped.',
    example: ['strings.quote(\'say "moss"\')', '"say \\"moss\\""'],
    run: (_: unknown, text: string) => JSON.stringify(text),
  },
  {
    name: 'string',
    signatures: ['string(google.protobuf.Timestamp): string'],
    sentence: 'A moment as a text (RFC 3339).',
    example: ["string(timestamp('2026-03-21T11:00:00Z'))", '2026-03-21T11:00:00Z'],
    run: (moment: Date) => moment.toISOString().replace('.000Z', 'Z'),
  },
];

function asText(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(asText).join(', ')}]`;
  if (value instanceof Date) return value.toISOString().replace('.000Z', 'Z');
  if (value === null) return 'null';
  if (typeof value === 'string') return value;
  if (typeof value === 'number' || typeof value === 'bigint' || typeof value === 'boolean') return String(value);
  throw new TypeError('It cannot be written as a text.');
}
