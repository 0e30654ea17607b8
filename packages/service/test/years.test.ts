// What happens over years, and on bad days: full disks, damaged files, receivers that stall, clocks that are corrected,
// strangers who fill what is kept.
import { mkdirSync, mkdtempSync, openSync, readdirSync, readFileSync, rmSync, writeFileSync, writeSync, closeSync } from 'node:fs';
import { createServer, type AddressInfo, type Server, type Socket } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Libsql from 'libsql';
import { DataSource } from 'typeorm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startMailServer } from '../../../test/support/smtp.ts';
import { startGarden, startTestService, testClock } from '../../../test/support/garden-service.ts';
import { littleApp, publishApp } from '../../../test/support/little-app.ts';
import { removeOldExports } from '../src/apps/old-exports.ts';
import type { HostedApp } from '../src/apps/hosted-app.ts';
import { AttemptLimit } from '../src/http/attempt-limit.ts';
import { PageCache } from '../src/pages/page-cache.ts';
import type { LedgerRow } from '../src/store/ledger.ts';
import { openStore } from '../src/store/open-store.ts';
import { SqliteDriver } from '../src/store/sqlite/driver.ts';
import type { Store } from '../src/store/store.ts';
import { WriteQueue } from '../src/store/typeorm/write-queue.ts';

const root = mkdtempSync(join(tmpdir(), 'pallmist-years-'));
afterAll(() => {
  rmSync(root, { recursive: true, force: true });
});

describe('writes that share a transaction', () => {
  let source: DataSource;
  let queue: WriteQueue;
  beforeAll(async () => {
    source = new DataSource({ type: 'better-sqlite3', driver: SqliteDriver, database: join(root, 'queue.sqlite') });
    await source.initialize();
    await source.query('PRAGMA journal_mode = WAL');
    await source.query('CREATE TABLE t (n INTEGER PRIMARY KEY, filling TEXT)');
    queue = new WriteQueue(source);
  });
  afterAll(() => source.destroy());
  const numbers = async () => ((await source.query('SELECT n FROM t ORDER BY n')) as { n: number }[]).map(({ n }) => n);
  /** Writes numbers at once; those in `wrong` write something first and then fail. */
  const write = (from: number, count: number, wrong: readonly number[], filling = '') =>
    Promise.allSettled(
      Array.from({ length: count }, (_, index) =>
        queue.run(async (manager) => {
          await manager.query('INSERT INTO t VALUES (?, ?)', [from + index, filling]);
          if (wrong.includes(index)) throw new Error(`no ${String(index)}`);
          return index;
        }),
      ),
    );

  // The group takes eight; the first write of a drain is a group of its own or not, so that each place is tried.
  it.each(Array.from({ length: 10 }, (_, place) => [place]))('fail alone where the one at place %i fails', async (place) => {
    await source.query('DELETE FROM t');
    const told = await write(0, 10, [place]);
    expect(told.map(({ status }) => status)).toEqual(Array.from({ length: 10 }, (_, at) => (at === place ? 'rejected' : 'fulfilled')));
    expect(await numbers()).toEqual(Array.from({ length: 10 }, (_, at) => at).filter((at) => at !== place));
  });

  it('fail alone where several fail, in neighbouring places too', async () => {
    await source.query('DELETE FROM t');
    await write(0, 24, [0, 1, 7, 8, 9, 23]);
    expect(await numbers()).toEqual(Array.from({ length: 24 }, (_, at) => at).filter((at) => ![0, 1, 7, 8, 9, 23].includes(at)));
  });

  it('say that the disk is full, not that a savepoint is gone, and are all told', async () => {
    await source.query('DELETE FROM t');
    const [{ page_count: pages = 0 } = {}] = (await source.query('PRAGMA page_count')) as { page_count?: number }[];
    await source.query(`PRAGMA max_page_count = ${String(pages)}`);
    const told = await write(0, 8, [], 'x'.repeat(20_000));
    const reasons = told.flatMap((one) => (one.status === 'rejected' ? [String((one.reason as Error).message)] : []));
    expect(reasons.length).toBeGreaterThan(0);
    for (const reason of reasons) expect(reason).toMatch(/full/i);
    // What was acknowledged is there, and nothing else.
    expect(await numbers()).toEqual(told.flatMap((one, at) => (one.status === 'fulfilled' ? [at] : [])));
    await source.query('PRAGMA max_page_count = 1000000');
    expect((await write(100, 3, [])).every(({ status }) => status === 'fulfilled')).toBe(true);
  });
});

