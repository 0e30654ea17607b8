import { createServer, request as ask, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { keeper, startGarden, type TestService } from '../../../test/support/garden-service.ts';
import { Visitor } from '../../../test/support/visitor.ts';

const publicUrl = 'https://quillmoor.example';
let service: TestService;
let proxy: Server;
let front: string;

/**
 * A proxy as they stand in front of services: it ends TLS, asks under a name of its own, and adds whom it asks for.
 * Who the client is, tests say by a header, since all of them come from this machine.
 */
function startProxy(): Promise<Server> {
  const server = createServer((incoming, outgoing) => {
    const { 'x-client': client, 'x-forwarded-for': claimed, ...headers } = incoming.headers;
    const forwarded = [claimed, client ?? '192.0.2.1'].filter((address) => address !== undefined).join(', ');
    const { hostname, port } = new URL(service.base);
    const asked = ask(
      {
        hostname,
        port,
        path: incoming.url,
        method: incoming.method,
        headers: {
          ...headers,
          host: 'inner.invalid',
          'x-forwarded-for': forwarded,
          'x-forwarded-proto': 'https',
          'x-forwarded-host': 'evil.example',
        },
      },
      (answer) => {
        outgoing.writeHead(answer.statusCode ?? 502, answer.headers);
        answer.pipe(outgoing);
      },
    );
    incoming.pipe(asked);
  });
  return new Promise((resolve) => server.listen(0, '127.0.0.1', () => resolve(server)));
}

beforeAll(async () => {
  service = await startGarden({ publicUrl, trustProxy: 1 });
  proxy = await startProxy();
  front = `http://127.0.0.1:${String((proxy.address() as AddressInfo).port)}`;
});
afterAll(async () => {
  proxy.close();
  await service.stop();
});

it('everything that leaves carries the public address, whatever the proxy calls the service', async () => {
  const visitor = new Visitor(front);
  const pages = [await visitor.text('/garden'), await visitor.text('/garden/specimens?q=fern'), await visitor.text('/garden/nowhere')];
  for (const text of pages) expect(text).not.toMatch(/inner\.invalid|evil\.example|127\.0\.0\.1/);
  await visitor.send('/garden/specimens/QM-0412?adopt=true', { '~form': 'adopt', name: 'Ada', mail: 'ada@quillmoor.example' });
  await visitor.send('/garden/sign-in', { '~mail': keeper.mail });
  await expect.poll(async () => (await service.store.mails.list(undefined, undefined, 9)).length).toBe(2);
  for (const { text, html } of await service.store.mails.list(undefined, undefined, 9)) {
    const links = [...`${text} ${html}`.matchAll(/https?:\/\/[^/\s"]+/g)].map(([beginning]) => beginning);
    expect(links.length).toBeGreaterThan(1);
    expect(new Set(links)).toEqual(new Set([publicUrl]));
  }
  const short = await visitor.send('/garden/~s', { of: '/garden/specimens?q=fern' }, { accept: 'application/json' });
  expect(((await short.json()) as { short: string }).short).toMatch(/^https:\/\/quillmoor\.example\/garden\/~s\//);
});

it('cookies are for TLS only, redirects stay paths, and TLS is promised', async () => {
  const visitor = new Visitor(front);
  const answer = await visitor.send('/garden/sign-in', {
    '~name': keeper.login,
    '~password': keeper.password,
    '~wanted': '/garden/ledger',
  });
  expect(answer.headers.get('location')).toBe('/garden/ledger');
  expect(answer.headers.get('set-cookie')).toMatch(/HttpOnly; Secure; SameSite=Lax/);
  expect(answer.headers.get('strict-transport-security')).toMatch(/max-age=/);
  expect((await visitor.get('/garden/ledger')).status).toBe(200);
});

it('a form comes from this site when it comes from the public address, and the way back is known by it', async () => {
  const visitor = new Visitor(front);
  const note = { '~form': 'write-note', heading: 'Seen', body: '', day: '2026-11-20' };
  const send = (origin: string) => visitor.send('/garden/specimens/QM-0412?write=true', note, { origin });
  expect((await send(publicUrl)).status).toBe(303);
  for (const origin of ['https://evil.example', 'http://quillmoor.example', 'http://inner.invalid', 'null'])
    expect((await send(origin)).status, origin).toBe(403);
  const back = async (referer: string) =>
    (await (await visitor.get('/garden/specimens/QM-0412', { referer })).text()).includes('/garden/specimens?q=fern"');
  expect(await back(`${publicUrl}/garden/specimens?q=fern`)).toBe(true);
  expect(await back('https://evil.example/garden/specimens?q=fern')).toBe(false);
});

it('who guesses passwords is stopped by where they come from, whatever they claim, and nobody else is', async () => {
  const guess = (client: string, claimed: string) =>
    fetch(`${front}/garden/sign-in`, {
      method: 'POST',
      redirect: 'manual',
      body: new URLSearchParams({ '~name': keeper.login, '~password': 'guess' }),
      headers: { 'x-client': client, 'x-forwarded-for': claimed },
    }).then((answer) => answer.headers.get('location'));
  const answers = await Promise.all(Array.from({ length: 34 }, (_, time) => guess('198.51.100.7', `203.0.113.${String(time)}`)));
  expect(answers.filter((location) => location?.endsWith('~why=too-many-tries')).length).toBe(4);
  expect(await guess('198.51.100.8', '198.51.100.7')).toMatch(/~why=wrong-password$/);
});
