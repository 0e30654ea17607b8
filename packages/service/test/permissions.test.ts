// Every operation by every kind of caller, allowed or refused as the list of operations says: from it the documentation and
// the router are made too. What is not in it, event streams and files, stands below.
import { operations, scopeNames, type Operation, type OperationName, type Scope } from '@pallmist/api';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startTestService, type TestService } from '../../../test/support/garden-service.ts';
import { littleApp, publishApp } from '../../../test/support/little-app.ts';
import { Visitor } from '../../../test/support/visitor.ts';

type Headers = Record<string, string>;
let service: TestService;
const cookies = new Map<string, string>();
const tokens = new Map<Scope | 'all' | 'elsewhere', string>();
const password = 'quill-and-compost-19';

async function invited(mail: string, role: string): Promise<string> {
  const { link } = (await (await service.owner('POST', '/builders', { mail, role })).json()) as { link: string };
  const key = /#invited=([\w-]+)$/.exec(link)?.[1];
  const answer = await fetch(`${service.base}/~/api/v1/console/accept`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'sec-fetch-site': 'same-origin' },
    body: JSON.stringify({ key, name: mail, password }),
  });
  return (answer.headers.getSetCookie().find((set) => set.startsWith('pallmist_owner=')) ?? '').split(';')[0] ?? '';
}

const madeToken = async (scopes: readonly Scope[], app?: string) => {
  const answer = await service.owner('POST', '/tokens', {
    name: scopes.join(' ').slice(0, 60),
    scopes,
    ...(app === undefined ? {} : { app }),
  });
  return ((await answer.json()) as { token: string }).token;
};

beforeAll(async () => {
  service = await startTestService();
  await publishApp(
    service,
    'little',
    littleApp({
      more: 'signIn: { page: enter }',
      pages: `
  home: { title: Home, address: /, content: [{ show: heading, text: Home }] }
  enter: { title: Enter, address: /enter, content: [{ show: sign-in }] }`,
    }),
  );
  await publishApp(service, 'other', littleApp({ app: 'other', mount: '/other' }));
  await service.owner('PUT', '/apps/little/people/ansa', { name: 'Ansa', password, roles: ['keeper'] });
  const visitor = new Visitor(service.base);
  await visitor.send('/little/enter', { '~name': 'ansa', '~password': password });
  cookies.set('person', `pallmist_little_person=${visitor.cookie('pallmist_little_person') ?? ''}`);
  cookies.set('viewer', await invited('viewer@moor.example', 'viewer'));
  cookies.set('builder', await invited('builder@moor.example', 'builder'));
  cookies.set('owner', await invited('owner@moor.example', 'owner'));
  tokens.set('all', await madeToken(scopeNames));
  tokens.set('elsewhere', await madeToken(scopeNames, 'other'));
  for (const scope of scopeNames) tokens.set(scope, await madeToken([scope]));
}, 120_000);
afterAll(() => service.stop());

/** Calls an operation of an app that is there, with a body that no operation takes: only who asks decides between 401, 403 and the rest. */
function call({ method, path }: Pick<Operation, 'method' | 'path'>, headers: Headers): Promise<Response> {
  const given: Record<string, string> = {
    app: 'little',
    number: '999',
    later: '999',
    collection: 'none',
    key: 'none',
    id: 'none',
    login: 'none',
    code: 'none',
    name: 'none.png',
    mail: 'none',
  };
  const filled = path.replaceAll(/\{(\w+)\}/g, (_, name: string) => given[name] ?? 'none');
  const body = method === 'get' || method === 'delete' ? {} : { body: '[]' };
  return fetch(`${service.base}/~/api/v1${filled}`, {
    method: method.toUpperCase(),
    headers: { 'content-type': 'application/json', 'sec-fetch-site': 'same-origin', ...headers },
    ...body,
  });
}

const ranks = ['viewer', 'builder', 'owner'];
/** Operations without a body or an app, which would do what they say. */
const carriedOut = new Set<OperationName>(['renewToken', 'endConsoleSessions', 'leaveConsole', 'rotateKeys']);
const named = Object.entries(operations) as [OperationName, Operation][];

describe.each(named)('%s', (name, operation) => {
  const { access, scope } = operation;
  const isRefused = async (headers: Headers) => [401, 403].includes((await call(operation, headers)).status);

  it.each(['nobody', 'person', 'viewer', 'builder', 'owner'])(`is for ${access}: asked by %s`, async (who) => {
    const allowed = access === 'open' || ranks.indexOf(who) >= ranks.indexOf(access);
    if (allowed && carriedOut.has(name)) return;
    // Wrong credentials in the body are refused with 401 as well.
    if (access === 'open') return;
    expect(await isRefused({ cookie: cookies.get(who) ?? '' })).toBe(!allowed);
  });

  it(`takes tokens with ${scope ?? 'no scope at all'}`, async () => {
    if (access === 'open' || carriedOut.has(name)) return;
    const bearer = (token: string | undefined): Headers => ({ authorization: `Bearer ${token ?? ''}` });
    expect(await isRefused(bearer(tokens.get('all')))).toBe(scope === undefined);
    for (const one of scopeNames) expect([one, await isRefused(bearer(tokens.get(one)))]).toEqual([one, one !== scope]);
    // A token of another app may do nothing here; what is about all apps is not for it either.
    expect(await isRefused(bearer(tokens.get('elsewhere')))).toBe(true);
    expect(await isRefused(bearer('no-token'))).toBe(true);
  });

  it('is not carried out for a page of another site', async () => {
    if (access === 'open' || operation.method === 'get') return;
    const answer = await call(operation, { cookie: cookies.get('owner') ?? '', 'sec-fetch-site': 'cross-site' });
    expect([401, 403]).toContain(answer.status);
  });
});

