import { z } from 'zod';
import { apiBase, operations, type Operation } from './operations.ts';
import * as schemas from './schemas.ts';
import { scopes } from './scopes.ts';

/** The HTTP interface described in OpenAPI 3.1, made from the schemas that check every request. */
export function describeApi(version: string): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const [name, operation] of Object.entries(operations) as [string, Operation][]) {
    (paths[operation.path] ??= {})[operation.method] = describe(name, operation);
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Pallmist',
      version,
      description:
        'Reads and writes the addresses of published apps; keeps drafts and publishes editions. Errors are Problem Details (RFC 9457).',
      license: { name: 'MIT', identifier: 'MIT' },
    },
    servers: [{ url: apiBase }],
    paths,
    components: {
      schemas: components(),
      securitySchemes: {
        token: {
          type: 'http',
          scheme: 'bearer',
          description: `The owner’s token, in the file api-token of the data directory, may do everything. A token made with a name may do what its scopes name:\n\n${Object.entries(scopes)
            .map(([name, sentence]) => `- \`${name}\`: ${sentence}`)
            .join('\n')}`,
        },
      },
    },
  };
}

function describe(name: string, operation: Operation): object {
  const names = [...operation.path.matchAll(/\{(\w+)\}/g)].map(([, parameter = '']) => parameter);
  return {
    operationId: name,
    summary: operation.summary,
    ...(operation.access === 'open' ? { security: [] } : { security: [{ token: operation.scope === undefined ? [] : [operation.scope] }] }),
    parameters: [
      ...names.map((parameter) => ({ name: parameter, in: 'path', required: true, schema: { type: 'string' } })),
      ...Object.entries(operation.query ?? {}).map(([parameter, description]) => ({
        name: parameter,
        in: 'query',
        description,
        schema: { type: 'string' },
      })),
    ],
    ...(operation.body === undefined
      ? {}
      : { requestBody: { required: true, content: { 'application/json': { schema: schemaOf(operation.body, 'input') } } } }),
    responses: {
      200: { description: 'Done', content: { 'application/json': { schema: schemaOf(operation.answer, 'output') } } },
      default: {
        description: 'What was wrong',
        content: { 'application/problem+json': { schema: schemaOf(schemas.problemDetails, 'output') } },
      },
    },
  };
}

/** Schemas that have a name: generated clients then have types of that name. */
const names = new Map<z.ZodType, string>(
  Object.entries(schemas as unknown as Record<string, z.ZodType>)
    .filter(([, schema]) => schema instanceof z.ZodType)
    .map(([name, schema]) => [schema, name.charAt(0).toUpperCase() + name.slice(1)]),
);
/** Those that are sent; all others are answers. */
const sent = new Set(Object.values(operations as Record<string, Operation>).map(({ body }) => body));
const reference = (name: string) => `#/components/schemas/${name}`;

function registryOf(io: 'input' | 'output') {
  const registry = z.registry<{ id: string }>();
  for (const [schema, id] of names) if (sent.has(schema) === (io === 'input')) registry.add(schema, { id });
  return registry;
}

function components(): Record<string, object> {
  const all: Record<string, object> = {};
  for (const io of ['input', 'output'] as const) {
    const { schemas: made } = z.toJSONSchema(registryOf(io), { io, uri: reference });
    for (const [name, { $schema: _, $id: __, ...schema }] of Object.entries(made)) all[name] = schema;
  }
  return Object.fromEntries(Object.entries(all).sort(([a], [b]) => (a < b ? -1 : 1)));
}

function schemaOf(schema: z.ZodType, io: 'input' | 'output'): object {
  const name = names.get(schema);
  if (name !== undefined) return { $ref: reference(name) };
  const { $schema: _, ...rest } = z.toJSONSchema(schema, { io, reused: 'inline' });
  return rest;
}