describe('the ledger', () => {
  let store: Store;
  beforeAll(async () => {
    store = await openStore(join(root, 'ledger'));
  });
  afterAll(() => store.close());
  const row = (app: string, day: string, more: Partial<LedgerRow>): LedgerRow => ({
    ...{ app, day, page: 'list', parameter: 'q', state: 'given', bucket: '', referrer: 'none', count: 1 },
    ...more,
  });
  const sum = (rows: readonly LedgerRow[]) => rows.reduce((all, { count }) => all + count, 0);
  const add = async (rows: LedgerRow[]) => {
    for (let start = 0; start < rows.length; start += 1000) await store.ledger.add(rows.slice(start, start + 1000), []);
  };

  it('turns every old day into a month, however many months stand before it', async () => {
    // More months than one look takes, which stand before the days in their order.
    const months = Array.from({ length: 450 }, (_, index) => row('old', `${String(1900 + index)}-01`, { bucket: String(index) }));
    const days = Array.from({ length: 450 }, (_, index) => row('old', '2400-01-01', { bucket: String(index), count: 2 }));
    await add([...months, ...days]);
    await store.ledger.compact('2400-02-01');
    const kept = await store.ledger.list('old', '');
    expect(kept.filter(({ day }) => day.length === 10)).toEqual([]);
    expect(sum(kept)).toBe(450 + 900);
    await store.ledger.compact('2400-02-01');
    expect(sum(await store.ledger.list('old', ''))).toBe(1350);
  });

  it('lists the newest where there is too much', async () => {
    await add(Array.from({ length: 20_500 }, (_, index) => row('much', `2${String(100_000 + index).slice(1)}`, { bucket: 'x' })));
    const listed = await store.ledger.list('much', '');
    expect(listed.length).toBe(20_000);
    expect(listed[0]?.day).toBe('220499');
  });

  it('keeps a bounded number of rows of what strangers try in a day, and counts all of it', async () => {
    await add(
      Array.from({ length: 3000 }, (_, index) =>
        row('odd', '2026-11-19', { page: '', parameter: `/a/${String(index)}`, state: 'unknown-page' }),
      ),
    );
    const listed = await store.ledger.list('odd', '2026-11-19');
    expect(listed.length).toBeLessThanOrEqual(501);
    expect(sum(listed)).toBe(3000);
    // What pages are asked for has its own room.
    await add([row('odd', '2026-11-19', { bucket: 'new' })]);
    expect((await store.ledger.list('odd', '')).filter(({ page }) => page === 'list')).toHaveLength(1);
  });
});

describe('kept pages', () => {
  const app = () => ({}) as HostedApp;
  const body = 'x'.repeat(100);

  it('have a bound for one app and one for all, and go in the order in which they were asked for', () => {
    const cache = new PageCache({ ofApp: 1000, ofAll: 2500 });
    const apps = [app(), app(), app(), app()];
    for (const hosted of apps) for (let page = 0; page < 20; page++) cache.keep(hosted, 1, String(page), body);
    expect(cache.size).toBeLessThanOrEqual(2500);
    const kept = apps.map((hosted) => Array.from({ length: 20 }, (_, page) => cache.find(hosted, 1, String(page))).filter(Boolean).length);
    expect(kept).toEqual([0, 5, 10, 10]);
    expect(cache.find(apps[3] ?? app(), 1, '19')).toBe(body);
    expect(cache.find(apps[3] ?? app(), 1, '0')).toBeUndefined();
  });

  it('make room when the records of their app have changed', () => {
    const cache = new PageCache({ ofApp: 1000, ofAll: 2500 });
    const hosted = app();
    for (let version = 1; version < 50; version++) {
      for (let page = 0; page < 8; page++) cache.keep(hosted, version, String(page), body);
      expect(cache.size).toBe(800);
      expect(cache.find(hosted, version, '0')).toBe(body);
      expect(cache.find(hosted, version - 1, '0')).toBeUndefined();
    }
    // A page that is kept again replaces the earlier copy.
    cache.keep(hosted, 49, '0', body.slice(0, 50));
    expect(cache.size).toBe(750);
  });
});

describe('exports', () => {
  it.each([
    ['garden-notes-2026-08-01T10-00-00-000Z.csv', true],
    ['garden-notes-2026-08-21T09-59-59-999Z.csv', true],
    ['garden-notes-2026-08-21T10-00-01-000Z.csv', false],
    ['garden-notes-2026-11-19T10-00-00-000Z.csv', false],
    ['my own list.csv', false],
    ['garden-notes-2026-08-01T10-00-00-000Z.csv.zip', false],
    ['garden-notes-2026-13-41T10-00-00-000Z.csv', false],
  ])('%s: removed after 90 days is %s', async (name, removed) => {
    const data = mkdtempSync(join(root, 'exports-'));
    const clock = () => Date.parse('2026-11-19T10:00:00Z');
    // No folder is no fault.
    expect(await removeOldExports(data, 90, clock)).toEqual([]);
    mkdirSync(join(data, 'exports'));
    writeFileSync(join(data, 'exports', name), 'a');
    expect(await removeOldExports(data, 90, clock)).toEqual(removed ? [name] : []);
    expect(readdirSync(join(data, 'exports'))).toEqual(removed ? [] : [name]);
  });
});

