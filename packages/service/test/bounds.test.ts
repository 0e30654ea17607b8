import { afterAll, beforeAll, expect, it } from 'vitest';
import { keeper, startGarden, startTestService, type TestService } from '../../../test/support/garden-service.ts';
import { littleApp } from '../../../test/support/little-app.ts';
import { Visitor } from '../../../test/support/visitor.ts';
import type { HostedApp } from '../src/apps/hosted-app.ts';
import { AttemptLimit } from '../src/http/attempt-limit.ts';
import { PageCache } from '../src/pages/page-cache.ts';

const hour = 60 * 60 * 1000;
const day = 24 * hour;
let service: TestService;
beforeAll(async () => {
  service = await startGarden();
});
afterAll(() => service.stop());

it('pages that are kept are bounded for each app; what is asked for least goes first, and a changed record makes all old', () => {
  const cache = new PageCache();
  const hosted = {} as HostedApp;
  const body = 'x'.repeat(1_000_000);
  for (let page = 0; page < 30; page++) {
    cache.keep(hosted, 1, String(page), body);
    expect(cache.find(hosted, 1, '0')).toBe(body);
  }
  const kept = Array.from({ length: 30 }, (_, page) => cache.find(hosted, 1, String(page))).filter((found) => found !== undefined);
  expect(kept).toHaveLength(20);
  expect(cache.find(hosted, 1, '1')).toBeUndefined();
  // The same page again takes no more room.
  for (let times = 0; times < 30; times++) cache.keep(hosted, 1, '0', body);
  expect(cache.find(hosted, 1, '29')).toBe(body);
  expect(cache.find(hosted, 2, '0')).toBeUndefined();
  // Drawn before the change, kept after it: it is not.
  cache.keep(hosted, 1, 'late', body);
  expect(cache.find(hosted, 2, 'late')).toBeUndefined();
  expect(cache.find({} as HostedApp, 2, '29')).toBeUndefined();
});

it('visits are counted by value, and beyond 500 values of a day together', async () => {
  const { visits } = service.store;
  for (let count = 0; count < 520; count++) await visits.came('many', { via: `value-${String(count)}` });
  for (let count = 0; count < 3; count++) await visits.came('many', { via: 'value-7' });
  const rows = await visits.list('many');
  expect(rows).toHaveLength(501);
  expect(rows.find(({ value }) => value === '(others)')?.came).toBe(20);
  expect(rows.find(({ value }) => value === 'value-7')?.came).toBe(4);
  service.clock.forward(day);
  await visits.came('many', { via: 'next day' });
  expect((await visits.list('many'))[0]).toMatchObject({ value: 'next day', came: 1 });
});

it('names whose attempts are counted are bounded', () => {
  const limit = new AttemptLimit({ window: hour, most: 1 }, () => 0);
  for (let count = 0; count < 120_000; count++) limit.isReached(`name ${String(count)}`);
  // The oldest was forgotten, the newest was not.
  expect(limit.isReached('name 0')).toBe(false);
  expect(limit.isReached('name 119999')).toBe(true);
});

it('a file that no record has is kept for a day and then removed; one of a record stays; too many are refused', async () => {
  const { sentFiles } = service.store;
  const bytes = Buffer.alloc(60_000_000, 1);
  const [loose = '', settled = ''] = [
    await sentFiles.keep('files', 'loose.png', bytes),
    await sentFiles.keep('files', 'settled.png', bytes),
  ];
  await sentFiles.settle('files', settled);
  const more = [await sentFiles.keep('files', 'b.png', bytes), await sentFiles.keep('files', 'c.png', bytes)];
  expect(more).not.toContain(undefined);
  expect(await sentFiles.keep('files', 'd.png', bytes)).toBeUndefined();
  service.clock.forward(day - hour);
  expect(await sentFiles.bytes('files', loose)).toHaveLength(bytes.length);
  service.clock.forward(2 * hour);
  expect(await sentFiles.bytes('files', loose)).toBeUndefined();
  expect(await sentFiles.keep('files', 'later.png', bytes)).toBeDefined();
  service.clock.forward(40 * day);
  expect(await sentFiles.bytes('files', settled)).toHaveLength(bytes.length);
});

it('files of records that were replaced are loose for a day, and no others', async () => {
  const { sentFiles } = service.store;
  const [held = '', gone = ''] = [
    await sentFiles.keep('sweep', 'held.png', Buffer.from('a')),
    await sentFiles.keep('sweep', 'gone.png', Buffer.from('b')),
  ];
  for (const value of [held, gone]) await sentFiles.settle('sweep', value);
  expect(await sentFiles.loosenUnless('sweep', (value) => Promise.resolve(value === held))).toBe(1);
  service.clock.forward(2 * day);
  expect(await sentFiles.bytes('sweep', gone)).toBeUndefined();
  expect(await sentFiles.bytes('sweep', held)).toBeDefined();
});

it('short addresses that visitors make are limited for each network, and end', async () => {
  const visitors = await startGarden();
  const make = (page: number) => new Visitor(visitors.base).send('/garden/~s', { of: `/garden/specimens?page=${String(page)}` });
  const statuses: number[] = [];
  for (let page = 1; page <= 32; page++) statuses.push((await make(page)).status);
  expect(statuses.filter((status) => status === 303)).toHaveLength(30);
  expect(statuses.slice(30)).toEqual([429, 429]);
  visitors.clock.forward(11 * 60 * 1000);
  const made = await make(40);
  const code = /~s\/(\w+)\/about/.exec(made.headers.get('location') ?? '')?.[1] ?? '';
  expect((await fetch(`${visitors.base}/garden/~s/${code}`, { redirect: 'manual' })).headers.get('location')).toBe(
    '/garden/specimens?page=40',
  );
  visitors.clock.forward(400 * day);
  expect((await fetch(`${visitors.base}/garden/~s/${code}`)).status).toBe(404);
  await visitors.stop();
});

it('a required field that a form does not show is asked for by name, and nothing is saved without it', async () => {
  const little = await startTestService();
  const collections =
    '  things: { keyField: code, fields: { code: { type: text, serial: T-0 }, name: { type: text, required: true }, kind: { type: text } } }';
  const pages = (set: string) =>
    `  home: { title: Home, address: '/{?kind}', parameters: { kind: { type: text } }, content: [{ show: form, name: make, label: Make, action: create, collection: things, fields: [kind], set: { name: '${set}' }, submit: Make, then: { page: home } }] }`;
  await little.apps.push('little', { source: littleApp({ collections, pages: pages('{param.?kind.orValue("")}') }) });
  await little.apps.publish('little', undefined);
  const visitor = new Visitor(little.base);
  const answer = await visitor.send('/little', { '~form': 'make', kind: 'moss' });
  expect([answer.status, await answer.text()]).toEqual([422, expect.stringContaining('name: This cannot be empty.') as string]);
  expect(await little.store.records.count('little', 'things')).toBe(0);
  expect((await visitor.send('/little?kind=fern', { '~form': 'make', kind: 'moss' })).status).toBe(303);
  await little.stop();
});

it('signed in or not, what one person sees is never kept for another', async () => {
  const [visitor, stranger] = [new Visitor(service.base), new Visitor(service.base)];
  await visitor.signIn(keeper);
  expect(await visitor.text('/garden')).toContain('Ansa Wetherel');
  expect(await stranger.text('/garden')).not.toContain('Ansa Wetherel');
});