describe('what a role is not to know', () => {
  it.each(['viewer', 'builder'])('a %s neither seals values nor opens them', async (who) => {
    const sealing = littleApp({
      app: 'secret',
      mount: '/secret',
      pages: `
  home: { title: Home, address: '/{?card}', parameters: { card: { type: text, sealed: true, label: Card } }, content: [{ show: heading, text: Home }] }`,
    });
    await publishApp(service, 'secret', sealing);
    const ask = async (operation: string, body: object, headers: Headers) =>
      (await (
        await fetch(`${service.base}/~/api/v1/apps/secret/${operation}`, {
          method: 'POST',
          headers: { 'content-type': 'application/json', 'sec-fetch-site': 'same-origin', ...headers },
          body: JSON.stringify(body),
        })
      ).json()) as { address?: string; values?: object };
    const { address = '' } = await ask('write', { page: 'home', values: { card: 'A-7' } }, { authorization: `Bearer ${service.token}` });
    expect(address).toMatch(/card=ey/);
    for (const headers of [{ cookie: cookies.get(who) ?? '' }, { authorization: `Bearer ${tokens.get('all') ?? ''}` }] as Headers[]) {
      expect(JSON.stringify(await ask('read', { address }, headers))).not.toContain('A-7');
      expect(JSON.stringify(await ask('write', { page: 'home', values: { card: 'A-7' } }, headers))).not.toMatch(/card=ey/);
    }
    expect(await ask('read', { address }, { authorization: `Bearer ${service.token}` })).toMatchObject({ values: { card: 'A-7' } });
  });

  it('a one-time link is in no list of mails, for nobody; the owner reads one mail whole', async () => {
    await service.owner('POST', '/builders', { mail: 'new@moor.example', role: 'viewer', send: true });
    const { mails } = (await (await service.owner('GET', '/mails')).json()) as { mails: { number: number; text: string; html: string }[] };
    expect(JSON.stringify(mails)).toContain('#invited=…');
    expect(JSON.stringify(mails)).not.toMatch(/#invited=[\w-]/);
    const whole = await (await service.owner('GET', `/mails/${String(mails[0]?.number)}`)).text();
    expect(whole).toMatch(/#invited=[\w-]{20}/);
    const builder = await call({ method: 'get', path: `/mails/${String(mails[0]?.number)}` }, { cookie: cookies.get('builder') ?? '' });
    expect(builder.status).toBe(403);
  });
});

describe('an event stream', () => {
  const open = (headers: Headers) => fetch(`${service.base}/~/api/v1/apps/little/draft/events`, { headers });
  /** Whether the service ends a stream within a while. */
  const ends = async (answer: Response) => {
    const reader = answer.body?.getReader();
    for (;;) {
      const { done } = (await reader?.read()) ?? { done: true };
      if (done) return true;
    }
  };

  it('is for those who may look at the draft', async () => {
    expect((await open({})).status).toBe(401);
    expect((await open({ cookie: cookies.get('person') ?? '' })).status).toBe(401);
    expect((await open({ authorization: `Bearer ${tokens.get('elsewhere') ?? ''}` })).status).toBe(403);
  });

  it('ends when its builder is removed, when its token ends, and when all consoles are closed', async () => {
    const cookie = await invited('gone@moor.example', 'builder');
    const stream = await open({ cookie });
    expect(stream.status).toBe(200);
    const { builders } = (await (await service.owner('GET', '/builders')).json()) as { builders: { id: string; mail: string }[] };
    await service.owner('DELETE', `/builders/${builders.find(({ mail }) => mail === 'gone@moor.example')?.id ?? ''}`);
    expect(await ends(stream)).toBe(true);

    const token = await madeToken(['apps:read'], 'little');
    const streamOfToken = await open({ authorization: `Bearer ${token}` });
    expect(streamOfToken.status).toBe(200);
    const { tokens: all } = (await (await service.owner('GET', '/tokens')).json()) as {
      tokens: { id: string; name: string; app: string | null }[];
    };
    await service.owner('DELETE', `/tokens/${all.find(({ app, name }) => app === 'little' && name === 'apps:read')?.id ?? ''}`);
    expect(await ends(streamOfToken)).toBe(true);

    const again = await invited('again@moor.example', 'viewer');
    const third = await open({ cookie: again });
    const ended = await service.owner('POST', '/console/end-sessions');
    expect(((await ended.json()) as { ended: number }).ended).toBeGreaterThanOrEqual(2);
    expect(await ends(third)).toBe(true);
    expect((await open({ cookie: again })).status).toBe(401);
  });
});

it('a mailed sign-in link works no more after a new password or a new mail address', async () => {
  const { entryLinks } = service.store;
  const token = (await entryLinks.make('live:little', 'ansa', undefined, 60_000)) ?? '';
  expect(await entryLinks.login('live:little', token)).toBe('ansa');
  await service.owner('PUT', '/apps/little/people/ansa', { name: 'Ansa', password, roles: [], mail: 'new@moor.example' });
  expect(await entryLinks.login('live:little', token)).toBeUndefined();
});
