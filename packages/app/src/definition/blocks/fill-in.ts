import { parseText, plainText, TextError } from '../../expressions/template-text.ts';

/** What a use of a block gives for each input that the block takes; undefined where it gives nothing. */
export type Inputs = ReadonlyMap<string, unknown>;

const alone = /^\{\s*block\.([A-Za-z_]\w*)\s*\}$/;
const isMap = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value);

/**
 * Fills the inputs of a block into a piece of its content. What is nothing but `{block.NAME}` becomes the value as it was
 * given, whatever it is: a text, the name of a parameter, a list of columns; where nothing was given, the key is left out, and
 * so is a component that is shown only when `has(block.NAME)`.
 * @param unknown told of each input that the block does not take
 */
export function fillIn(piece: unknown, inputs: Inputs, unknown: (name: string) => void): unknown {
  if (Array.isArray(piece))
    return piece.map((one) => fillIn(one, inputs, unknown)).filter((one) => one !== undefined && !isNeverShown(one));
  if (!isMap(piece)) return typeof piece === 'string' ? fillText(piece, inputs, unknown) : piece;
  const entries = Object.entries(piece).map(([key, value]): [string, unknown] =>
    key === 'when' && typeof value === 'string' ? [key, fillExpression(value, inputs, unknown)] : [key, fillIn(value, inputs, unknown)],
  );
  return Object.fromEntries(entries.filter(([, value]) => value !== undefined));
}

/** Whether a component waits for an input that this page does not give. */
const isNeverShown = (piece: unknown): boolean =>
  isMap(piece) &&
  typeof piece['show'] === 'string' &&
  /^false(?: &&(?:(?!\|\|).)*)?$/s.test(typeof piece['when'] === 'string' ? piece['when'] : '');

function fillText(text: string, inputs: Inputs, unknown: (name: string) => void): unknown {
  if (!text.includes('block.')) return text;
  const [, name] = alone.exec(text) ?? [];
  if (name !== undefined) return valueOf(name, inputs, unknown);
  try {
    return parseText(text)
      .map((part) => {
        if ('words' in part) return plainText(part.words);
        const [, only] = alone.exec(`{${part.expression}}`) ?? [];
        return only === undefined ? `{${fillExpression(part.expression, inputs, unknown)}}` : asText(valueOf(only, inputs, unknown));
      })
      .join('');
  } catch (error) {
    // The check says what is wrong with its braces.
    if (error instanceof TextError) return text;
    throw error;
  }
}

function valueOf(name: string, inputs: Inputs, unknown: (name: string) => void): unknown {
  if (!inputs.has(name)) unknown(name);
  return inputs.get(name);
}

/** A value within a text: a text brings its own expressions along. */
const asText = (value: unknown): string =>
  typeof value === 'string' ? value : value === undefined || value === null ? '' : plainText(JSON.stringify(value));

const quotedOrInput = /"(?:\\.|[^"\\])*"|'(?:\\.|[^'\\])*'|\bhas\(\s*block\.([A-Za-z_]\w*)\s*\)|(?<![\w.])block\.([A-Za-z_]\w*)/g;

/** An expression with the values of inputs in the place of their names. */
function fillExpression(expression: string, inputs: Inputs, unknown: (name: string) => void): string {
  return expression.replaceAll(quotedOrInput, (whole, asked: string | undefined, named: string | undefined) => {
    if (asked !== undefined) {
      const value = valueOf(asked, inputs, unknown);
      const path = typeof value === 'string' ? /^\{\s*([A-Za-z_]\w*(?:\.[A-Za-z_]\w*)+)\s*\}$/.exec(value)?.[1] : undefined;
      return path === undefined ? String(value !== undefined) : `has(${path})`;
    }
    return named === undefined ? whole : asExpression(valueOf(named, inputs, unknown));
  });
}

/** A value as CEL has it. */
function asExpression(value: unknown): string {
  if (value === undefined || value === null) return 'null';
  if (Array.isArray(value)) return `[${value.map(asExpression).join(', ')}]`;
  if (isMap(value))
    return `{${Object.entries(value)
      .map(([key, inner]) => `${JSON.stringify(key)}: ${asExpression(inner)}`)
      .join(', ')}}`;
  if (typeof value !== 'string') return JSON.stringify(value);
  if (!value.includes('{')) return JSON.stringify(value);
  try {
    const parts = parseText(value);
    const [only] = parts;
    if (parts.length === 1 && only && 'expression' in only) return `(${only.expression})`;
    if (parts.every((part) => 'words' in part)) return JSON.stringify(parts.map((part) => part.words).join(''));
    return `(${parts.map((part) => ('words' in part ? JSON.stringify(part.words) : `string(${part.expression})`)).join(' + ')})`;
  } catch (error) {
    if (error instanceof TextError) return JSON.stringify(value);
    throw error;
  }
}
