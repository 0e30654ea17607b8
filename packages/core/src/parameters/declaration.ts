/** The types a parameter can have; each is described in the file of its name under `types/`. */
export const parameterTypeNames = ['text', 'integer', 'boolean', 'date', 'choice', 'record', 'sort'] as const;
export type ParameterTypeName = (typeof parameterTypeNames)[number];

/** One key of a sort order. */
export interface SortKey {
  field: string;
  descending: boolean;
}

/** A parameter's value as JavaScript sees it. Dates are texts as in RFC 3339 `full-date`. */
export type ParameterValue = string | number | boolean | SortKey[];

/** Values by parameter name; an absent value is a name that is missing (or `undefined`). */
export type Values = Record<string, ParameterValue | undefined>;

/** What the app file, or code, says about one parameter. The attributes are those of the guide "Parameters". */
export interface ParameterDeclaration {
  type: ParameterTypeName;
  /** For `choice` a choices list, for `record` and `sort` a collection. */
  of?: string | undefined;
  /** For `sort`: the fields one may sort by; all fields of the collection when left out. */
  fields?: string[] | undefined;
  required?: boolean | undefined;
  default?: unknown;
  /** What `?name=` means for a text: the empty text, or absent. */
  blank?: 'empty' | 'absent' | undefined;
  min?: number | string | undefined;
  max?: number | string | undefined;
  minLength?: number | undefined;
  maxLength?: number | undefined;
  /** A regular expression (ECMA-262, flag `u`) that the whole text must match. */
  pattern?: string | undefined;
  otherwise?: 'default' | 'refuse' | undefined;
  history?: 'step' | 'replace' | undefined;
  resets?: string[] | undefined;
  share?: boolean | undefined;
  formerly?: string[] | undefined;
  sample?: unknown;
  label?: string | undefined;
  help?: string | undefined;
}

/** What the types need to know of the app around a parameter. */
export interface ParameterSurroundings {
  choices: Record<string, Record<string, string>>;
  collections: Record<string, CollectionShape>;
}

/** The part of a collection that addresses depend on. */
export interface CollectionShape {
  key: string;
  fields: Record<string, { type: string; pattern?: string | undefined; maxLength?: number | undefined }>;
}
