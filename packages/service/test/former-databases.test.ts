// A database of each released format opens, and everything in it is there: test/databases holds one of each, as that version
// wrote it. What it holds is written down here, since the version that wrote it is gone. The one of 2026-12-02 was made from the
// one before; builders, the log, tokens, webhooks, mails and the ledger are new in it.
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { startTestService, testClock, type TestService } from '../../../test/support/garden-service.ts';
import { Visitor } from '../../../test/support/visitor.ts';
import { migrations } from '../src/store/typeorm/migrations/index.ts';

const folder = new URL('../../../test/databases/', import.meta.url);
const day = '2026-12-02';
const session = 'c_zngEBvylck_bNi54UL6VCteAlJxv_VsPLoKL-5GRo';
/** Tables that a migration renamed; the first test looks for their rows one by one. */
const renamed = /^records_nursery_/;
const collections = ['beds', 'plants'];

interface Database {
  prepare(sql: string): { all(): Record<string, string | number>[] };
  close(): void;
}

async function openFile(file: string): Promise<Database> {
  const { default: Libsql } = (await import('libsql')) as unknown as { default: new (path: string) => Database };
  return new Libsql(file);
}

/** How many rows each table has. */
async function rowsIn(file: string): Promise<Record<string, number>> {
  const database = await openFile(file);
  const tables = database.prepare("SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'").all();
  const counts = tables.map(({ name }) => [
    String(name),
    Number(database.prepare(`SELECT count(*) AS rows FROM "${String(name)}"`).all()[0]?.['rows']),
  ]);
  database.close();
  return Object.fromEntries(counts) as Record<string, number>;
}

async function withDatabase(name: string, look: (service: TestService) => Promise<void>): Promise<void> {
  const data = mkdtempSync(join(tmpdir(), 'pallmist-former-'));
  writeFileSync(join(data, 'pallmist.sqlite'), gunzipSync(readFileSync(new URL(name, folder))), { mode: 0o600 });
  writeFileSync(join(data, 'keys.json'), '[]');
  const clock = testClock(day);
  // Shortly after the fixture was written, so that its session still lasts.
  clock.forward(-4 * 3_600_000);
  const service = await startTestService({ data }, clock);
  try {
    await look(service);
  } finally {
    await service.stop();
    rmSync(data, { recursive: true, force: true });
  }
}

const recordsOf = async (service: TestService, collection: string) => {
  const answer = await service.owner('GET', `/apps/nursery/collections/${collection}/records?limit=500`);
  const { records } = (await answer.json()) as { records: Record<string, unknown>[] };
  return records.map((record) => Object.fromEntries(Object.entries(record).filter(([, value]) => value !== null)));
};

