import { Validator, type Schema } from '@cfworker/json-schema';
import spectral, { type RulesetDefinition } from '@stoplight/spectral-core';
import rulesets from '@stoplight/spectral-rulesets';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startGarden, type TestService } from '../../../test/support/garden-service.ts';

// Both are CommonJS.
const { Spectral } = spectral;
const { oas } = rulesets;

interface Operation {
  operationId: string;
  summary: string;
  security?: object[];
  parameters: { name: string }[];
  requestBody?: { content: Record<string, { schema: Schema }> };
  responses: Record<string, { content: Record<string, { schema: Schema }> }>;
}
interface Description {
  paths: Record<string, Record<string, Operation>>;
  components: { schemas: Record<string, Schema> };
}

let service: TestService;
let description: Description;
let token: string;
beforeAll(async () => {
  service = await startGarden();
  token = service.token;
  description = (await (await fetch(`${service.base}/~/api/v1/openapi.json`)).json()) as Description;
});
afterAll(() => service.stop());

/** What stands for each parameter of a path. */
const names: Record<string, string> = {
  app: 'quillmoor',
  collection: 'houses',
  number: '1',
  mail: 'adopted',
  login: 'bruno',
  code: 'zzzzzzz',
  id: 'nothing',
};
/** Bodies that do something; every other operation is called with an empty one. */
const bodies: Record<string, object> = {
  readAddress: { address: '/garden/specimens?q=fern&page=0' },
  writeAddress: { page: 'specimens', values: { q: 'fern' } },
  makeShort: { address: '/garden/specimens?q=fern' },
  findRecords: { page: 1 },
  changeRecords: { changes: [] },
  tryAs: { login: null },
  invite: { role: 'viewer' },
};
/** Those that would end what the others need. */
const last = ['removePerson', 'renewToken', 'endSessions', 'leave'];

const operations = () =>
  Object.entries(description.paths)
    .filter(([path]) => !path.startsWith('/~'))
    .flatMap(([path, methods]) =>
      Object.entries(methods).map(([method, operation]) => ({
        method: method.toUpperCase(),
        path: path.replaceAll(/\{(\w+)\}/g, (_, name: string) => names[name] ?? name),
        operation,
      })),
    )
    // What is streamed has tests of its own.
    .filter(({ operation: { requestBody, responses } }) =>
      [...(requestBody === undefined ? [] : [requestBody]), responses['200']].every(
        (part) => part?.content['application/json']?.schema !== undefined,
      ),
    );
const call = (method: string, path: string, token: string | undefined, body?: unknown) =>
  fetch(`${service.base}/~/api/v1${path}`, {
    method,
    headers: {
      ...(token === undefined ? {} : { authorization: `Bearer ${token}` }),
      ...(body === undefined ? {} : { 'content-type': 'application/json' }),
    },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
/** What is wrong with a value by a schema of the description. */
const misfits = (schema: Schema, value: unknown) =>
  new Validator({ ...schema, components: description.components } as Schema, '2020-12', false)
    .validate(value)
    .errors.map(({ error, instanceLocation }) => `${instanceLocation} ${error}`);
const answerSchema = (operation: Operation, ok: boolean): Schema =>
  Object.values(operation.responses[ok ? '200' : 'default']?.content ?? {})[0]?.schema ?? {};

it('a linter for OpenAPI finds nothing', async () => {
  const linter = new Spectral();
  linter.setRuleset({ extends: [oas as RulesetDefinition] });
  const found = await linter.run(description as unknown as Record<string, unknown>);
  expect(found.map(({ code, path, message }) => `${String(code)} at ${path.join('/')}: ${message}`)).toEqual([]);
});

describe('the HTTP interface keeps to its description', () => {
  it('every operation answers as its schemas say, and every refusal as Problem Details', async () => {
    const order = operations().sort(
      (a, b) => Number(last.includes(a.operation.operationId)) - Number(last.includes(b.operation.operationId)),
    );
    const answered: string[] = [];
    for (const { method, path, operation } of order) {
      const { operationId } = operation;
      const body = operation.requestBody === undefined ? undefined : (bodies[operationId] ?? {});
      const response = await call(method, path, token, body);
      const answer: unknown = await response.json();
      if (path === '/token') ({ token } = answer as { token: string });
      const ok = response.status === 200;
      if (ok) answered.push(operationId);
      expect(response.status, `${operationId} ${JSON.stringify(answer)}`).toBeLessThan(500);
      expect(response.headers.get('content-type')).toContain(ok ? 'application/json' : 'application/problem+json');
      expect(misfits(answerSchema(operation, ok), answer), `${operationId} ${JSON.stringify(answer).slice(0, 300)}`).toEqual([]);
    }
    expect(answered.length).toBeGreaterThan(20);
  });

  it('who may not call an operation is told so, and nothing else', async () => {
    for (const { method, path, operation } of operations()) {
      if (operation.security?.length === 0) continue;
      const response = await call(method, path, 'guess', operation.requestBody === undefined ? undefined : {});
      expect([operation.operationId, response.status, response.headers.get('www-authenticate')]).toEqual([
        operation.operationId,
        401,
        'Bearer',
      ]);
      expect(misfits(answerSchema(operation, false), await response.json())).toEqual([]);
    }
  });

  it('a body of another kind is refused with a place, for every operation', async () => {
    for (const { method, path, operation } of operations()) {
      if (operation.requestBody === undefined) continue;
      const response = await call(method, path, token, { '~never': 1 });
      expect([operation.operationId, response.status]).toEqual([
        operation.operationId,
        expect.toSatisfy((status: number) => [400, 404].includes(status)),
      ]);
      expect(((await response.json()) as { detail: string }).detail).not.toMatch(/zod|invalid input|unrecognized|expected .* received/i);
    }
  });

  it('each operation has a name of its own, a sentence, and schemas that are there', () => {
    const all = operations().map(({ operation }) => operation);
    expect(new Set(all.map(({ operationId }) => operationId)).size).toBe(all.length);
    for (const { summary } of all) expect(summary).toMatch(/^[A-Z].*[.]$/s);
    for (const [, name = ''] of JSON.stringify(description).matchAll(/"#\/components\/schemas\/([^"]+)"/g))
      expect(Object.keys(description.components.schemas)).toContain(name);
  });
});
