import { PallmistError } from '@pallmist/address';

/** A part of a text: words as they stand, or a CEL expression. */
export type TextPart = { words: string } | { expression: string; start: number };

/** A text with an opening brace that is never closed. */
export class TextError extends PallmistError {
  readonly code = 'bad-braces';
}

const parsed = new Map<string, readonly TextPart[]>();
const mostKept = 5000;

/**
 * Takes apart a text that may hold CEL in braces. `{{` and `}}` stand for the braces themselves.
 * @throws TextError where a brace is not closed, or an expression is empty
 */
export function parseText(text: string): readonly TextPart[] {
  let parts = parsed.get(text);
  if (parts === undefined) {
    if (parsed.size >= mostKept) parsed.clear();
    parsed.set(text, (parts = takeApart(text)));
  }
  return parts;
}

function takeApart(text: string): TextPart[] {
  const parts: TextPart[] = [];
  let words = '';
  for (let i = 0; i < text.length; i++) {
    const sign = text[i] ?? '';
    if ((sign === '{' || sign === '}') && text[i + 1] === sign) {
      words += sign;
      i++;
    } else if (sign === '{') {
      const end = closingBrace(text, i + 1);
      const expression = text.slice(i + 1, end).trim();
      if (expression === '') throw new TextError('The braces hold no expression.');
      if (words !== '') parts.push({ words });
      words = '';
      parts.push({ expression, start: i + 1 });
      i = end;
    } else {
      words += sign;
    }
  }
  if (words !== '') parts.push({ words });
  return parts;
}

/** Finds the brace that closes an expression, past nested braces and quoted strings. */
function closingBrace(text: string, start: number): number {
  let depth = 1;
  let quoted: string | undefined;
  for (let i = start; i < text.length; i++) {
    const sign = text[i];
    if (quoted !== undefined) {
      if (sign === '\\') i++;
      else if (sign === quoted) quoted = undefined;
    } else if (sign === '"' || sign === "'") quoted = sign;
    else if (sign === '{') depth++;
    else if (sign === '}' && --depth === 0) return i;
  }
  throw new TextError('A brace “{” is not closed.');
}

/** The expressions that a text holds; none where its braces are wrong. */
export function expressionsOf(text: string): string[] {
  try {
    return parseText(text).flatMap((part) => ('expression' in part ? [part.expression] : []));
  } catch {
    return [];
  }
}

/** A text that stands as it is, braces and all. */
export const plainText = (text: string): string => text.replaceAll('{', '{{').replaceAll('}', '}}');
