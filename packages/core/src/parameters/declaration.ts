/** The types a parameter can have; each is described in the file of its name under `types/`. */
export const parameterTypeNames = [
  'text',
  'integer',
  'number',
  'boolean',
  'date',
  'datetime',
  'choice',
  'record',
  'page',
  'sort',
  'range',
  'list',
  'packed',
] as const;
export type ParameterTypeName = (typeof parameterTypeNames)[number];

/** The types whose values a list can hold. */
export const simpleTypeNames = ['text', 'integer', 'number', 'boolean', 'date', 'datetime', 'choice', 'record', 'page'] as const;
export type SimpleTypeName = (typeof simpleTypeNames)[number];

/** What a range can be of. */
export const rangeTypeNames = ['integer', 'number', 'date'] as const;

/** One key of a sort order. */
export interface SortKey {
  field: string;
  descending: boolean;
}

/** From one end to the other, both included; a missing end is open. */
export interface RangeValue<End extends number | string = number | string> {
  from?: End;
  to?: End;
}

/** Any JSON value. */
export type Json = null | boolean | number | string | Json[] | { [name: string]: Json };

/** A parameter's value as JavaScript sees it. Dates and times are texts as in RFC 3339. */
export type ParameterValue = string | number | boolean | SortKey[] | (string | number | boolean)[] | RangeValue | Json;

/** Values by parameter name; an absent value is a name that is missing (or `undefined`). */
export type Values = Record<string, ParameterValue | undefined>;

/** What the app file, or code, says about one parameter. The attributes are those of the guide "Parameters". */
export interface ParameterDeclaration {
  type: ParameterTypeName;
  /** For `choice` a choices list, for `record` and `sort` a collection, for `range` integer, number or date. */
  of?: string | undefined;
  /** For `record`: the unique field that names it in the address, instead of the collection's key. */
  by?: string | undefined;
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
  otherwise?: 'default' | 'refuse' | undefined;
  history?: 'step' | 'replace' | undefined;
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
  formerly?: readonly string[] | undefined;
  sample?: unknown;
  label?: string | undefined;
  help?: string | undefined;
}

/** What the items of a list are. */
export interface ItemDeclaration extends Pick<ParameterDeclaration, 'of' | 'min' | 'max' | 'minLength' | 'maxLength' | 'pattern'> {
  type: SimpleTypeName;
}

/** A choice: its label, or its label with the values that stood for it in the past. */
export type ChoiceDefinition = string | { label: string; formerly?: readonly string[] | undefined };

/** What the types need to know of the app around a parameter. */
export interface ParameterSurroundings {
  choices: Readonly<Record<string, Readonly<Record<string, ChoiceDefinition>>>>;
  collections: Readonly<Record<string, CollectionShape>>;
  /** Names of the app's pages. */
  pages: readonly string[];
}

/** The part of a collection that addresses depend on. */
export interface CollectionShape {
  key: string;
  fields: Readonly<Record<string, { type: string; pattern?: string | undefined; maxLength?: number | undefined }>>;
}
