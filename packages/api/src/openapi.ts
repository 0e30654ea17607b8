import { z } from 'zod';
import { apiBase, operations, type Operation } from './operations.ts';
import { otherOperations, type OtherOperation } from './other-operations.ts';
import type { Schema } from './schema.ts';
import * as schemas from './schemas.ts';
import { scopes } from './scopes.ts';

/** The HTTP interface described in OpenAPI 3.1, made from the schemas that check every request. */
export function describeApi(version: string): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const [name, operation] of Object.entries(operations) as [string, Operation][]) {
    (paths[operation.path] ??= {})[operation.method] = describe(name, operation);
  }
  for (const operation of otherOperations) {
    const path = (paths[operation.path] ??= {});
    path[operation.method] = describeOther(operation);
    if (operation.atRoot === true) path['servers'] = [{ url: '/' }];
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Pallmist',
      version,
      description:
        'Reads and writes the addresses of published apps; keeps drafts, records and people; publishes editions. Errors are Problem Details (RFC 9457).',
      contact: { name: 'Pallmist', url: 'https://pallmist.example/' },
      license: { name: 'MIT', identifier: 'MIT' },
    },
    servers: [{ url: apiBase }],
    tags: [...new Set([...Object.values(operations), ...otherOperations].map(({ path }) => groupOf(path)))].map((name) => ({ name })),
    paths,
    components: {
      schemas: components(),
      securitySchemes: {
        token: {
          type: 'http',
          scheme: 'bearer',
          description: `The owner’s token, in the file api-token of the data directory, may do everything. A token made with a name may do what its scopes name:\n\n${Object.entries(
            scopes,
          )
            .map(([name, sentence]) => `- \`${name}\`: ${sentence}`)
            .join('\n')}`,
        },
      },
    },
  };
}

const callers: Readonly<Record<Operation['access'], string>> = {
  open: 'For everyone.',
  viewer: 'For builders, those who may only look too.',
  builder: 'For builders and the owner.',
  owner: 'For the owner.',
};

/** What all operations have. */
function common(
  name: string,
  { path, summary, access, scope, query = {} }: Pick<Operation, 'path' | 'summary' | 'access' | 'query'> & { scope?: string | undefined },
) {
  const names = [...path.matchAll(/\{(\w+)\}/g)].map(([, parameter = '']) => parameter);
  const tokens =
    access === 'open' ? '' : scope === undefined ? ' Tokens with scopes may not call it.' : ` A token with scopes needs \`${scope}\`.`;
  return {
    operationId: name,
    tags: [groupOf(path)],
    summary,
    description: callers[access] + tokens,
    security: access === 'open' ? [] : [{ token: [] }],
    parameters: [
      ...names.map((parameter) => ({ name: parameter, in: 'path', required: true, schema: { type: 'string' } })),
      ...Object.entries(query).map(([parameter, description]) => ({
        name: parameter,
        in: 'query',
        description,
        schema: { type: 'string' },
      })),
    ],
  };
}

const wrong = {
  description: 'What was wrong',
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/ProblemDetails' } } },
};

function describe(name: string, operation: Operation): object {
  return {
    ...common(name, operation),
    ...(operation.body === undefined
      ? {}
      : { requestBody: { required: true, content: { 'application/json': { schema: schemaOf(operation.body, 'input') } } } }),
    responses: {
      200: { description: 'Done', content: { 'application/json': { schema: schemaOf(operation.answer, 'output') } } },
      default: wrong,
    },
  };
}

function describeOther(operation: OtherOperation): object {
  const { sends, answers } = operation;
  const contents = (types: readonly string[]) => Object.fromEntries(types.map((type) => [type, {}]));
  return {
    ...common(operation.name, operation),
    ...(sends === undefined ? {} : { requestBody: { required: true, content: contents(sends) } }),
    responses: {
      200: {
        description: 'Done',
        content: 'schema' in answers ? { 'application/json': { schema: { $ref: reference(answers.schema) } } } : contents(answers),
      },
      default: wrong,
    },
  };
}

const groups = new Map(
  Object.entries({
    read: 'Addresses',
    write: 'Addresses',
    short: 'Addresses',
    draft: 'Drafts and editions',
    publish: 'Drafts and editions',
    editions: 'Drafts and editions',
    'try-as': 'Drafts and editions',
    pictures: 'Drafts and editions',
    records: 'Records',
    collections: 'Records',
    people: 'People',
    visits: 'People',
    mails: 'Mails',
    webhooks: 'Webhooks',
    keys: 'Keys and tokens',
    token: 'Keys and tokens',
    tokens: 'Keys and tokens',
    console: 'Console and builders',
    builders: 'Console and builders',
    '~': 'Service',
  }),
);

/** What an operation is about: the first word of its path after the app. */
function groupOf(path: string): string {
  const [first = '', ...words] = path.split('/').filter((word) => word !== '' && !word.startsWith('{'));
  return groups.get(first === 'apps' ? (words[0] ?? first) : first) ?? 'Apps';
}

/** Schemas that have a name: generated clients then have types of that name. */
const names = new Map<unknown, string>(
  Object.entries<unknown>(schemas)
    .filter(([, schema]) => schema instanceof z.ZodType)
    .map(([name, schema]) => [schema, name.charAt(0).toUpperCase() + name.slice(1)]),
);
/** Those that are sent; all others are answers. */
const sent = new Set<unknown>(Object.values(operations as Record<string, Operation>).map(({ body }) => body));
const reference = (name: string) => `#/components/schemas/${name}`;

function registryOf(io: 'input' | 'output') {
  const registry = z.registry<{ id: string }>();
  for (const [schema, id] of names) if (sent.has(schema) === (io === 'input')) registry.add(schema as z.ZodType, { id });
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

function schemaOf(schema: Schema<unknown>, io: 'input' | 'output'): object {
  const name = names.get(schema);
  if (name !== undefined) return { $ref: reference(name) };
  const { $schema: _, ...rest } = z.toJSONSchema(schema as z.ZodType, { io, reused: 'inline' });
  return rest;
}
