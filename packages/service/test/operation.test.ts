import { Agent, request as ask } from 'node:http';
import {
  chmodSync,
  copyFileSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Libsql from 'libsql';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { startGarden, startTestService, testClock, type TestService } from '../../../test/support/garden-service.ts';
import { littleApp } from '../../../test/support/little-app.ts';
import { readSettings, startService } from '../src/index.ts';
import { prepareWriter, SqliteDriver } from '../src/store/sqlite/driver.ts';
import { KeyRing } from '../src/seals/key-ring.ts';

let data: string;
beforeEach(() => {
  data = mkdtempSync(join(tmpdir(), 'pallmist-test-'));
});
afterEach(() => rmSync(data, { recursive: true, force: true }));
const settings = () => ({ ...readSettings({}), port: 0, data, log: 'silent' as const });

it('a stop under traffic on kept connections ends soon, and cuts no request off', { timeout: 60_000 }, async () => {
  const service = await startGarden({ shutdownTimeout: 30_000 });
  const agent = new Agent({ keepAlive: true, maxSockets: 8 });
  let stopped = false;
  const outcomes = { answered: 0, cut: 0 };
  const get = () =>
    new Promise<void>((resolve) => {
      const request = ask(`${service.base}/garden/specimens`, { agent }, (answer) => {
        answer.on('error', () => void outcomes.cut++);
        answer.on('end', () => void outcomes.answered++);
        answer.on('close', resolve).resume();
      });
      request.on('error', (error: NodeJS.ErrnoException) => {
        // A new connection is not taken any more: that request was never begun.
        if (error.code !== 'ECONNREFUSED') outcomes.cut++;
        else stopped = true;
        resolve();
      });
      request.end();
    });
  const traffic = Array.from({ length: 8 }, async () => {
    while (!stopped) await get();
  });
  await expect.poll(() => outcomes.answered).toBeGreaterThan(20);
  const began = performance.now();
  await service.stop();
  // Far from the limit, at which connections would be cut; on a quiet machine it takes one second.
  expect(performance.now() - began).toBeLessThan(15_000);
  await Promise.all(traffic);
  expect(outcomes.cut).toBe(0);
});

describe('the service refuses to start on data that it cannot read, and says why', () => {
  const begun = async () => {
    const service = await startTestService({ data }, testClock());
    await service.apps.push('little', { source: littleApp({}) });
    await service.apps.publish('little', undefined);
    await service.stop();
  };

  it('a database of a newer version', async () => {
    await begun();
    const database = new Libsql(join(data, 'pallmist.sqlite'));
    database.prepare('INSERT INTO migrations (timestamp, name) VALUES (?, ?)').run([9_999_999_999_999, 'FromTheFuture9999999999999']);
    database.close();
    await expect(startService(settings())).rejects.toThrow(/newer version of Pallmist/);
  });

  it('a key file that is none', async () => {
    await begun();
    writeFileSync(join(data, 'keys.json'), '{"keys": [');
    await expect(startService(settings())).rejects.toThrow(/keys\.json/);
    // It is left as it was: without it, sealed addresses would not open any more.
    expect(readFileSync(join(data, 'keys.json'), 'utf8')).toBe('{"keys": [');
  });

  it('a database that is broken', async () => {
    await begun();
    const file = join(data, 'pallmist.sqlite');
    const bytes = readFileSync(file);
    expect(statSync(`${file}-wal`, { throwIfNoEntry: false })?.size ?? 0).toBe(0);
    bytes.fill(0x5a, 4096, 4096 * 3);
    writeFileSync(file, bytes);
    await expect(startService(settings())).rejects.toThrow(/pallmist\.sqlite/);
  });
});

describe('readiness', () => {
  let service: TestService;
  beforeEach(async () => {
    service = await startTestService({ data }, testClock());
  });
  afterEach(() => service.stop());
  const ready = async () => {
    const answer = await fetch(`${service.base}/~/ready`);
    return { status: answer.status, body: (await answer.json()) as { status: string; database: { ok: boolean; problem?: string } } };
  };

  it('fails when the database has gone, while the service is alive', async () => {
    expect((await ready()).status).toBe(200);
    const file = join(data, 'pallmist.sqlite');
    renameSync(file, `${file}.away`);
    service.clock.forward(1000);
    const gone = await ready();
    expect(gone).toMatchObject({ status: 503, body: { status: 'not-ready', database: { ok: false } } });
    expect(JSON.stringify(gone.body)).not.toContain(data);
    expect((await fetch(`${service.base}/~/health`)).status).toBe(200);
    renameSync(`${file}.away`, file);
    service.clock.forward(1000);
    expect((await ready()).status).toBe(200);
  });

  it('fails when another file stands in the place of the database', async () => {
    const file = join(data, 'pallmist.sqlite');
    renameSync(file, `${file}.away`);
    copyFileSync(`${file}.away`, file);
    service.clock.forward(1000);
    expect((await ready()).status).toBe(503);
  });
});

it('answers are compressed: pages, the HTTP interface, and files that were compressed when they were built', async () => {
  const service = await startGarden();
  const encoding = async (path: string, accept: string) =>
    (await fetch(service.base + path, { headers: { 'accept-encoding': accept } })).headers.get('content-encoding');
  expect(await encoding('/garden/specimens', 'gzip')).toBe('gzip');
  expect(await encoding('/garden/specimens', 'br, gzip')).toBe('br');
  expect(await encoding('/~/api/v1/openapi.json', 'gzip')).toBe('gzip');
  const page = await (await fetch(`${service.base}/garden/specimens`)).text();
  const script = /src="(\/~\/assets\/[^"]+\.js)"/.exec(page)?.[1] ?? '';
  expect(await encoding(script, 'gzip')).toBe('gzip');
  const packed = await fetch(service.base + script, { headers: { 'accept-encoding': 'br' } });
  expect([packed.headers.get('content-encoding'), packed.headers.get('content-type')]).toEqual(['br', expect.stringMatching(/javascript/)]);
  expect(await packed.text()).toBe(await (await fetch(service.base + script, { headers: { 'accept-encoding': 'identity' } })).text());
  await service.stop();
});

