import { chmodSync, existsSync, mkdtempSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startTestService, type TestService } from '../../../test/support/garden-service.ts';
import { littleApp, publishApp } from '../../../test/support/little-app.ts';
import { readSettings, startService } from '../src/index.ts';

let service: TestService;
beforeAll(async () => {
  service = await startTestService();
});
afterAll(() => service.stop());

const settings = { ...readSettings({}), port: 0, data: '', log: 'silent' } as const;

describe('starting', () => {
  it.each([
    [{ PALLMIST_PORT: 'high' }, /PALLMIST_PORT is “high”; it should be a whole number/],
    [{ PALLMIST_PORT: '70000' }, /PALLMIST_PORT/],
    [{ PALLMIST_PUBLIC_URL: 'garden' }, /PALLMIST_PUBLIC_URL is “garden”/],
    [{ PALLMIST_LOG: 'loud', PALLMIST_PORT: '-1' }, /PALLMIST_PORT.*PALLMIST_LOG|PALLMIST_LOG.*PALLMIST_PORT/],
  ])('refuses %j in words', (environment, sentence) => {
    expect(() => readSettings(environment)).toThrow(sentence);
  });

  it('says that the port is in use', async () => {
    const data = mkdtempSync(join(tmpdir(), 'pallmist-test-'));
    await expect(startService({ ...settings, data, port: Number(new URL(service.base).port) })).rejects.toThrow(
      /is in use\. Stop what is there/,
    );
    rmSync(data, { recursive: true });
  });

  it('says that the database cannot be opened', async () => {
    const data = mkdtempSync(join(tmpdir(), 'pallmist-test-'));
    writeFileSync(join(data, 'pallmist.sqlite'), 'this is no database, however long one looks at it'.repeat(50));
    await expect(startService({ ...settings, data })).rejects.toThrow(/cannot be opened/);
    writeFileSync(join(data, 'plain-file'), '');
    await expect(startService({ ...settings, data: join(data, 'plain-file', 'below') })).rejects.toThrow(/cannot be used/);
    chmodSync(data, 0o700);
    rmSync(data, { recursive: true });
  });
});

describe('the console’s link', () => {
  it.each([
    ['keys.json', /has a database, but keys\.json is missing.*can no longer be opened/],
    ['pallmist.sqlite', /has keys\.json, but the database pallmist\.sqlite is missing/],
  ])('refuses other data without %s, and replaces nothing', async (missing, sentence) => {
    const data = mkdtempSync(join(tmpdir(), 'pallmist-test-'));
    const first = await startTestService({ data });
    await publishApp(first, 'little', littleApp({}));
    await first.stop();
    renameSync(join(data, missing), join(data, 'elsewhere'));
    await expect(startService({ ...settings, data })).rejects.toThrow(sentence);
    expect(existsSync(join(data, missing))).toBe(false);
    renameSync(join(data, 'elsewhere'), join(data, missing));
    await (await startService({ ...settings, data })).stop();
    rmSync(data, { recursive: true });
  });

  it('opens the console once, and is kept for the owner alone', async () => {
    const file = join(service.data, 'console-link.txt');
    expect(readFileSync(file, 'utf8').trim()).toBe(service.consoleLink);
    expect(statSync(file).mode & 0o077).toBe(0);
    expect(statSync(join(service.data, 'api-token')).mode & 0o077).toBe(0);
    const key = new URL(service.consoleLink).hash.slice('#key='.length);
    const enter = (given: string) =>
      fetch(`${service.base}/~/api/v1/console/enter`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ key: given }),
      });
    expect((await enter('guess')).status).toBe(401);
    const entered = await enter(key);
    const cookie = entered.headers.get('set-cookie') ?? '';
    expect(cookie).toMatch(/^pallmist_owner=.*Path=\/~\/;.*HttpOnly; SameSite=Strict/);
    expect((await enter(key)).status).toBe(401);
    const session = { cookie: cookie.split(';')[0] ?? '', 'content-type': 'application/json' };
    const list = (headers: Record<string, string>) => fetch(`${service.base}/~/api/v1/apps`, { headers: { ...session, ...headers } });
    expect((await list({})).status).toBe(200);
    const leave = (headers: Record<string, string>) =>
      fetch(`${service.base}/~/api/v1/console/leave`, { method: 'POST', headers: { ...session, ...headers } });
    expect((await leave({ 'sec-fetch-site': 'cross-site' })).status).toBe(401);
    expect((await leave({ 'sec-fetch-site': 'same-origin' })).status).toBe(200);
    expect((await list({})).status).toBe(401);
  });
});

it('keeps what was acknowledged: another start finds the draft and the edition', async () => {
  const source = 'pallmist: 1\napp: kept\ntitle: Kept\nmount: /kept\npages: { home: { title: Home, address: /, content: [] } }\n';
  const data = mkdtempSync(join(tmpdir(), 'pallmist-test-'));
  const first = await startTestService({ data });
  await first.apps.push('kept', { source });
  await first.apps.publish('kept', undefined);
  // While the first one is at work, no second one is.
  await expect(startService({ ...settings, data })).rejects.toThrow(/Another Pallmist service is using the directory/);
  await first.stop();
  const second = await startService({ ...settings, data });
  expect((await fetch(`${second.base}/kept`)).status).toBe(200);
  expect((await second.apps.draft('kept')).source).toBe(source);
  await second.stop();
  rmSync(data, { recursive: true });
});
