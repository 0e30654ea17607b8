import { z } from 'zod';
import { namePattern } from '@pallmist/address/declare';

/** A name in the app file: of a page, a collection, a field, a choices list. */
export const name = z.string().regex(namePattern, 'a name has letters, digits, “_” and “-”, and begins with a letter');

/** A field, or a field of the record that it refers to: house.name. */
export const path = z
  .string()
  .regex(
    new RegExp(`${namePattern.source.slice(0, -1)}(?:\\.${namePattern.source.slice(1, -1)})?$`),
    'a field, or a field of a reference as in house.name',
  );

/** A field, or a field of records that it leads to, over any number of references: house.zone.climate. */
export const fieldPath = z
  .string()
  .regex(
    new RegExp(`${namePattern.source.slice(0, -1)}(?:\\.${namePattern.source.slice(1, -1)}){0,4}$`),
    'a field, or a field of a reference as in house.name',
  );

/** Gives a schema a name, by which the app file’s JSON Schema refers to it and says more of it: see `editor-schema/`. */
export const named = <Schema extends z.ZodType>(schema: Schema, id: string) => schema.meta({ id });

/** A text that may hold CEL expressions in braces. */
export const text = named(z.string().max(20_000), 'text').describe(
  'Text; CEL expressions stand in braces, as in "Care log of {record.specimen.name}"',
);

/** An address template. */
export const template = named(z.string().max(500), 'template');

/** A regular expression. */
export const pattern = named(z.string().max(500), 'pattern');

/** A CEL expression that is true or false. */
export const condition = named(z.string().max(2000), 'condition').describe('CEL expression that gives true or false, as in "has(param.q)"');

/** A value: as it stands, or a whole CEL expression in braces, which keeps its type. */
export const value = z
  .union([named(z.string().max(2000), 'value'), z.number(), z.boolean()])
  .describe('A value, or one CEL expression in braces, as in "{row.accession}"');

/** What the schema says where a setting is neither one of its own values nor an expression. */
export const expressionExpected = 'one CEL expression in braces';

/** One CEL expression in braces. */
const onlyExpression = z
  .string(expressionExpected)
  .max(2000)
  .regex(/^\{(?!\{)[^]*\}$/, { error: expressionExpected, abort: true });

/** A setting: as it stands, or a CEL expression in braces that settles it for each view. */
export const orExpression = <Setting extends z.ZodType>(setting: Setting) => z.union([setting, onlyExpression]);

/** Whether a schema takes a setting or an expression, as `orExpression` makes it; gives that of the setting. */
export function settingOf(schema: z.core.$ZodType): z.core.$ZodType | undefined {
  return schema instanceof z.ZodUnion && schema.options[1] === onlyExpression ? schema.options[0] : undefined;
}

/** Values remembered for the visit that an address takes along. */
export const withVisit = z
  .union([z.literal(true), z.array(name).min(1)])
  .optional()
  .describe('Values remembered for the visit that go along where nothing else is stated: all, or those listed');

/** A destination page with values for its parameters. */
export const link = z.strictObject({
  page: name.describe('The page it leads to'),
  values: z.record(name, value).optional().describe('Values for the parameters of that page'),
  keep: z
    .union([z.literal(true), z.array(name).min(1)])
    .optional()
    .describe('Present values that go along, where that page has parameters of the same names: all, or those listed'),
  withVisit,
  window: z.enum(['same', 'new']).optional().describe('Where it opens; in the same window when left out'),
});
