import { own } from '../own.ts';
/**
 * Entries that may be absent, as CEL's optional syntax has them: `[?a, b]` and `{?"key": a, "other": b}` leave out what has no
 * value. The engine does not know the syntax. It gets a list of optional values, and a function of ours that takes from it
 * what is there.
 */

/** What becomes of a list and of a map with such entries; the functions are registered with all others. */
export const optionalEntryFunctions = { list: 'presentEntries', map: 'presentFields' } as const;

interface Entry {
  text: string;
  /** The key of a map. */
  key?: string;
  isOptional: boolean;
}

const quoted = /^(?:[rRbB]{0,2}(?:"""[^]*?"""|'''[^]*?'''|"(?:[^"\\]|\\.)*"|'(?:[^'\\]|\\.)*'))/;
/** Brackets in brackets, beyond which the engine refuses an expression too. */
const deepest = 200;
const closing: Readonly<Record<string, string>> = { '[': ']', '{': '}', '(': ')' };

/** An expression that means the same without such entries; the same text where it has none, or where it is not well-formed. */
export function withoutOptionalEntries(expression: string): string {
  if (!/[[{,]\s*\?/.test(expression)) return expression;
  const reader = new Reader(expression);
  const text = reader.upTo(undefined).text;
  return reader.isDone ? text : expression;
}

class Reader {
  readonly #source: string;
  #at = 0;
  #depth = 0;

  constructor(source: string) {
    this.#source = source;
  }

  get isDone(): boolean {
    return this.#at >= this.#source.length;
  }

  /** Reads to the end of an entry, or of everything: what closes or parts entries is left. */
  upTo(bracket: string | undefined): Entry {
    let text = '';
    let key: string | undefined;
    /** Question marks that wait for their colon. */
    let choices = 0;
    while (!this.isDone) {
      const rest = this.#source.slice(this.#at);
      const sign = this.#source[this.#at] ?? '';
      const [string] = quoted.exec(rest) ?? [];
      if (string !== undefined && !/\w$/.test(text)) {
        text += string;
        this.#at += string.length;
      } else if (sign in closing) {
        text += this.#brackets(sign, text);
      } else if (bracket !== undefined && (sign === ',' || sign === own(closing, bracket))) {
        break;
      } else if (bracket === '{' && sign === ':' && choices === 0 && key === undefined) {
        key = text;
        text = '';
        this.#at++;
      } else {
        if (sign === '?' && !text.endsWith('.')) choices++;
        if (sign === ':') choices--;
        text += sign;
        this.#at++;
      }
    }
    return { text, ...(key === undefined ? {} : { key }), isOptional: false };
  }

  /** Reads what stands in brackets. @param before what stands before them: after a value, they hold an index */
  #brackets(open: string, before: string): string {
    const start = this.#at++;
    if (this.#depth >= deepest) {
      this.#at = this.#source.length;
      return this.#source.slice(start);
    }
    this.#depth++;
    const isLiteral = open !== '(' && !/[\w)\]}"']\s*$/.test(before);
    const entries: Entry[] = [];
    for (;;) {
      const [blank = ''] = /^\s*/.exec(this.#source.slice(this.#at)) ?? [];
      const isOptional = isLiteral && this.#source[this.#at + blank.length] === '?';
      if (isOptional) this.#at += blank.length + 1;
      entries.push({ ...this.upTo(open), isOptional });
      if (this.isDone) return this.#source.slice(start);
      if (this.#source[this.#at++] !== ',') break;
    }
    this.#depth--;
    if (!entries.some((entry) => entry.isOptional))
      return open + entries.map(({ key, text }) => (key === undefined ? text : `${key}:${text}`)).join(',') + (own(closing, open) ?? '');
    const wrapped = (entry: Entry) => (entry.isOptional ? entry.text : `optional.of(${entry.text})`);
    // A comma may stand after the last entry.
    const given = entries.filter(({ text }) => text.trim() !== '');
    return open === '['
      ? `[${given.map(wrapped).join(',')}].${optionalEntryFunctions.list}()`
      : `[${given.map((entry) => `[${entry.key ?? ''},${wrapped(entry)}]`).join(',')}].${optionalEntryFunctions.map}()`;
  }
}
