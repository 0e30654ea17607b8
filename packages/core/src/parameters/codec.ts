import type { ParameterDeclaration, ParameterSurroundings, ParameterValue } from './declaration.ts';

/** Why a text or a value is not accepted: a stable code and a sentence that a visitor understands. */
export class Refusal {
  readonly code: string;
  readonly message: string;

  constructor(code: string, message: string) {
    this.code = code;
    this.message = message;
  }
}

/** A value that was understood although its text was not in the one written form. */
export class Corrected {
  readonly value: ParameterValue;
  /** The text was right in the past: the address is to be replaced by today's for good. */
  readonly former: boolean;

  constructor(value: ParameterValue, former = false) {
    this.value = value;
    this.former = former;
  }
}

/**
 * Turns the text of one declared parameter into its value and back.
 * For every value that `write` accepts, `read(write(value))` equals the value; `read` never throws.
 */
export interface Codec {
  /** @param text already percent-decoded, never empty unless `readsBlank` */
  read: (text: string) => ParameterValue | Corrected | Refusal;
  /** The one written form, not yet percent-encoded. @param value anything: callers may be mistaken */
  write: (value: unknown) => string | Refusal;
  /** Whether the empty text is a value of its own. */
  readsBlank?: boolean;
  /** For a value of several texts, which are joined with commas or repeated in an address. */
  several?: SeveralTexts | undefined;
}

/** How a value of several texts is read and written, each text decoded on its own, so that it may hold a comma. */
export interface SeveralTexts {
  /** False for a value that is one text when written, such as a range, and several only as a form sends it. */
  joins: boolean;
  /** @param texts already percent-decoded */
  read(texts: readonly string[]): ParameterValue | Corrected | Refusal;
  /** The written forms, not yet percent-encoded. */
  write(value: unknown): string[] | Refusal;
}

/** What `prepare` found wrong in a declaration, with the attribute that is to blame. */
export class DeclarationError extends Error {
  readonly attribute: keyof ParameterDeclaration;
  readonly code: string;
  readonly hint: string | undefined;

  constructor(attribute: keyof ParameterDeclaration, code: string, message: string, hint?: string) {
    super(message);
    this.attribute = attribute;
    this.code = code;
    this.hint = hint;
  }
}

/** One type of parameters. A new type is a new file that exports one of these, and a line in `types/index.ts`. */
export interface ParameterType {
  /** The attributes, beyond those of every parameter, that this type understands. */
  attributes: readonly (keyof ParameterDeclaration)[];
  /** @throws DeclarationError when the declaration contradicts itself or its surroundings */
  prepare(declaration: ParameterDeclaration, surroundings: ParameterSurroundings): Codec;
}

/** Every type that is at hand, by name; `packed` is missing where nobody needs it. */
export type ParameterTypes = Partial<Record<ParameterDeclaration['type'], ParameterType>>;

/** Whether what `read` gave is a value in its written form. */
export function isPlain(result: ParameterValue | Corrected | Refusal): result is ParameterValue {
  return !(result instanceof Corrected) && !(result instanceof Refusal);
}
