import { PallmistError } from '../error.ts';
import type { Parameter } from '../parameter.ts';
import type { ChoicesLists, CollectionShape, ParameterDeclaration } from './declaration.ts';

/** What the types need to know of the app around a parameter. */
export interface CompileContext {
  choices: ChoicesLists;
  collections: Readonly<Record<string, CollectionShape>>;
  /** Names of the app's pages. */
  pages: readonly string[];
  /** IANA name of the app's time zone; UTC when left out. */
  timeZone?: string | undefined;
  /** Every type that is at hand, by name. */
  types: DeclaredTypes;
}

/** A type as an app file declares it. A new type is a file that exports one of these, and a line in `declare/types.ts`. */
export interface DeclaredType {
  /** The attributes, beyond those of every parameter, that this type understands. */
  attributes: readonly (keyof ParameterDeclaration)[];
  /** Whether a list may hold values of it. */
  inLists: boolean;
  /** Makes the parameter that the declaration describes. @throws DeclarationError where it contradicts itself or its compileContext */
  make(declaration: ParameterDeclaration, compileContext: CompileContext): Parameter;
}

export type DeclaredTypes = Readonly<Record<string, DeclaredType>>;

/** What is wrong in a declaration, with the attribute that is to blame. */
export class DeclarationError extends PallmistError {
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

/** Refuses limits that leave nothing in between. */
export function refuseCrossedLimits(least: number | string | undefined, most: number | string | undefined): void {
  if (least === undefined || most === undefined || least <= most) return;
  throw new DeclarationError(
    'min',
    'limits-cross',
    `Nothing is at least ${String(least)} and at most ${String(most)}.`,
    'Make min at most max.',
  );
}
