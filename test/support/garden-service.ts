import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { csvSource } from '../../packages/service/src/api/router.ts';
import { readSettings, startService, type Clock, type Service, type Settings } from '../../packages/service/src/index.ts';

const demo = new URL('../../demo/quillmoor/', import.meta.url);
export const gardenFile = readFileSync(new URL('app.yaml', demo), 'utf8');
export const keeper = { login: 'ansa', name: 'Ansa Wetherel', password: 'moss-and-quill', mail: 'ansa@quillmoor.example' };
export const otherKeeper = { login: 'bruno', name: 'Bruno Tallis', password: 'peat-and-quill', mail: 'bruno@quillmoor.example' };

/** The day on which tests begin, whatever day it is. */
export const testDay = '2026-11-19';

/** A clock that begins at ten in the morning of the tests' day and goes on from there; it can be put forward. */
export interface TestClock extends Clock {
  forward(milliseconds: number): void;
}
export function testClock(day = testDay): TestClock {
  let offset = Date.parse(`${day}T10:00:00Z`) - Date.now();
  return Object.assign(() => Date.now() + offset, {
    forward(milliseconds: number) {
      offset += milliseconds;
    },
  });
}

export interface TestService extends Service {
  data: string;
  token: string;
  clock: TestClock;
  /** Calls the HTTP interface as the owner. */
  owner(method: string, path: string, body?: unknown): Promise<Response>;
}

/** A real service on loopback with a database of its own in a new directory. */
export async function startTestService(more: Partial<Settings> = {}, clock = testClock()): Promise<TestService> {
  const data = more.data ?? mkdtempSync(join(tmpdir(), 'pallmist-test-'));
  const settings = { ...readSettings({}), port: 0, log: (process.env['TESTLOG'] ?? 'error') as 'error', ...more, data };
  const service = await startService(settings, { clock });
  const token = readFileSync(join(data, 'api-token'), 'utf8').trim();
  return {
    ...service,
    data,
    token,
    clock,
    owner: (method, path, body) =>
      fetch(`${service.base}/~/api/v1${path}`, {
        method,
        headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json' },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      }),
    async stop() {
      await service.stop();
      if (more.data === undefined) rmSync(data, { recursive: true, force: true });
    },
  };
}

/** The records of the demo garden, as the files beside its app file have them. */
export const gardenRecords = () =>
  ['zones', 'houses', 'keepers', 'specimens', 'care', 'notes'].map((name) =>
    csvSource(name, readFileSync(new URL(`data/${name}.csv`, demo), 'utf8')),
  );

/** The same with the demo garden published and its keepers let in. */
export async function startGarden(more: Partial<Settings> = {}, clock = testClock()): Promise<TestService> {
  const service = await startTestService(more, clock);
  await service.apps.push('quillmoor', { source: gardenFile, records: gardenRecords() });
  await service.store.people.put('quillmoor', keeper.login, { ...keeper, roles: ['keeper', 'head'] });
  await service.store.people.put('quillmoor', otherKeeper.login, { ...otherKeeper, roles: ['keeper'] });
  await service.apps.publish('quillmoor', undefined);
  return service;
}
