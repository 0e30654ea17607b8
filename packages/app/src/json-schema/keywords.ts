import { own } from '../own.ts';
import type { Json } from '@pallmist/address/declare';

/** A JSON Schema (draft 2020-12). */
export type Schema = boolean | { [keyword: string]: Json };

const isCount = (value: Json) => typeof value === 'number' && Number.isInteger(value) && value >= 0;
const isNumber = (value: Json) => typeof value === 'number';
const isText = (value: Json) => typeof value === 'string';
const isTexts = (value: Json) => Array.isArray(value) && value.every(isText) && new Set(value).size === value.length;
const isMap = (value: Json): value is { [name: string]: Json } => typeof value === 'object' && value !== null && !Array.isArray(value);
const typeNames = ['null', 'boolean', 'object', 'array', 'number', 'string', 'integer'];
const isType = (value: Json) => typeof value === 'string' && typeNames.includes(value);

/** What a keyword’s value has to be, as the meta-schema has it. */
export interface Keyword {
  takes: string;
  is: (value: Json) => boolean;
  /** Where its value holds other schemas. */
  schemas?: 'one' | 'list' | 'map';
  /** Whether those are for the very value that the schema is for, and not for a part of it. */
  inPlace?: true;
}

const anything = { takes: 'anything', is: () => true };
const text = { takes: 'a text', is: isText };
const flag = { takes: 'true or false', is: (value: Json) => typeof value === 'boolean' };
const count = { takes: 'a whole number from 0', is: isCount };
const number = { takes: 'a number', is: isNumber };
const texts = { takes: 'a list of texts, none twice', is: isTexts };
const schema = { takes: 'a schema', is: (value: Json) => isMap(value) || typeof value === 'boolean', schemas: 'one' } as const;
const schemaList = { takes: 'a list of schemas', is: (value: Json) => Array.isArray(value) && value.length > 0, schemas: 'list' } as const;
const schemaMap = { takes: 'a map of schemas', is: isMap, schemas: 'map' } as const;
const inPlace = { inPlace: true } as const;

/** The keywords that are understood, each with what it takes. */
export const keywords: Readonly<Record<string, Keyword>> = {
  $schema: text,
  $id: text,
  $comment: text,
  $ref: text,
  $defs: schemaMap,
  title: text,
  description: text,
  default: anything,
  examples: { takes: 'a list', is: (value) => Array.isArray(value) },
  deprecated: flag,
  readOnly: flag,
  writeOnly: flag,
  format: text,
  contentEncoding: text,
  contentMediaType: text,
  type: {
    takes: `one of ${typeNames.join(', ')}, or a list of them`,
    is: (value) => isType(value) || (Array.isArray(value) && value.length > 0 && value.every(isType)),
  },
  enum: { takes: 'a list', is: (value) => Array.isArray(value) },
  const: anything,
  multipleOf: { takes: 'a number above 0', is: (value) => typeof value === 'number' && value > 0 },
  maximum: number,
  exclusiveMaximum: number,
  minimum: number,
  exclusiveMinimum: number,
  maxLength: count,
  minLength: count,
  pattern: text,
  maxItems: count,
  minItems: count,
  uniqueItems: flag,
  maxContains: count,
  minContains: count,
  maxProperties: count,
  minProperties: count,
  required: texts,
  dependentRequired: { takes: 'a map of lists of texts', is: (value) => isMap(value) && Object.values(value).every(isTexts) },
  prefixItems: schemaList,
  items: schema,
  contains: schema,
  properties: schemaMap,
  patternProperties: schemaMap,
  additionalProperties: schema,
  propertyNames: schema,
  dependentSchemas: { ...schemaMap, ...inPlace },
  allOf: { ...schemaList, ...inPlace },
  anyOf: { ...schemaList, ...inPlace },
  oneOf: { ...schemaList, ...inPlace },
  not: { ...schema, ...inPlace },
  if: { ...schema, ...inPlace },
  then: { ...schema, ...inPlace },
  else: { ...schema, ...inPlace },
};

/** Keywords of the draft that are not understood here. */
export const unsupported = new Set([
  'unevaluatedProperties',
  'unevaluatedItems',
  '$dynamicRef',
  '$dynamicAnchor',
  '$anchor',
  '$vocabulary',
  'contentSchema',
]);

/** The schemas that stand in the value of a keyword, each with its place below the schema. */
export function schemasIn(name: string, value: Json): [place: string, schema: Json][] {
  switch (own(keywords, name)?.schemas) {
    case 'one':
      return [[name, value]];
    case 'list':
      return Array.isArray(value) ? value.map((one, index) => [`${name}/${String(index)}`, one]) : [];
    case 'map':
      return isMap(value)
        ? Object.entries(value).map(([key, one]) => [`${name}/${key.replaceAll('~', '~0').replaceAll('/', '~1')}`, one])
        : [];
    default:
      return [];
  }
}
