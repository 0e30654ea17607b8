import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { ApiError, describeApi, operations, PallmistClient, SlowServiceError, UnreachableError } from '../src/index.ts';

/** A server that is not Pallmist, or not as the client knows it. */
let server: Server;
let base: string;
beforeAll(async () => {
  server = createServer((request, response) => {
    if (request.url?.includes('html')) response.end('<h1>Welcome to the printer</h1>');
    else if (request.url?.includes('other')) response.writeHead(200, { 'content-type': 'application/json' }).end('{"answer": 42}');
    else if (request.url?.includes('slow')) setTimeout(() => response.end(), 3000).unref();
    else response.writeHead(502).end('Bad gateway');
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  base = `http://127.0.0.1:${String((server.address() as AddressInfo).port)}`;
});
afterAll(() => {
  server.closeAllConnections();
  server.close();
});

const call = (app: string, options = {}) => new PallmistClient({ base, ...options }).call('readAddress', { app }, { address: '/' });

it.each(['html', 'other', 'down'])('an answer that is not Pallmist’s is an error in words: %s', async (app) => {
  const error = await call(app).catch((reason: unknown) => reason);
  expect(error).toBeInstanceOf(ApiError);
  expect((error as ApiError).message).toContain('not one of Pallmist’s');
});

it('a service that is slow is told from one that is not there', async () => {
  await expect(call('slow', { timeout: 50 })).rejects.toThrow(SlowServiceError);
  await expect(call('x', { base: 'http://127.0.0.1:9' })).rejects.toThrow(UnreachableError);
  await expect(call('x', { base: 'http://127.0.0.1:9' })).rejects.toThrow('There is no Pallmist service at http://127.0.0.1:9.');
});

it('every operation is described, with what it takes and gives', () => {
  const { paths } = describeApi('1') as {
    paths: Record<string, Record<string, { operationId: string; requestBody?: unknown; security?: unknown[] }>>;
  };
  const described = Object.values(paths)
    .flatMap((methods) => Object.values(methods))
    // The rest is streamed, or stands beside the interface.
    .filter(({ operationId }) => Object.hasOwn(operations, operationId));
  expect(described.map(({ operationId }) => operationId).sort()).toEqual(Object.keys(operations).sort());
  for (const { operationId, requestBody, security } of described) {
    const operation = operations[operationId as keyof typeof operations];
    expect(requestBody !== undefined).toBe(operation.body !== undefined);
    expect(security?.length).toBe(operation.access === 'open' ? 0 : 1);
  }
});