describe('the file of keys', () => {
  it('is written beside itself and then put in its place, so that it is never half written', () => {
    mkdirSync(join(data, 'k'));
    const file = join(data, 'k', 'keys.json');
    const ring = new KeyRing(file, testClock());
    const before = statSync(file).ino;
    ring.rotate();
    // Another file, not the same one with other contents.
    expect(statSync(file).ino).not.toBe(before);
    expect(readdirSync(join(data, 'k'))).toEqual(['keys.json']);
    // Where nothing can be put, the keys of before stay.
    const kept = readFileSync(file, 'utf8');
    if (process.getuid?.() !== 0) {
      chmodSync(join(data, 'k'), 0o500);
      expect(() => ring.rotate()).toThrow();
      chmodSync(join(data, 'k'), 0o700);
    }
    expect(readFileSync(file, 'utf8')).toBe(kept);
  });
});

it('what is acknowledged is on disk, what waits for the lock waits, and what is looked for has an index', async () => {
  const service = await startTestService({ data }, testClock());
  await service.apps.push('little', {
    source: littleApp({
      collections:
        '  things: { keyField: code, fields: { code: { type: text }, slug: { type: text, unique: true }, of: { type: record, of: things } } }',
    }),
  });
  await service.apps.publish('little', undefined);
  const writer = new SqliteDriver(join(data, 'pallmist.sqlite'));
  prepareWriter(writer);
  // FULL: a commit is on disk before it is acknowledged.
  expect(writer.prepare('PRAGMA synchronous').get()).toMatchObject({ synchronous: 2 });
  writer.close();
  const other = new Libsql(join(data, 'pallmist.sqlite'));
  const indexes = (
    other.prepare("SELECT name FROM sqlite_master WHERE type = 'index' AND tbl_name = 'records_1'").all() as { name: string }[]
  ).map(({ name }) => name);
  expect(indexes).toEqual(
    expect.arrayContaining(['records_1_by_1', 'records_1_one_1', 'records_1_by_2', 'records_1_one_2', 'records_1_by_3']),
  );
  // Another program holds the lock for a moment: the write waits for it and is not refused.
  other.exec('BEGIN IMMEDIATE');
  const write = service.store.apps.publish('little', littleApp({}));
  await new Promise((resolve) => setTimeout(resolve, 300));
  other.exec('COMMIT');
  await expect(write).resolves.toBeDefined();
  other.close();
  await service.stop();
});
