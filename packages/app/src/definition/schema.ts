/**
 * Checks values of a type. The public types of this package come from these: a compiler that reads them reads none of the
 * types of Zod, which take it some three seconds.
 */
export interface Schema<Value> {
  safeParse(value: unknown): { success: true; data: Value } | { success: false };
}

/** The type of the values that a schema takes. */
export type TypeOf<Given> = Given extends Schema<infer Value> ? Value : never;
