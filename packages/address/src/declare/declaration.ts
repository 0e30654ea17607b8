import type { ChoiceDefinition, Range, SortKey } from '../values.ts';

/** Any JSON value. */
export type Json = null | boolean | number | string | Json[] | { [name: string]: Json };

/** A parameter's value as JavaScript sees it. Dates and times are texts as in RFC 3339. */
export type ParameterValue = string | number | boolean | readonly SortKey[] | readonly (string | number | boolean)[] | Range | Json;

/** Values by parameter name; an absent value is a name that is missing (or `undefined`). */
export type Values = Record<string, ParameterValue | undefined>;

/** What the app file, or code, says about one parameter. The attributes are those of the guide "Parameters". */
export interface ParameterDeclaration {
  /** The name of a type, such as `integer`. */
  type: string;
  /** For `choice` a choices list, for `record` and `sort` a collection, for `range` integer, number or date. */
  of?: string | undefined;
  /** For `record`: the unique field that names it in the address, instead of the collection's key. */
  by?: string | undefined;
  /** For `record`: fields of it, each with the parameter whose value it must have: the note must be one of this specimen. */
  tied?: Readonly<Record<string, string>> | undefined;
  /** For `list`: what its items are, declared as a parameter of a simple type is. */
  items?: ItemDeclaration | undefined;
  /** For `sort`: the fields one may sort by; all fields of the collection when left out. */
  fields?: readonly string[] | undefined;
  /** For `packed`: the JSON Schema (draft 2020-12) of the value. */
  schema?: unknown;
  required?: boolean | undefined;
  default?: unknown;
  /** What `?name=` means for a text or a list: the empty one, or absent. */
  blank?: 'empty' | 'absent' | undefined;
  min?: number | string | undefined;
  max?: number | string | undefined;
  minLength?: number | undefined;
  maxLength?: number | undefined;
  /** A regular expression (ECMA-262, flag `u`) that the whole text must match. */
  pattern?: string | undefined;
  minItems?: number | undefined;
  maxItems?: number | undefined;
  /** For `list`: no item twice. */
  unique?: boolean | undefined;
  ifWrong?: 'default' | 'refuse' | undefined;
  /** Whether a change is a step that Back undoes; true when left out. */
  step?: boolean | undefined;
  resets?: readonly string[] | undefined;
  /**
   * For parameters that the app declares for every page. `app`: every link in the app carries it on. `visit`: it is taken
   * from the address of arrival and remembered until the browser is closed.
   */
  reach?: 'page' | 'app' | 'visit' | undefined;
  /** Encrypted and authenticated in the address (JWE, RFC 7516); with `days`, of no use after so many. */
  sealed?: boolean | { days: number } | undefined;
  once?: boolean | undefined;
  share?: boolean | undefined;
  formerNames?: readonly string[] | undefined;
  /** Texts that the value had in the past, each with today's value: for a parameter whose type or choices have changed. */
  formerValues?: Readonly<Record<string, unknown>> | undefined;
  /** Texts of values that are no more, each with what to tell visitors. They are never read as a value again. */
  goneValues?: Readonly<Record<string, GoneValue>> | undefined;
  /** What links write when they give no value; the default stays what an address without one means. */
  inNewLinks?: unknown;
  /** false: addresses promise nothing about it, and publishing may change what it means. */
  lasting?: boolean | undefined;
  sample?: unknown;
  label?: string | undefined;
  help?: string | undefined;
}

/** What to tell visitors about a value that is no more. */
export interface GoneValue {
  /** A sentence, in place of “It was removed.” */
  reason?: string | undefined;
  /** The value, or its text, to go to instead. */
  instead?: unknown;
}

/** What the items of a list are. */
export interface ItemDeclaration extends Pick<ParameterDeclaration, 'of' | 'min' | 'max' | 'minLength' | 'maxLength' | 'pattern'> {
  type: string;
}

/** The app's choices lists by name. */
export type ChoicesLists = Readonly<Record<string, Readonly<Record<string, ChoiceDefinition>>>>;

/** The part of a collection that addresses depend on. */
export interface CollectionShape {
  /** The field whose value names a record in an address. */
  keyField: string;
  /** Fields that named its records in addresses in the past. */
  formerKeys?: readonly string[] | undefined;
  fields: Readonly<
    Record<
      string,
      { type: string; pattern?: string | undefined; maxLength?: number | undefined; formerNames?: readonly string[] | undefined }
    >
  >;
}
