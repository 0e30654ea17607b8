import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { csvSource } from '../../packages/service/src/api/router.ts';
import { Passwords, readSettings, startService, type Clock, type Service, type Settings } from '../../packages/service/src/index.ts';

const demo = new URL('../../demo/quillmoor/', import.meta.url);
export const gardenFile = readFileSync(new URL('app.yaml', demo), 'utf8');
export const keeper = { login: 'ansa', name: 'Ansa Wetherel', password: 'moss-and-quill', mail: 'ansa@quillmoor.example' };
export const otherKeeper = { login: 'bruno', name: 'Bruno Tallis', password: 'peat-and-quill', mail: 'bruno@quillmoor.example' };

/** The day on which tests begin, whatever day it is. */
export const testDay = '2026-11-19';

/** A clock that begins at ten in the morning of the tests' day and goes on from there; it can be put forward. */
export interface TestClock extends Clock {
  /** Time passes. */
  forward(milliseconds: number): void;
  /** Somebody corrects the machine's clock, forward or back; no time passes. */
  correct(milliseconds: number): void;
}
export function testClock(day = testDay): TestClock {
  let passed = 0;
  let offset = Date.parse(`${day}T10:00:00Z`) - performance.now();
  const steady = () => performance.now() + passed;
  return Object.assign(() => Math.trunc(steady() + offset), {
    steady,
    forward(milliseconds: number) {
      passed += milliseconds;
    },
    correct(milliseconds: number) {
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

/** The same hash as everywhere at a hundredth of its cost: a whole run makes thousands. */
const quickPasswords = new Passwords({ N: 2 ** 9, r: 8, p: 1 });

/** A real service on loopback with a database of its own in a new directory. */
export async function startTestService(
  more: Partial<Settings> = {},
  clock = testClock(),
  passwords = quickPasswords,
): Promise<TestService> {
  const data = more.data ?? mkdtempSync(join(tmpdir(), 'pallmist-test-'));
  const settings = { ...readSettings({}), port: 0, log: (process.env['TESTLOG'] ?? 'error') as 'error', ...more, data };
  const service = await startService(settings, { clock, passwords });
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
export async function startGarden(more: Partial<Settings> = {}, clock?: TestClock, passwords = quickPasswords): Promise<TestService> {
  if (more.data !== undefined || clock !== undefined || passwords !== quickPasswords) {
    const service = await startTestService(more, clock, passwords);
    await publishGarden(service);
    return service;
  }
  const data = mkdtempSync(join(tmpdir(), 'pallmist-test-'));
  writeFileSync(join(data, database), await gardenDatabase());
  // A database without its keys is refused.
  writeFileSync(join(data, 'keys.json'), '[]');
  const service = await startTestService({ ...more, data });
  return {
    ...service,
    async stop() {
      await service.stop();
      rmSync(data, { recursive: true, force: true });
    },
  };
}

const database = 'pallmist.sqlite';
let published: Promise<Buffer> | undefined;

/** The database right after publishing. To make it takes ten times as long as to copy it, and most test files begin with it. */
function gardenDatabase(): Promise<Buffer> {
  return (published ??= (async () => {
    const data = mkdtempSync(join(tmpdir(), 'pallmist-test-'));
    const service = await startTestService({ data });
    await publishGarden(service);
    await service.stop();
    const bytes = readFileSync(join(data, database));
    rmSync(data, { recursive: true, force: true });
    return bytes;
  })());
}

async function publishGarden({ apps, store }: TestService): Promise<void> {
  await apps.push('quillmoor', { source: gardenFile, records: gardenRecords() });
  await store.people.put('quillmoor', keeper.login, { ...keeper, roles: ['keeper', 'head'] });
  await store.people.put('quillmoor', otherKeeper.login, { ...otherKeeper, roles: ['keeper'] });
  await apps.publish('quillmoor', undefined);
}
