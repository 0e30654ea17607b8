/** One thing that is wrong with a value. Zod’s issues are of this form. */
export interface Issue {
  code: string;
  path: PropertyKey[];
  message: string;
}

/**
 * Checks values of a type. Operations are exported with this type instead of Zod's, which the compiler needs about three
 * seconds to read.
 */
export interface Schema<Value> {
  /** @throws where the value is none of the type */
  parse(value: unknown): Value;
  safeParse(value: unknown): { success: true; data: Value } | { success: false; error: { issues: Issue[] } };
}

/** The type of the values that a schema takes. */
export type TypeOf<Given> = Given extends Schema<infer Value> ? Value : never;
