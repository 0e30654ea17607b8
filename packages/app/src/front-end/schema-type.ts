import type { Schema } from '../json-schema/keywords.ts';
import { propertyName } from './literal.ts';

/** The TypeScript type of the values that a JSON Schema allows, as far as the schema says it in plain words. */
export function schemaType(schema: Schema | undefined): string {
  if (schema === undefined || typeof schema === 'boolean') return 'unknown';
  const {
    enum: values,
    type,
    items,
    properties,
    required = [],
    additionalProperties,
  } = schema as Record<string, unknown> & {
    required?: string[];
  };
  if (Array.isArray(values)) return values.map((value) => JSON.stringify(value)).join(' | ') || 'never';
  const types = Array.isArray(type) ? (type as string[]) : [type as string | undefined];
  return types
    .map((one) =>
      plainType(one, items as Schema | undefined, properties as Record<string, Schema> | undefined, required, additionalProperties),
    )
    .join(' | ');
}

function plainType(
  type: string | undefined,
  items: Schema | undefined,
  properties: Readonly<Record<string, Schema>> | undefined,
  required: readonly string[],
  additional: unknown,
): string {
  switch (type) {
    case 'string':
    case 'boolean':
    case 'null':
      return type;
    case 'integer':
    case 'number':
      return 'number';
    case 'array':
      return `readonly (${schemaType(items)})[]`;
    case 'object': {
      const parts = Object.entries(properties ?? {}).map(
        ([name, part]) => `${propertyName(name)}${required.includes(name) ? '' : '?'}: ${schemaType(part)}`,
      );
      if (parts.length === 0) return `Record<string, ${typeof additional === 'object' ? schemaType(additional as Schema) : 'unknown'}>`;
      return `{ ${parts.join('; ')} }`;
    }
    default:
      return 'unknown';
  }
}
