import type { z } from 'zod';
import type { Schema } from './schema.ts';

/** Gives a schema the type that others see: the compiler writes the type of its values out in full. */
export const schemaFor = <Value>(schema: z.ZodType<Value>): Schema<Value> => schema;
