import { z } from 'zod';
import type { ItemDeclaration, ParameterDeclaration } from '@pallmist/address/declare';
import { parameterTypeNames, simpleTypeNames } from '../types/names.ts';
import { name, named, pattern } from './schema-parts.ts';

const limit = z.union([z.number(), z.string()]);

const item = z.strictObject({
  type: z.enum(simpleTypeNames),
  of: name.optional(),
  min: limit.optional(),
  max: limit.optional(),
  minLength: z.number().int().min(0).optional(),
  maxLength: z.number().int().min(1).optional(),
  pattern: pattern.optional(),
}) satisfies z.ZodType<ItemDeclaration>;

/** A parameter's declaration in the app file. */
export const parameter = named(
  z.strictObject({
    type: z.enum(parameterTypeNames),
    of: name
      .optional()
      .describe('For a choice its choices list, for a record or a sort its collection, for a range: integer, number or date'),
    by: name.optional().describe('For a record: the unique field that names it, instead of the key'),
    tied: z
      .record(name, name)
      .optional()
      .describe('For a record: its fields, each with the parameter whose value it must have; any other record is refused'),
    fields: z.array(name).optional().describe('For a sort: the fields one may sort by'),
    items: item.optional().describe('For a list: what its items are'),
    schema: z.unknown().optional().describe('For a packed value: its JSON Schema (draft 2020-12)'),
    required: z.boolean().optional().describe('The page makes no sense without it'),
    default: z.unknown().optional().describe('The value when the address gives none; never written into an address'),
    blank: z.enum(['empty', 'absent']).optional().describe('For a text or a list: what “?name=” means; “empty” when left out'),
    min: limit.optional(),
    max: limit.optional(),
    minLength: z.number().int().min(0).optional().describe('In characters'),
    maxLength: z.number().int().min(1).optional().describe('In characters'),
    pattern: pattern.optional().describe('Regular expression (ECMA-262, flag u) that the whole text must match'),
    minItems: z.number().int().min(0).optional(),
    maxItems: z.number().int().min(1).optional(),
    unique: z.boolean().optional().describe('For a list: no item twice'),
    ifWrong: z.enum(['default', 'refuse']).optional().describe('For a refused value: go on with the default, or show an error page'),
    step: z.boolean().optional().describe('Whether a change of it is a step that Back undoes; true when left out'),
    resets: z.array(name).optional().describe('Parameters that return to their default when this one changes'),
    reach: z
      .enum(['page', 'app', 'visit'])
      .optional()
      .describe(
        'app, the default for the app’s own parameters: every link takes it along; visit: taken from the first address and kept for the visit',
      ),
    sealed: z
      .union([z.boolean(), z.strictObject({ days: z.number().min(0.01).max(3650).describe('How long it is valid') })])
      .optional()
      .describe('Encrypted and authenticated in the address'),
    once: z.boolean().optional().describe('Acts at arrival, then leaves the address'),
    share: z.boolean().optional().describe('false: left out of addresses made for sharing'),
    formerNames: z.array(name).optional().describe('Older names that still work'),
    formerValues: z
      .record(z.string().min(1).max(500), z.unknown())
      .optional()
      .describe('Texts that the value had in the past, each with today’s value'),
    goneValues: z
      .record(
        z.string().min(1).max(500),
        z.strictObject({
          reason: z.string().max(500).optional().describe('What visitors read, in place of “It was removed.”'),
          instead: z.unknown().optional().describe('The value to go to instead'),
        }),
      )
      .optional()
      .describe(
        'Texts of values that are no more: visitors are told so (410 where the page cannot do without), and nothing takes their place',
      ),
    inNewLinks: z
      .unknown()
      .optional()
      .describe('What links of the app write when they give no value; the default stays what an address without one means'),
    lasting: z.boolean().optional().describe('false: addresses promise nothing about it, such as the number of a page of a list'),
    sample: z.unknown().optional().describe('A value to see the page with while it is being built'),
    label: z.string().max(200).optional().describe('Its name for people'),
    help: z.string().max(2000).optional().describe('A sentence for people'),
  }),
  'parameter',
) satisfies z.ZodType<ParameterDeclaration>;
