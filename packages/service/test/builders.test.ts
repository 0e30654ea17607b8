import { PallmistClient } from '@pallmist/api';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { startTestService, type TestService } from '../../../test/support/garden-service.ts';
import { littleApp } from '../../../test/support/little-app.ts';

let service: TestService;
beforeAll(async () => {
  service = await startTestService();
  await service.apps.push('little', { source: littleApp({}) });
  await service.apps.publish('little');
});
afterAll(() => service.stop());

/** A browser that keeps the console’s cookie and asks from this very site. */
class Browser {
  #cookie = '';
  async call(method: string, path: string, body?: unknown): Promise<{ status: number; body: Record<string, unknown> }> {
    const response = await fetch(`${service.base}/~/api/v1${path}`, {
      method,
      headers: { 'content-type': 'application/json', 'sec-fetch-site': 'same-origin', cookie: this.#cookie },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    const [set] = response.headers.getSetCookie();
    if (set?.startsWith('pallmist_owner=') === true) this.#cookie = set.split(';')[0] ?? '';
    return { status: response.status, body: (await response.json()) as Record<string, unknown> };
  }
}

const password = 'quill-and-compost-19';
async function invite(mail: string, role: string, send = false): Promise<string> {
  const answer = await service.owner('POST', '/builders', { mail, role, send });
  const { link } = (await answer.json()) as { link: string };
  return /#invited=([\w-]+)$/.exec(link)?.[1] ?? '';
}
async function accepted(mail: string, role: string, name: string): Promise<Browser> {
  const browser = new Browser();
  expect((await browser.call('POST', '/console/accept', { key: await invite(mail, role), name, password })).status).toBe(200);
  return browser;
}

it('lets an invited builder in once, by a password of their own, and signs them in again', async () => {
  const key = await invite('Odo@Moor.example', 'builder');
  const browser = new Browser();
  const weak = await browser.call('POST', '/console/accept', { key, name: 'Odo', password: 'password' });
  expect(weak).toMatchObject({ status: 422, body: { problems: [{ code: 'weak-password' }] } });
  expect((await browser.call('POST', '/console/accept', { key, name: 'Odo', password })).body).toMatchObject({
    name: 'Odo',
    role: 'builder',
  });
  expect((await browser.call('GET', '/console/me')).body).toMatchObject({ name: 'Odo', role: 'builder' });
  expect((await new Browser().call('POST', '/console/accept', { key, name: 'Eve', password })).status).toBe(401);
  const again = new Browser();
  expect((await again.call('POST', '/console/sign-in', { mail: 'odo@moor.example', password: 'wrong' })).status).toBe(401);
  expect((await again.call('GET', '/apps')).status).toBe(401);
  expect((await again.call('POST', '/console/sign-in', { mail: 'odo@moor.example', password })).status).toBe(200);
  expect((await again.call('GET', '/apps')).status).toBe(200);
});

it('lets an invitation end after seven days, and writes it into the outbox if asked to', async () => {
  const key = await invite('late@moor.example', 'viewer', true);
  const mails = (await (await service.owner('GET', '/mails')).json()) as { mails: { number: number; recipient: string; text: string }[] };
  expect(mails.mails[0]).toMatchObject({ recipient: 'late@moor.example' });
  expect(mails.mails[0]?.text).not.toContain(key);
  const whole = (await (await service.owner('GET', `/mails/${String(mails.mails[0]?.number)}`)).json()) as { text: string };
  expect(whole.text).toContain(key);
  service.clock.forward(7 * 24 * 60 * 60 * 1000 + 1000);
  expect((await new Browser().call('POST', '/console/accept', { key, name: 'Late', password })).status).toBe(401);
});

it('lets a viewer look and try, a builder change and publish, and the owner alone keep team and keys', async () => {
  const viewer = await accepted('viewer@moor.example', 'viewer', 'Vera');
  const builder = await accepted('builder@moor.example', 'builder', 'Bela');
  const { revision } = (await viewer.call('GET', '/apps/little/draft')).body as { revision: number };
  const change = { revision, patch: [{ op: 'replace', path: '/title', value: 'Changed' }], what: 'Changed the title' };
  expect(await viewer.call('POST', '/apps/little/draft/changes', change)).toMatchObject({
    status: 403,
    body: { detail: expect.stringContaining('not change it') as string },
  });
  expect((await viewer.call('POST', '/apps/little/try-as', { login: null })).status).toBe(200);
  expect((await viewer.call('POST', '/apps/little/publish', {})).status).toBe(403);
  expect((await builder.call('POST', '/apps/little/draft/changes', change)).body).toMatchObject({
    outcome: 'changed',
    revision: revision + 1,
  });
  expect((await builder.call('POST', '/apps/little/publish', { note: 'A better title' })).status).toBe(200);
  for (const [method, path] of [
    ['POST', '/keys'],
    ['POST', '/builders'],
    ['POST', '/token'],
  ] as const)
    expect(
      (await builder.call(method, path, method === 'POST' && path === '/builders' ? { mail: 'x@y.example', role: 'owner' } : undefined))
        .status,
    ).toBe(403);
  const log = (await viewer.call('GET', '/apps/little/draft/changes')).body as { changes: { by: string; what: string }[] };
  expect(log.changes[0]).toMatchObject({ by: 'Bela', what: 'Changed the title' });
  const { editions } = (await viewer.call('GET', '/apps/little/editions')).body as { editions: object[] };
  expect(editions[0]).toMatchObject({ number: 2, by: 'Bela', note: 'A better title' });
});

it('closes the console of a builder who is removed, and follows a new role at once', async () => {
  const browser = await accepted('gone@moor.example', 'builder', 'Gone');
  const { builders } = (await (await service.owner('GET', '/builders')).json()) as { builders: { id: string; mail: string }[] };
  const { id = '' } = builders.find(({ mail }) => mail === 'gone@moor.example') ?? {};
  await service.owner('PUT', `/builders/${id}`, { role: 'viewer' });
  expect((await browser.call('GET', '/console/me')).body['role']).toBe('viewer');
  await service.owner('DELETE', `/builders/${id}`);
  expect((await browser.call('GET', '/console/me')).status).toBe(401);
  expect((await service.owner('DELETE', `/builders/${id}`)).status).toBe(404);
});

it('makes changes to different places on top of each other, and asks where they meet', async () => {
  const client = new PallmistClient({ base: service.base, token: service.token });
  const { revision } = await client.call('getDraft', { app: 'little' });
  const change = (path: string, value: unknown, seen = revision) =>
    client.call('changeDraft', { app: 'little' }, { revision: seen, patch: [{ op: 'replace', path, value }], what: `Changed ${path}` });
  expect(await change('/title', 'One')).toMatchObject({ outcome: 'changed', revision: revision + 1, others: [] });
  const [page = ''] = Object.keys(((await client.call('getDraft', { app: 'little' })).data as { pages: object }).pages);
  const second = await change(`/pages/${page}/title`, 'Two');
  expect(second).toMatchObject({ outcome: 'changed', revision: revision + 2, others: [{ what: 'Changed /title' }] });
  expect(await change('/title', 'Three')).toMatchObject({ outcome: 'asked', revision: revision + 2 });
  expect((await client.call('getDraft', { app: 'little' })).data).toMatchObject({ title: 'One', pages: { [page]: { title: 'Two' } } });
  await expect(change('/nothing/here', 1, revision + 2)).rejects.toMatchObject({ status: 422 });
  await expect(change('/app', 'other', revision + 2)).rejects.toMatchObject({ status: 422 });
  await expect(change('/title', 'x', revision + 99)).rejects.toMatchObject({ status: 409 });
});

it('tells everyone who has the draft open what has changed, and who is there', async () => {
  const aborter = new AbortController();
  const response = await fetch(`${service.base}/~/api/v1/apps/little/draft/events`, {
    headers: { authorization: `Bearer ${service.token}` },
    signal: aborter.signal,
  });
  expect(response.headers.get('content-type')).toContain('text/event-stream');
  const reader = response.body?.pipeThrough(new TextDecoderStream()).getReader();
  let heard = '';
  const until = async (words: string) => {
    while (!heard.includes(words)) heard += (await reader?.read())?.value ?? '';
  };
  await until('"kind":"here","builders":["The owner"]');
  const client = new PallmistClient({ base: service.base, token: service.token });
  const { revision } = await client.call('getDraft', { app: 'little' });
  await client.call(
    'changeDraft',
    { app: 'little' },
    { revision, patch: [{ op: 'replace', path: '/title', value: 'Heard' }], what: 'Said' },
  );
  await until('"what":"Said","patch":[{"op":"replace","path":"/title","value":"Heard"}]');
  aborter.abort();
  const stranger = await fetch(`${service.base}/~/api/v1/apps/little/draft/events`);
  expect(stranger.status).toBe(401);
});

it('limits tries for one account from everywhere, and does not lock its builder out of a browser that signed in before', async () => {
  const far = await startTestService({ trustProxy: 1 });
  try {
    const answer = await far.owner('POST', '/builders', { mail: 'ulla@moor.example', role: 'builder' });
    const key = /#invited=([\w-]+)$/.exec(((await answer.json()) as { link: string }).link)?.[1] ?? '';
    const ask = (path: string, body: unknown, from: string, cookie = '') =>
      fetch(`${far.base}/~/api/v1/console/${path}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'sec-fetch-site': 'same-origin', 'x-forwarded-for': from, cookie },
        body: JSON.stringify(body),
      });
    const entered = await ask('accept', { key, name: 'Ulla', password }, '192.0.2.1');
    const device = entered.headers
      .getSetCookie()
      .map((set) => set.split(';')[0])
      .find((set) => set?.startsWith('pallmist_device='));
    const signIn = (word: string, from: string, cookie = '') => ask('sign-in', { mail: 'Ulla@moor.example', password: word }, from, cookie);
    for (let index = 0; index < 60; index++) expect((await signIn('wrong', `198.51.100.${String(index)}`)).status).toBe(401);
    const locked = await signIn(password, '203.0.113.7');
    expect(locked.status).toBe(429);
    expect(locked.headers.get('retry-after')).toMatch(/^\d+$/);
    expect((await signIn(password, '203.0.113.7', device)).status).toBe(200);
    far.clock.forward(16 * 60_000);
    expect((await signIn(password, '203.0.113.7')).status).toBe(200);
  } finally {
    await far.stop();
  }
});
