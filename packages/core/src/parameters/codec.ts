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

  constructor(value: ParameterValue) {
    this.value = value;
  }
}

/**
 * Turns the text of one declared parameter into its value and back.
 * For every value that `write` accepts, `read(write(value))` equals the value; `read` never throws.
 */
export interface Codec {
  /** @param text already percent-decoded, never empty unless `readsBlank` */
  read(text: string): ParameterValue | Corrected | Refusal;
  /** The one written form, not yet percent-encoded. @param value anything: callers may be mistaken */
  write(value: unknown): string | Refusal;
  /** Whether the empty text is a value of its own. */
  readsBlank?: boolean;
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
