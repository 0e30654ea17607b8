import { setTimeout as pause } from 'node:timers/promises';
import fc from 'fast-check';
import type { Request } from 'express';
import { describe, expect, it } from 'vitest';
import type { HostedApp } from '../src/apps/hosted-app.ts';
import { AttemptLimit } from '../src/http/attempt-limit.ts';
import { LoadGuard } from '../src/http/load-guard.ts';
import { isFromThisSite } from '../src/http/same-site.ts';
import { PageCache } from '../src/pages/page-cache.ts';
import type { Admitted } from '../src/pages/steps.ts';
import { passwordProblem } from '../src/people/password-rule.ts';

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
    expect(isFromThisSite({ headers } as unknown as Request, publicUrl)).toBe(expected);
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
  ['Password1', /first passwords/],
  ['abababababab', /first passwords/],
  ['Ansa Wetherel', /same as the name/],
  ['moss-and-quill', undefined],
  ['сосны и папоротники', undefined],
])('the password %j is refused for: %s', (password, reason) => {
  const problem = passwordProblem(password, ['ansa', 'ansa wetherel']);
  if (reason === undefined) expect(problem).toBeUndefined();
  else expect(problem).toMatch(reason);
});
