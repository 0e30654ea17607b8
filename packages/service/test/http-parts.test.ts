import { createServer } from 'node:http';
import { connect, type AddressInfo, type Socket } from 'node:net';
import { setTimeout as pause } from 'node:timers/promises';
import fc from 'fast-check';
import type { Request } from 'express';
import { describe, expect, it } from 'vitest';
import type { HostedApp } from '../src/apps/hosted-app.ts';
import { AttemptLimit } from '../src/http/attempt-limit.ts';
import { LoadGuard } from '../src/http/load-guard.ts';
import { Origins } from '../src/http/origins.ts';
import { isFromThisSite } from '../src/http/same-site.ts';
import { endUnreadAnswers } from '../src/http/unread-answers.ts';
import { PageCache } from '../src/pages/page-cache.ts';
import type { Admitted } from '../src/pages/steps.ts';
import { passwordProblem } from '../src/people/password-rule.ts';
import { PasswordTurns } from '../src/people/password-turns.ts';
import { depthOf } from '../src/http/json-depth.ts';
import { staysHere } from '../src/http/location.ts';
import { often } from '../../../test/support/often.ts';

describe('a limit on attempts', () => {
  it('allows at most so many in each window, whenever they come', () => {
    fc.assert(
      fc.property(fc.array(fc.nat({ max: 40 }), { maxLength: 200 }), fc.integer({ min: 1, max: 5 }), (pauses, most) => {
        let now = 0;
        const limit = new AttemptLimit({ window: 100, most }, () => now);
        let began = -Infinity;
        let count = 0;
        for (const wait of pauses) {
          now += wait;
          if (now - began >= 100) [began, count] = [now, 0];
          count++;
          expect(limit.isReached('one')).toBe(count > most);
        }
        expect(limit.isReached('another')).toBe(false);
      }),
    );
  });

  it('does not count an attempt that was right, and says beforehand when it is full', () => {
    const limit = new AttemptLimit({ window: 100, most: 2 }, () => 0);
    for (let time = 0; time < 10; time++) {
      expect(limit.isReached('a')).toBe(false);
      limit.forgive('a');
    }
    limit.isReached('a');
    expect(limit.isFull('a')).toBe(false);
    limit.isReached('a');
    expect(limit.isFull('a')).toBe(true);
  });
});

describe('a request that changes something', () => {
  it.each([
    [{ 'sec-fetch-site': 'same-origin' }, undefined, true],
    [{ 'sec-fetch-site': 'none' }, undefined, true],
    [{ 'sec-fetch-site': 'same-site', origin: 'http://garden.example' }, undefined, false],
    [{ 'sec-fetch-site': 'cross-site' }, undefined, false],
    [{ origin: 'http://garden.example', host: 'garden.example' }, undefined, true],
    [{ origin: 'http://garden.example:81', host: 'garden.example' }, undefined, false],
    [{ origin: 'null', host: 'garden.example' }, undefined, false],
    [{ origin: 'https://garden.example', host: '127.0.0.1:4680' }, 'https://garden.example/', true],
    [{ origin: 'http://127.0.0.1:4680', host: '127.0.0.1:4680' }, 'https://garden.example/', false],
    [{}, undefined, true],
  ])('with %j and the public URL %s comes from this site: %s', (headers, publicUrl, expected) => {
    const request = { headers } as unknown as Request;
    const origins = new Origins({ publicUrl, draftUrl: undefined, host: '127.0.0.1' });
    expect(isFromThisSite(request, origins.reached(request, false))).toBe(expected);
  });
});

describe('drawn pages', () => {
  const app = () => ({}) as HostedApp;
  const admitted = (circumstances: object) => ({ requestContext: circumstances }) as Admitted;

  it('are kept for the address, the kind and the person, until the records or the edition change', () => {
    const cache = new PageCache();
    const garden = app();
    const key = PageCache.keyOf('document', '/garden', admitted({ today: '2026-11-25' }));
    cache.keep(garden, 1, key, 'page');
    expect(cache.find(garden, 1, key)).toBe('page');
    for (const other of [
      PageCache.keyOf('data', '/garden', admitted({ today: '2026-11-25' })),
      PageCache.keyOf('document', '/garden?q=x', admitted({ today: '2026-11-25' })),
      PageCache.keyOf('document', '/garden', admitted({ today: '2026-11-26' })),
      PageCache.keyOf('document', '/garden', admitted({ today: '2026-11-25', person: { login: 'ansa' } })),
    ])
      expect(cache.find(garden, 1, other)).toBeUndefined();
    expect(cache.find(app(), 1, key)).toBeUndefined();
    expect(cache.find(garden, 2, key)).toBeUndefined();
  });

  it('that were drawn from older records are not kept', () => {
    const cache = new PageCache();
    const garden = app();
    expect(cache.find(garden, 2, 'k')).toBeUndefined();
    cache.keep(garden, 1, 'k', 'old');
    expect([cache.find(garden, 1, 'k'), cache.find(garden, 2, 'k')]).toEqual([undefined, undefined]);
  });

  it('take no more memory than they may: the page that was not asked for goes first', () => {
    const cache = new PageCache();
    const garden = app();
    const large = 'x'.repeat(6_000_000);
    for (const key of ['a', 'b', 'c']) cache.keep(garden, 1, key, large);
    cache.find(garden, 1, 'a');
    cache.keep(garden, 1, 'd', large);
    expect(['a', 'b', 'c', 'd'].map((key) => cache.find(garden, 1, key) !== undefined)).toEqual([true, false, true, true]);
  });
});

