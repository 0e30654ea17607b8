import { z } from 'zod';
import { apiBase, operations, type Operation } from './operations.ts';
import { problemDetails } from './schemas.ts';

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
      securitySchemes: { owner: { type: 'http', scheme: 'bearer', description: 'The token in the file api-token of the data directory' } },
    },
  };
}

function describe(name: string, operation: Operation): object {
  const names = [...operation.path.matchAll(/\{(\w+)\}/g)].map(([, parameter = '']) => parameter);
  return {
    operationId: name,
    summary: operation.summary,
    ...(operation.access === 'open' ? {} : { security: [{ owner: [] }] }),
    parameters: names.map((parameter) => ({ name: parameter, in: 'path', required: true, schema: { type: 'string' } })),
    ...(operation.body === undefined
      ? {}
      : { requestBody: { required: true, content: { 'application/json': { schema: jsonSchema(operation.body, 'input') } } } }),
    responses: {
      200: { description: 'Done', content: { 'application/json': { schema: jsonSchema(operation.answer, 'output') } } },
      default: { description: 'What was wrong', content: { 'application/problem+json': { schema: jsonSchema(problemDetails, 'output') } } },
    },
  };
}

function jsonSchema(schema: z.ZodType, io: 'input' | 'output'): object {
  const { $schema: _, ...rest } = z.toJSONSchema(schema, { io, reused: 'inline' });
  return rest;
}
