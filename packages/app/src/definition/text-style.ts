import { Lexer } from 'yaml';

/** How a file writes what YAML leaves open. */
export interface TextStyle {
  /** Blanks inside of brackets and braces on one line. */
  paddedLists: boolean;
  paddedMaps: boolean;
  /** The quotes of texts that need some. */
  singleQuotes: boolean;
  /** Characters of the longest line with a list or map in brackets, and at least 120: longer ones are broken. */
  lineWidth: number;
}

const leastWidth = 120;
const greatestWidth = 300;

const count = (source: string, pattern: RegExp) => source.match(pattern)?.length ?? 0;

/** How a file is written; where it shows nothing, as most files are: [a, b], { a: 1 }. */
export const styleOf = (source: string): TextStyle => ({
  paddedLists: count(source, /[:,[-] \[ /g) > count(source, /[:,[-] \[[^\s\]]/g),
  paddedMaps: count(source, /[:,[-] \{ /g) >= count(source, /[:,[-] \{[^\s}]/g),
  singleQuotes: count(source, /[:,[{-] '/g) >= count(source, /[:,[{-] "/g),
  lineWidth: widthOf(source),
});

function widthOf(source: string): number {
  const lines = source.split('\n').filter((line) => /[\]}]\s*$/.test(line) && line.length <= greatestWidth);
  return lines.reduce((most, line) => Math.max(most, line.length), leastWidth);
}

/** Characters by which the lexer marks a document, a scalar and a flow that is not well-formed. */
const marks = new Set(['\u0002', '\u001f', '\u0018', '\uFEFF']);

/** A text as the YAML library writes it, padded, with the blanks of a style inside of brackets and braces. */
export function withStyle(text: string, { paddedLists, paddedMaps }: TextStyle): string {
  if (paddedLists && paddedMaps) return text;
  const isTight = (sign: string | undefined) =>
    ((sign === '[' || sign === ']') && !paddedLists) || ((sign === '{' || sign === '}') && !paddedMaps);
  const tokens = [...new Lexer().lex(text)].filter((token) => !marks.has(token));
  return tokens
    .filter((token, index) => {
      if (!/^ +$/.test(token)) return true;
      const [before, after] = [tokens[index - 1], tokens[index + 1]];
      const opens = (before === '[' || before === '{') && isTight(before);
      // On a line of its own, a bracket is indented.
      const closes = (after === ']' || after === '}') && isTight(after) && before !== undefined && !before.includes('\n');
      return !opens && !closes;
    })
    .join('');
}
