/**
 * Checks values of a type. The public types of this package come from it, so that the compiler does not have to read Zod's
 * types, for which it needs about three seconds.
 */
export interface Schema<Value> {
  safeParse(value: unknown): { success: true; data: Value } | { success: false };
}

/** The type of the values that a schema takes. */
export type TypeOf<Given> = Given extends Schema<infer Value> ? Value : never;