describe('the guard against too much load', () => {
  it('works on no more at a time than it may, and on every request in its turn', async () => {
    const guard = new LoadGuard(3);
    let underWay = 0;
    let most = 0;
    const done: number[] = [];
    const work = (index: number) =>
      guard.during(async () => {
        most = Math.max(most, ++underWay);
        await pause(2);
        underWay--;
        done.push(index);
      });
    const results = await Promise.all(Array.from({ length: 12 }, (_, index) => work(index)));
    guard.close();
    expect(new Set(results)).toEqual(new Set(['worked']));
    expect(most).toBeLessThanOrEqual(3);
    expect([...done].sort((one, other) => one - other)).toEqual(Array.from({ length: 12 }, (_, index) => index));
  });

  it('goes on after work that fails', async () => {
    const guard = new LoadGuard(1);
    await expect(guard.during(() => Promise.reject(new Error('broken')))).rejects.toThrow('broken');
    expect(await guard.during(() => Promise.resolve())).toBe('worked');
    guard.close();
  });
});

it.each([
  ['short', /at least 8 characters/],
  ['🌿🌿🌿🌿🌿🌿🌿', /at least 8 characters/],
  ['x'.repeat(201), /at most 200 characters/],
  ['Password1', /too common/],
  ['abababababab', /too common/],
  ['Ansa Wetherel', /same as the name/],
  ['moss-and-quill', undefined],
  ['сосны и папоротники', undefined],
])('the password %j is refused for: %s', (password, reason) => {
  const problem = passwordProblem(password, ['ansa', 'ansa wetherel']);
  if (reason === undefined) expect(problem).toBeUndefined();
  else expect(problem).toMatch(reason);
});

describe('turns of password checks', () => {
  const from = (ip: string) => ({ ip }) as Request;

  it('alternate between networks, however many checks one network asks for', async () => {
    const turns = new PasswordTurns();
    const order: string[] = [];
    const check = (ip: string) =>
      turns.during(from(ip), async () => {
        await pause(1);
        order.push(ip);
      });
    const many = Array.from({ length: 12 }, () => check('192.0.2.1'));
    await Promise.all([...many, check('192.0.2.2'), check('192.0.2.3')]);
    // Two of the first network were under way already, and one had its turn before.
    expect(order.indexOf('192.0.2.2')).toBeLessThanOrEqual(4);
    expect(order.indexOf('192.0.2.3')).toBeLessThanOrEqual(4);
    expect(order).toHaveLength(14);
  });

  it('are refused where too many of a network wait, and go on after failures', async () => {
    const turns = new PasswordTurns();
    const fail = () => turns.during(from('192.0.2.1'), () => Promise.reject(new Error('no')));
    const outcomes = await Promise.allSettled(Array.from({ length: 20 }, fail));
    expect(outcomes.filter(({ status }) => status === 'rejected')).toHaveLength(12);
    expect(outcomes.filter((outcome) => outcome.status === 'fulfilled' && outcome.value === 'too-many')).toHaveLength(8);
    expect(await turns.during(from('192.0.2.1'), () => Promise.resolve('done'))).toBe('done');
  });
});

it('the depth of a JSON text is that of its value', () => {
  const depthOfValue = (value: unknown): number =>
    typeof value === 'object' && value !== null ? 1 + Math.max(0, ...Object.values(value).map(depthOfValue)) : 0;
  fc.assert(
    fc.property(fc.jsonValue({ maxDepth: 6 }), (value) => {
      expect(depthOf(JSON.stringify(value))).toBe(depthOfValue(value));
    }),
  );
  expect(depthOf('['.repeat(100_000))).toBe(100_000);
});

it('a redirect stays on this site exactly where the URL standard resolves it to this site', () => {
  const text = fc.array(fc.constantFrom('/', '\\', '\t', '\n', 'a', ':', '@', 'http:', '//evil.example', '?', '#', ' ', 'é', '..'), {
    maxLength: 8,
  });
  fc.assert(
    fc.property(text, (pieces) => {
      const to = pieces.join('');
      if (!staysHere(to)) return;
      expect(new URL(to, 'http://own.example/garden/x').host).toBe('own.example');
      // And from Pallmist's view: it is a path, not relative to the page.
      expect(new URL(to, 'http://own.example/garden/x').href).toBe(new URL(to, 'http://own.example/').href);
    }),
    { numRuns: often(2000) },
  );
  for (const path of ['/', '/garden', '/garden?~wanted=//evil.example', '/a//b', '/caf\u00e9']) expect(staysHere(path)).toBe(true);
});

it('answers that nobody reads are given up, those that wait longest first; who reads slowly gets all', async () => {
  const answer = Buffer.alloc(8_000_000, 'a');
  const server = createServer((_, response) => response.end(answer));
  endUnreadAnswers(server);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  const ask = () => {
    const socket = connect(port, '127.0.0.1');
    socket.on('error', () => undefined);
    socket.write('GET / HTTP/1.1\r\nhost: x\r\nconnection: close\r\n\r\n');
    return socket;
  };
  const open: Socket[] = [];
  try {
    for (let count = 0; count < 80; count++) open.push(ask().pause());
    const connections = () =>
      new Promise<number>((resolve, reject) => server.getConnections((error, count) => (error ? reject(error) : resolve(count))));
    await expect.poll(connections, { timeout: 60_000 }).toBeLessThanOrEqual(32);
    const slow = ask();
    let read = 0;
    for await (const chunk of slow as AsyncIterable<Buffer>) {
      read += chunk.length;
      if (read < 2_000_000) await pause(40);
    }
    expect(read).toBeGreaterThan(answer.length);
  } finally {
    for (const socket of open) socket.destroy();
    server.close();
  }
});
