import { randomBytes, scryptSync } from 'node:crypto';
import { chmodSync, mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Libsql from 'libsql';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { keeper, otherKeeper, startGarden, startTestService, testClock, type TestService } from '../../../test/support/garden-service.ts';
import { littleApp } from '../../../test/support/little-app.ts';
import { Visitor } from '../../../test/support/visitor.ts';
import { isLoginName, loginKey } from '../src/people/login-names.ts';
import { networkOf } from '../src/http/network.ts';
import { Passwords } from '../src/people/passwords.ts';

const from = (address: string) => ({ 'x-forwarded-for': address });
const minute = 60_000;

describe('the owner', () => {
  let service: TestService;
  beforeAll(async () => {
    service = await startGarden();
  });
  afterAll(() => service.stop());
  const put = (login: string, person: object) => service.owner('PUT', `/apps/quillmoor/people/${login}`, person);

  it('ends the sessions of a person with a new password, or by removing them', async () => {
    const visitor = new Visitor(service.base);
    await visitor.signIn(otherKeeper);
    expect((await visitor.get('/garden/workspace')).status).toBe(200);
    const password = 'sedge-and-quill';
    expect((await put('bruno', { name: 'Bruno Tallis', password, roles: ['keeper'] })).status).toBe(200);
    expect((await visitor.get('/garden/workspace')).status).toBe(303);
    await visitor.signIn(otherKeeper);
    expect((await visitor.get('/garden/workspace')).status).toBe(303);
    await visitor.signIn({ login: 'bruno', password });
    expect((await visitor.get('/garden/workspace')).status).toBe(200);
    expect((await service.owner('DELETE', '/apps/quillmoor/people/bruno')).status).toBe(200);
    expect((await visitor.get('/garden/workspace')).status).toBe(303);
    expect((await service.owner('DELETE', '/apps/quillmoor/people/bruno')).status).toBe(404);
  });

  it('lists people, without what is secret', async () => {
    const answer = await (await service.owner('GET', '/apps/quillmoor/people')).text();
    expect(JSON.parse(answer)).toMatchObject({ people: [{ login: 'ansa', name: 'Ansa Wetherel', roles: ['keeper', 'head'] }] });
    expect(answer).not.toMatch(/scrypt|assword/);
    expect((await fetch(`${service.base}/~/api/v1/apps/quillmoor/people`)).status).toBe(401);
  });

  it.each(['password1', 'QWERTYUIOP', 'iloveyou', 'aaaaaaaaaa', 'someone!', 'short'])('gives nobody the password %s', async (password) => {
    const answer = await put('someone!'.slice(0, -1), { name: 'someone!', password, roles: [] });
    expect(answer.status).toBe(422);
    expect(await answer.text()).not.toContain('scrypt');
  });

  it('ends all sessions of the console, and renews the token', async () => {
    const enter = await fetch(`${service.base}/~/api/v1/console/enter`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ key: new URL(service.consoleLink).hash.slice('#key='.length) }),
    });
    const cookie = enter.headers.get('set-cookie')?.split(';')[0] ?? '';
    const apps = (headers: Record<string, string>) => fetch(`${service.base}/~/api/v1/apps`, { headers }).then(({ status }) => status);
    expect(await apps({ cookie })).toBe(200);
    expect((await service.owner('POST', '/console/end-sessions')).status).toBe(200);
    expect(await apps({ cookie })).toBe(401);
    const { token } = (await (await service.owner('POST', '/token')).json()) as { token: string };
    expect(await apps({ authorization: `Bearer ${service.token}` })).toBe(401);
    expect(await apps({ authorization: `Bearer ${token}` })).toBe(200);
  });
});

