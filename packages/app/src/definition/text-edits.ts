import { isScalar, Scalar } from 'yaml';

interface TextEdit {
  start: number;
  end: number;
  text: string;
}

/** What YAML reads as itself wherever it stands, without quotes. */
const plain = /^[A-Za-z_][\w.-]*(?: [\w.-]+)*$/;
const meansSomethingElse = /^(?:true|false|null|yes|no|on|off)$/i;

/**
 * Changes of a YAML file that touch nothing but words: names of keys, and values that are words or numbers. The rest of the
 * text stays as it was written, to the last blank.
 */
export class TextEdits {
  readonly #source: string;
  readonly #edits = new Map<number, TextEdit>();
  #gaveUp = false;

  constructor(source: string) {
    this.#source = source;
  }

  /** A change that adds, removes or moves something: then the whole file is written again. */
  giveUp(): void {
    this.#gaveUp = true;
  }

  /** @param node of the document as it was parsed; one that came in since has no place in the text */
  replaceScalar(node: unknown, value: unknown): void {
    const range = isScalar(node) ? node.range : undefined;
    const written = isScalar(node) ? writtenAs(node, value) : undefined;
    if (!range || written === undefined) this.giveUp();
    else this.#edits.set(range[0], { start: range[0], end: range[1], text: written });
  }

  /** The text with the changes; undefined where words alone do not do. */
  result(): string | undefined {
    if (this.#gaveUp) return undefined;
    let text = '';
    let at = 0;
    for (const edit of [...this.#edits.values()].sort((one, other) => one.start - other.start)) {
      text += this.#source.slice(at, edit.start) + edit.text;
      at = edit.end;
    }
    return text + this.#source.slice(at);
  }
}

/** A value in the quotes that the one before had; undefined where these cannot hold it. */
function writtenAs({ type }: Scalar, value: unknown): string | undefined {
  if (typeof value === 'number' || typeof value === 'boolean') return type === Scalar.PLAIN ? String(value) : undefined;
  if (typeof value !== 'string') return undefined;
  // A block would lose, or gain, line breaks at the ends.
  if (/^\s+$|^[\n\r]|[\n\r]{2}$/.test(value)) return JSON.stringify(value);
  if (/[\n\r]/.test(value)) return undefined;
  if (type === Scalar.QUOTE_SINGLE) return `'${value.replaceAll("'", "''")}'`;
  if (type === Scalar.QUOTE_DOUBLE) return JSON.stringify(value);
  if (type !== Scalar.PLAIN) return undefined;
  return plain.test(value) && !meansSomethingElse.test(value) ? value : JSON.stringify(value);
}