describe('a clock that is corrected', () => {
  const year = 365 * 86_400_000;

  it.each([
    ['forward', year],
    ['back', -year],
  ])('%s by a year neither frees nor holds those who try too often', (_, correction) => {
    const clock = testClock();
    const limit = new AttemptLimit({ window: 60_000, most: 2 }, clock.steady);
    const tries = () => [limit.isReached('a'), limit.isReached('a'), limit.isReached('a')];
    expect(tries()).toEqual([false, false, true]);
    clock.correct(correction);
    expect(limit.isReached('a')).toBe(true);
    expect(limit.waitOf('a')).toBeLessThanOrEqual(60);
    clock.forward(60_000);
    expect(limit.isReached('a')).toBe(false);
  });
});

describe('a mail server that stalls', () => {
  const open = new Set<Socket>();
  let server: Server;
  let url: string;
  beforeAll(async () => {
    server = createServer((socket) => {
      open.add(socket);
      socket.on('error', () => undefined);
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    url = `smtp://127.0.0.1:${String((server.address() as AddressInfo).port)}`;
  });
  afterAll(() => {
    for (const socket of open) socket.destroy();
    server.close();
  });

  it('does not hold up a stop, and the mail is sent after the next start, once', async () => {
    const data = mkdtempSync(join(root, 'mail-'));
    const service = await startGarden({ data, smtpUrl: url, shutdownTimeout: 300 });
    const form = new URLSearchParams({ '~form': 'adopt', name: 'Ünal', mail: 'unal@moor.example' });
    const answer = await fetch(`${service.base}/garden/specimens/QM-0412?adopt=true`, {
      ...{ method: 'POST', body: form, redirect: 'manual', headers: { 'sec-fetch-site': 'same-origin' } },
    });
    expect(answer.status).toBe(303);
    // It is on its way, and hears nothing.
    await expect.poll(() => open.size).toBeGreaterThan(0);
    const began = performance.now();
    await service.stop();
    // Far below what the service waits for a mail server, however busy the machine is.
    expect(performance.now() - began).toBeLessThan(14_000);

    const mails = await startMailServer();
    const again = await startTestService({ data, smtpUrl: mails.url });
    await expect.poll(() => mails.received.length).toBe(1);
    expect(mails.received[0]?.to).toEqual(['unal@moor.example']);
    await again.stop();
    await mails.stop();
    expect(mails.received).toHaveLength(1);
  });
});

describe('readiness', () => {
  const ready = async (base: string) => (await fetch(`${base}/~/ready`)).status;

  it('ends with the first page of an index that is found to be damaged', async () => {
    const data = mkdtempSync(join(root, 'damage-'));
    const first = await startTestService({ data });
    await publishApp(first, 'little', littleApp({ collections: '  things: { keyField: code, fields: { code: { type: text } } }' }));
    for (let start = 0; start < 400; start += 100)
      await Promise.all(
        Array.from({ length: 100 }, (_, index) =>
          first.owner('POST', '/apps/little/collections/things/records', { record: { code: `T${String(start + index)}` } }),
        ),
      );
    await first.stop();
    damageIndexes(join(data, 'pallmist.sqlite'));

    const clock = testClock();
    const service = await startTestService({ data, log: 'silent' }, clock);
    expect(await ready(service.base)).toBe(200);
    const found = await service.owner('GET', '/apps/little/collections/things/records/T200');
    expect(found.status).toBe(500);
    clock.forward(1000);
    const answer = await fetch(`${service.base}/~/ready`);
    expect(answer.status).toBe(503);
    expect(JSON.stringify(await answer.json())).toContain('The database file is damaged');
    // Health is about the process alone.
    expect((await fetch(`${service.base}/~/health`)).status).toBe(200);
    await service.stop();
  });

  it('writes at most once a second, however many clients ask', async () => {
    const clock = testClock();
    const service = await startTestService({}, clock);
    const version = () => {
      const database = new Libsql(join(service.data, 'pallmist.sqlite'), { readonly: true } as object);
      const [{ user_version: found } = { user_version: -1 }] = database.prepare('PRAGMA user_version').all() as { user_version: number }[];
      database.close();
      return found;
    };
    const before = version();
    await Promise.all(Array.from({ length: 20 }, () => ready(service.base)));
    const after = version();
    expect(after).toBeGreaterThan(before);
    expect(after - before).toBeLessThan(20);
    await service.stop();
  });
});

/** Writes over the pages of the indexes of record tables. */
function damageIndexes(file: string): void {
  const database = new Libsql(file);
  const indexes = database.prepare(`SELECT rootpage FROM sqlite_schema WHERE type = 'index' AND name GLOB 'records_*'`).all() as {
    rootpage: number;
  }[];
  database.close();
  expect(indexes.length).toBeGreaterThan(0);
  const size = readFileSync(file).readUInt16BE(16);
  const handle = openSync(file, 'r+');
  for (const { rootpage } of indexes) writeSync(handle, Buffer.alloc(64, 0xff), 0, 64, (rootpage - 1) * size);
  closeSync(handle);
}