describe('guessing a password', () => {
  let service: TestService;
  beforeAll(async () => {
    service = await startGarden({ trustProxy: 1 });
  });
  afterAll(() => service.stop());
  const tryAs = async (visitor: Visitor, { login, password }: { login: string; password: string }, address: string) => {
    const sent = { '~name': login, '~password': password };
    return (await visitor.send('/garden/sign-in', sent, from(address))).headers.get('location') ?? '';
  };

  it('is limited for an account, and its owner is not locked out of a browser that signed in before', { timeout: 120_000 }, async () => {
    const known = new Visitor(service.base);
    await tryAs(known, keeper, '192.0.2.200');
    await known.send('/garden/~sign-out', {});
    await Promise.all(
      Array.from({ length: 60 }, (_, index) =>
        tryAs(new Visitor(service.base), { login: 'ansa', password: `guess-${String(index)}` }, `198.51.100.${String(index)}`),
      ),
    );
    expect(await tryAs(new Visitor(service.base), keeper, '203.0.113.1')).toContain('~why=too-many-tries');
    expect(await tryAs(new Visitor(service.base), { ...keeper, login: 'ＡＮＳＡ' }, '203.0.113.1')).toContain('~why=too-many-tries');
    // Of another account it is nothing, and the known browser comes in.
    expect(await tryAs(new Visitor(service.base), otherKeeper, '203.0.113.1')).toBe('/garden/care-rounds');
    expect(await tryAs(known, keeper, '192.0.2.200')).toBe('/garden/care-rounds');
    service.clock.forward(16 * minute);
    expect(await tryAs(new Visitor(service.base), keeper, '203.0.113.1')).toBe('/garden/care-rounds');
  });

  it('is limited for a network: an IPv6 address counts with its /48', { timeout: 120_000 }, async () => {
    const guess = (address: string, login: string) => tryAs(new Visitor(service.base), { login, password: 'guess-again' }, address);
    // Too long to be anyone's, so that no password is compared.
    const noLogin = (index: number) => String(index).padStart(120, 'x');
    // One after the other: a service that is busy turns some away, and those do not count.
    for (let index = 0; index < 30; index++)
      expect(await guess(`2001:db8:1:${index.toString(16)}::1`, noLogin(index))).toContain('~why=wrong-password');
    expect(await guess('2001:db8:1:ffff::2', 'another')).toContain('~why=too-many-tries');
    expect(await guess('2001:db8:2::1', 'another')).toContain('~why=wrong-password');
    expect(networkOf('2001:0db8:0001:ff::1')).toBe(networkOf('2001:db8:1::'));
    expect(networkOf('::ffff:192.0.2.1')).toBe('192.0.2.1');
  });

  it('is made longer for a hash of the past: it is renewed at the next sign-in', async () => {
    // With the cost that passwords have outside of tests.
    const service = await startGarden({ trustProxy: 1 }, testClock(), new Passwords());
    const tryHere = (as: { login: string; password: string }) => tryAs(new Visitor(service.base), as, '203.0.113.9');
    const file = join(service.data, 'pallmist.sqlite');
    const salt = randomBytes(16);
    const key = scryptSync(keeper.password, salt, 32, { N: 2 ** 15, r: 8, p: 1, maxmem: 2 ** 27 });
    const database = new Libsql(file);
    const before = `${salt.toString('base64url')}$${key.toString('base64url')}`;
    const hash = () => (database.prepare("SELECT password_hash AS hash FROM person WHERE login = 'ansa'").get() as { hash: string }).hash;
    expect(hash()).toMatch(/^scrypt\$32768\$8\$3\$/);
    database.prepare("UPDATE person SET password_hash = ? WHERE login = 'ansa'").run([before]);
    expect(await tryHere({ ...keeper, password: 'wrong' })).toContain('~why=wrong-password');
    expect(hash()).toBe(before);
    expect(await tryHere(keeper)).toBe('/garden/care-rounds');
    expect(hash()).toMatch(/^scrypt\$32768\$8\$3\$/);
    database.close();
    await service.stop();
  });
});

describe('making an account', () => {
  let service: TestService;
  beforeAll(async () => {
    service = await startGarden();
  });
  afterAll(() => service.stop());
  const join = (login: string, password = 'bog-and-heather') =>
    new Visitor(service.base).send('/garden/join', { '~form': '~join', called: 'Wyn', login, password });

  it('is limited, whether it succeeds or not', async () => {
    const statuses: number[] = [];
    for (let count = 0; count < 22; count++)
      statuses.push((await join(count % 2 === 0 ? `wyn${String(count)}` : 'wyn0', 'bog-and-heather')).status);
    expect(statuses.slice(0, 20).filter((status) => status === 303)).toHaveLength(10);
    expect(statuses.slice(20)).toEqual([422, 422]);
    expect(await (await join('late')).text()).toContain('Your network requested too many accounts');
    service.clock.forward(61 * minute);
    expect((await join('late')).status).toBe(303);
  });

  it('gives no name that looks like another one, in width, capitals or composition', async () => {
    expect((await join('jürg')).status).toBe(303);
    for (const login of ['JÜRG', 'ju\u0308rg', 'ｊürg']) expect((await join(login)).status).toBe(422);
    expect(loginKey('Ｗyn')).toBe('wyn');
    for (const login of ['', 'a b', 'a\u200bb', 'a\u202eb', 'אa', 'x'.repeat(101)]) expect(isLoginName(login)).toBe(false);
  });
});