describe.each(readdirSync(folder).filter((name) => name.endsWith('.gz')))('the database %s', (name) => {
  it('opens, with apps, editions, records, people, sessions, files and short addresses', async () => {
    await withDatabase(name, async (service) => {
      const draft = (await (await service.owner('GET', '/apps/nursery/draft')).json()) as { source: string };
      expect(draft.source).toContain('title: Nursery of the moor');
      const { editions } = (await (await service.owner('GET', '/apps/nursery/editions')).json()) as { editions: { number: number }[] };
      expect(editions.map(({ number }) => number)).toEqual([1]);
      expect(await recordsOf(service, collections[0] ?? '')).toEqual([
        { code: 'east', area: 4 },
        { code: 'west', area: 2.5 },
      ]);
      expect(await recordsOf(service, 'plants')).toEqual([
        { number: 'N-001', name: 'Éclair', light: 'sun', planted: '2025-03-01', height: 1.5, count: 3, alive: true, bed: 'west' },
        { number: 'N-002', name: 'Fern, tall', light: 'shade', alive: false, bed: 'east' },
        { number: 'N-007', name: 'Moss', planted: '2026-01-02', height: 0.1, count: 12 },
        { number: 'N-008', name: 'Willow', photo: 'eC-YEUg25B5LRmHi2BJnYg/willow.png' },
      ]);
      const { people } = (await (await service.owner('GET', '/apps/nursery/people')).json()) as {
        people: { login: string; roles: string[] }[];
      };
      expect(people.map(({ login, roles }) => [login, roles])).toEqual([
        ['Ansa', ['keeper']],
        ['bruno', []],
      ]);

      const visitor = new Visitor(service.base);
      visitor.set('pallmist_nursery_person', session);
      expect(await visitor.text('/nursery/enter')).toContain('You are signed in as Ansa Wetherel.');
      const signedIn = await new Visitor(service.base).send('/nursery/enter', { '~name': 'bruno', '~password': 'peat-and-quill' });
      expect(signedIn.headers.get('location')).toBe('/nursery');
      const file = await fetch(`${service.base}/nursery/~files/eC-YEUg25B5LRmHi2BJnYg/willow.png`);
      expect([file.status, (await file.arrayBuffer()).byteLength]).toEqual([200, 70]);
      for (const [code, to] of [
        ['zvvw6z9', '/nursery/plants/N-002'],
        ['z7aa4np', '/nursery?q=fern&light=shade'],
      ] as const)
        expect((await new Visitor(service.base).get(`/nursery/~s/${code}`)).headers.get('location')).toBe(to);

      // And it goes on: a serial number is not given again, and a form saves.
      const added = await service.owner('POST', '/apps/nursery/collections/plants/records', { record: { name: 'Yew' } });
      expect(await added.json()).toMatchObject({ record: { number: 'N-009' } });
    });
  });

  it('loses no row of any table', async () => {
    const before = join(mkdtempSync(join(tmpdir(), 'pallmist-before-')), 'before.sqlite');
    writeFileSync(before, gunzipSync(readFileSync(new URL(name, folder))));
    const had = await rowsIn(before);
    rmSync(dirname(before), { recursive: true });
    await withDatabase(name, async (service) => {
      const has = await rowsIn(join(service.data, 'pallmist.sqlite'));
      const lost = Object.entries(had).filter(([table, rows]) => !renamed.test(table) && (has[table] ?? 0) < rows);
      expect(lost).toEqual([]);
    });
  });

  it('has every table and index that a new database has', async () => {
    const shapeOf = async (service: TestService) => {
      const file = join(service.data, 'pallmist.sqlite');
      const database = await openFile(file);
      const rows = database
        .prepare("SELECT type, name FROM sqlite_master WHERE name NOT LIKE 'records_%' AND name NOT LIKE 'sqlite_%' ORDER BY name")
        .all();
      database.close();
      return rows.map(({ type, name: of }) => `${String(type)} ${String(of)}`);
    };
    const fresh = await startTestService();
    try {
      const expected = await shapeOf(fresh);
      await withDatabase(name, async (service) => expect(await shapeOf(service)).toEqual(expected));
    } finally {
      await fresh.stop();
    }
  });
});

it('the database of 2026-12-02 has its builders, log, tokens, webhooks, mails and ledger', async () => {
  await withDatabase('2026-12-02.sqlite.gz', async (service) => {
    const of = async (path: string) => (await (await service.owner('GET', path)).json()) as Record<string, Record<string, unknown>[]>;
    expect((await of('/builders'))['builders']).toMatchObject([{ mail: 'rowan@nursery.example', role: 'builder' }]);
    expect((await of('/tokens'))['tokens']).toMatchObject([{ name: 'Importer', app: 'nursery', scopes: ['records:write'] }]);
    expect((await of('/apps/nursery/webhooks'))['webhooks']).toMatchObject([
      { url: 'https://hooks.nursery.example/in', events: ['record.created'] },
    ]);
    expect((await of('/apps/nursery/draft/changes'))['changes']).toHaveLength(1);
    expect((await of('/mails'))['mails']).toMatchObject([{ recipient: 'rowan@nursery.example' }]);
    const { source } = (await of('/apps/nursery/draft')) as unknown as { source: string };
    expect(source).toContain('title: Nursery of the moor and the fen');
  });
});

it('there is a database of each format that was released, and migrations keep their names', () => {
  expect(migrations.map((Migration) => Migration.name)).toEqual([
    'Tables1700000000009', 'NumberedRecordTables1700000000010', 'BuildersAndLog1700000000011', 'TokensAndWebhooks1700000000012',
    'LinksThatLast1700000000013', 'TriedAddresses1700000000014', 'ComputedColumns1700000000015',
  ]); // prettier-ignore
});
