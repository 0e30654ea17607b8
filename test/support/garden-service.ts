import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readSettings, startService, type Service, type Settings } from '../../packages/service/src/index.ts';

const demo = new URL('../../demo/quillmoor/', import.meta.url);
export const gardenFile = readFileSync(new URL('app.yaml', demo), 'utf8');
export const keeper = { login: 'ansa', name: 'Ansa Wetherel', password: 'moss-and-quill', mail: 'ansa@quillmoor.example' };
export const otherKeeper = { login: 'bruno', name: 'Bruno Tallis', password: 'peat-and-quill', mail: 'bruno@quillmoor.example' };

export interface TestService extends Service {
  data: string;
  token: string;
  /** Calls the HTTP interface as the owner. */
  owner(method: string, path: string, body?: unknown): Promise<Response>;
}

/** A real service on loopback with a database of its own in a new directory. */
export async function startTestService(more: Partial<Settings> = {}): Promise<TestService> {
  const data = mkdtempSync(join(tmpdir(), 'pallmist-test-'));
  const service = await startService({
    ...readSettings({}),
    port: 0,
    data,
    log: (process.env['TESTLOG'] ?? 'silent') as 'silent',
    ...more,
  });
  const token = readFileSync(join(data, 'api-token'), 'utf8').trim();
  return {
    ...service,
    data,
    token,
    owner: (method, path, body) =>
      fetch(`${service.base}/-/api/v1${path}`, {
        method,
        headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json' },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      }),
    async stop() {
      await service.stop();
      rmSync(data, { recursive: true, force: true });
    },
  };
}

/** The same with the demo garden published and its keeper let in. */
export async function startGarden(more: Partial<Settings> = {}): Promise<TestService> {
  const service = await startTestService(more);
  const names = ['zones', 'houses', 'keepers', 'specimens', 'care', 'notes'];
  const data = Object.fromEntries(names.map((name) => [name, readFileSync(new URL(`data/${name}.csv`, demo), 'utf8')]));
  await service.apps.push('quillmoor', gardenFile, undefined, data);
  await service.store.people.put('quillmoor', keeper.login, { ...keeper, roles: ['keeper', 'head'] });
  await service.store.people.put('quillmoor', otherKeeper.login, { ...otherKeeper, roles: ['keeper'] });
  await service.apps.publish('quillmoor', undefined);
  return service;
}
