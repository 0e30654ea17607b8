import type { AddressInfo } from 'node:net';
import express, { type ErrorRequestHandler, type Request } from 'express';
import { describe, expect, it } from 'vitest';
import { refusedHead } from '../src/http/door.ts';
import { headLimits } from '../src/http/limits.ts';
import { redirect } from '../src/http/location.ts';
import { isFromThisSite } from '../src/http/same-site.ts';

describe('the head of a request', () => {
  it.each([
    [headLimits.count, undefined],
    [headLimits.count + 1, 431],
    [10 * headLimits.count, 431],
  ])('with %i short fields is refused with %s', (count, status) => {
    const rawHeaders = Array.from({ length: count }, (_, index) => [`x${String(index)}`, 'a']).flat();
    expect(refusedHead({ url: '/', rawHeaders })?.status).toBe(status);
  });
});

it.each([
  ['same-origin', true],
  ['none', true],
  ['same-site', false],
  ['cross-site', false],
  ['', false],
  ['SAME-ORIGIN', false],
  ['something new', false],
])('a request of a page that is “%s” may change something: %s', (site, may) => {
  const request = {
    headers: { 'sec-fetch-site': site, host: 'quillmoor.example', origin: 'http://quillmoor.example' },
  } as unknown as Request;
  expect(isFromThisSite(request, 'http://quillmoor.example')).toBe(may);
});

it.each([
  ['/garden?q=a', 303],
  ['//evil.example', 400],
  ['/\\evil.example', 400],
  ['https://evil.example', 400],
  ['garden', 400],
  ['/a\r\nSet-Cookie: x=1', 400],
  ['', 400],
])('a redirect to %j answers %i', async (to, status) => {
  const app = express();
  app.get('/', (_, response) => {
    redirect(response, 303, to);
  });
  const answerError: ErrorRequestHandler = (error: { status?: number }, _request, response, next) => {
    if (response.headersSent) next(error);
    else response.status(error.status ?? 500).end();
  };
  app.use(answerError);
  const server = app.listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  const answer = await fetch(`http://127.0.0.1:${String((server.address() as AddressInfo).port)}/`, { redirect: 'manual' });
  expect([answer.status, answer.headers.get('location')]).toEqual([status, status === 303 ? to : null]);
  expect(answer.headers.get('set-cookie')).toBeNull();
  server.close();
});