describe('a session', () => {
  const hour = 60 * minute;
  it('ends by idleness, is kept alive by use, and ends by age in any case; ended ones are not kept', async () => {
    const service = await startGarden({ session: { age: 4 * hour, idle: hour } });
    const [visitor, idle] = [new Visitor(service.base), new Visitor(service.base)];
    await visitor.signIn(keeper);
    await idle.signIn(keeper);
    for (let uses = 0; uses < 4; uses++) {
      service.clock.forward(50 * minute);
      expect((await visitor.get('/garden/workspace')).status).toBe(200);
    }
    expect((await idle.get('/garden/workspace')).status).toBe(303);
    service.clock.forward(45 * minute);
    expect((await visitor.get('/garden/workspace')).status).toBe(303);
    service.clock.forward(26 * hour);
    await visitor.signIn(keeper);
    const database = new Libsql(join(service.data, 'pallmist.sqlite'));
    expect(database.prepare('SELECT count(*) AS count FROM session').get()).toMatchObject({ count: 1 });
    database.close();
    await service.stop();
  });

  it('of one app is not touched by an app at “/”', async () => {
    const service = await startGarden();
    await service.apps.push('root', { source: littleApp({ app: 'root', mount: '/' }) });
    await service.apps.publish('root', undefined);
    const visitor = new Visitor(service.base);
    await visitor.signIn(keeper);
    await visitor.send('/~sign-out', {});
    await visitor.get('/');
    expect((await visitor.get('/garden/workspace')).status).toBe(200);
    await service.stop();
  });
});

describe('a form that is held until its person has signed in', () => {
  let service: TestService;
  beforeAll(async () => {
    service = await startGarden();
  });
  afterAll(() => service.stop());
  const adding = '/garden/care-rounds?add=true';
  const entry = { '~form': 'add-entry', specimen: 'QM-0412', day: '2026-11-18', task: 'inspect', remark: 'Between us' };
  const held = (visitor: Visitor) => visitor.cookie('pallmist_quillmoor_held');

  it('is shown only to them, and gone when they sign out', async () => {
    const visitor = new Visitor(service.base);
    await visitor.signIn(keeper);
    service.clock.forward(5 * 60 * minute);
    await visitor.send(adding, entry);
    const mark = held(visitor) ?? '';
    expect(mark).not.toBe('');
    await visitor.signIn(otherKeeper);
    expect(await visitor.text(adding)).not.toContain('Between us');
    await visitor.signIn(keeper);
    expect(await visitor.text(adding)).toContain('Between us');
    await visitor.send('/garden/~sign-out', {});
    expect(held(visitor)).toBeUndefined();
    await visitor.signIn(keeper);
    visitor.set('pallmist_quillmoor_held', mark);
    expect(await visitor.text(adding)).not.toContain('Between us');
  });

  it('is held only where there is such a form, and few for each network', async () => {
    const stranger = new Visitor(service.base);
    await stranger.send(adding, { ...entry, '~form': 'no-such-form' });
    expect(held(stranger)).toBeUndefined();
    await stranger.send(adding, { ...entry, remark: 'x'.repeat(210_000) });
    expect(held(stranger)).toBeUndefined();
    const kept: (string | undefined)[] = [];
    for (let count = 0; count < 30; count++) {
      const visitor = new Visitor(service.base);
      await visitor.send(adding, entry);
      kept.push(held(visitor));
    }
    expect(kept.filter((mark) => mark !== undefined)).toHaveLength(20);
    service.clock.forward(25 * 60 * minute);
    await stranger.send(adding, entry);
    expect(held(stranger)).toBeDefined();
  });
});

it('the database and what stands beside it are for the service alone, whatever the directory', async () => {
  const data = mkdtempSync(join(tmpdir(), 'pallmist-test-'));
  const mask = process.umask(0);
  try {
    chmodSync(data, 0o777);
    const service = await startTestService({ data }, testClock());
    await service.apps.push('little', { source: littleApp({}) });
    for (const name of ['pallmist.sqlite', 'pallmist.sqlite-wal', 'pallmist.sqlite-shm', 'api-token', 'console-link.txt', 'keys.json'])
      expect([name, statSync(join(data, name)).mode & 0o777]).toEqual([name, 0o600]);
    await service.stop();
  } finally {
    process.umask(mask);
    rmSync(data, { recursive: true });
  }
});
