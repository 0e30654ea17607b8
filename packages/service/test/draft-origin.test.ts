// Drafts are at an origin of their own. What a browser gets there lets it look at drafts, and do nothing else: tested for
// every operation of the HTTP interface, as the list of operations has them.
import { operations, type Operation } from '@pallmist/api';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startTestService, type TestService } from '../../../test/support/garden-service.ts';
import { littleApp, publishApp } from '../../../test/support/little-app.ts';
import { readSettings } from '../src/index.ts';

let service: TestService;
let consoleCookie: string;
let look: string;
const draft = '/~/draft/little';
const password = 'quill-and-compost-19';
const pages = `
  home: { title: Home, address: '/{?q}', parameters: { q: { type: text } }, content: [{ show: heading, text: 'Home of {person.name}' }] }
  enter: { title: Enter, address: /enter, content: [{ show: sign-in }] }`;

const cookieOf = (answer: Response, name: string) =>
  (answer.headers.getSetCookie().find((set) => set.startsWith(`${name}=`)) ?? '').split(';')[0] ?? '';
const ask = (at: string, cookie = '', given: RequestInit = {}) =>
  fetch(at, { redirect: 'manual', ...given, headers: { 'sec-fetch-site': 'same-origin', cookie, ...(given.headers as object) } });
const lead = async (path: string, cookie = consoleCookie) => (await ask(service.base + path, cookie)).headers.get('location') ?? '';

beforeAll(async () => {
  service = await startTestService();
  await publishApp(service, 'little', littleApp({ more: 'signIn: { page: enter }', pages }));
  await service.owner('PUT', '/apps/little/people/ansa', { name: 'Ansa', password, roles: [] });
  const key = /#key=([\w-]+)$/.exec(service.consoleLink)?.[1];
  const entered = await ask(`${service.base}/~/api/v1/console/enter`, '', {
    method: 'POST',
    body: JSON.stringify({ key }),
    headers: { 'content-type': 'application/json' },
  });
  consoleCookie = cookieOf(entered, 'pallmist_owner');
  look = cookieOf(await ask(await lead(draft)), 'pallmist_look');
});
afterAll(() => service.stop());

it('the console leads to a draft by a ticket, which works once and for a minute', async () => {
  const address = await lead(`${draft}?q=fern`);
  expect(address).toMatch(new RegExp(`^${service.drafts}/~/enter\\?ticket=[\\w-]{32}$`));
  const entered = await ask(address);
  expect([entered.status, entered.headers.get('location')]).toEqual([303, `${draft}?q=fern`]);
  expect(entered.headers.get('set-cookie')).toMatch(/^pallmist_look=[^;]+; .*Path=\/~\/;.* HttpOnly; SameSite=Lax/);
  expect((await ask(service.drafts + draft, cookieOf(entered, 'pallmist_look'))).status).toBe(200);
  expect((await ask(address)).status).toBe(401);
  const late = await lead(draft);
  service.clock.forward(61_000);
  expect((await ask(late)).status).toBe(401);
  for (const guess of ['', '?ticket=', '?ticket=constructor', `?ticket=${'a'.repeat(32)}`])
    expect((await ask(`${service.drafts}/~/enter${guess}`)).status).toBe(401);
});

it('the session of the console is not valid for drafts, and the one for drafts is not valid for the console', async () => {
  const asOwner = look.replace('pallmist_look', 'pallmist_owner');
  expect((await ask(service.drafts + draft, consoleCookie)).status).toBe(401);
  expect((await ask(service.drafts + draft, consoleCookie.replace('pallmist_owner', 'pallmist_look'))).status).toBe(401);
  expect((await ask(service.base + draft, look)).status).toBe(401);
  for (const cookie of [look, asOwner]) expect((await ask(`${service.base}/~/api/v1/console/me`, cookie)).status).toBe(401);
});

describe.each(Object.entries(operations) as [string, Operation][])('%s', (_, { method, path, access }) => {
  const at = path.replace('{app}', 'little').replaceAll(/\{\w+\}/g, '1');
  const body = method === 'get' ? {} : { body: '{}', headers: { 'content-type': 'application/json' } };

  it('is not at the origin of drafts', async () => {
    for (const cookie of [look, consoleCookie])
      expect((await ask(`${service.drafts}/~/api/v1${at}`, cookie, { method: method.toUpperCase(), ...body })).status).toBe(404);
  });

  it('is refused to a page of a draft, which has the console’s cookie on the same host', async () => {
    if (access === 'open') return;
    const headers = { ...body.headers, origin: service.drafts, 'sec-fetch-site': 'same-site' };
    const both = `${consoleCookie}; ${look}`;
    const answer = await ask(`${service.base}/~/api/v1${at}`, both, { method: method.toUpperCase(), ...body, headers });
    // What a page may not read, the browser keeps from it: no header lets it.
    expect(answer.headers.get('access-control-allow-origin')).toBeNull();
    if (method !== 'get') expect(answer.status).toBe(401);
  });
});

it.each(['/~/console/', '/~/console/little', '/~/api', '/~/api/v1/openapi.json', '/~/docs', '/~/health', '/', '/little'])(
  'there is no %s at the origin of drafts',
  async (path) => {
    expect((await ask(service.drafts + path, look)).status).toBe(404);
  },
);

it('only the console may show a draft in a frame, and the console shows nothing but drafts', async () => {
  const policy = async (at: string, cookie: string) => (await ask(at, cookie)).headers.get('content-security-policy') ?? '';
  const consoleOf = (base: string) => base.replace('127.0.0.1', 'localhost');
  expect(await policy(service.drafts + draft, look)).toContain(`frame-ancestors ${service.base}`);
  expect(await policy(consoleOf(service.drafts) + draft, look)).toContain(`frame-ancestors ${consoleOf(service.base)}`);
  expect(await policy(`${service.base}/~/console/`, consoleCookie)).toContain(`frame-src 'self' ${service.drafts}`);
  expect(await policy(`${service.base}/little`, '')).toMatch(/frame-src 'none';.*frame-ancestors 'none'/);
});

it('a draft is tried as a person of the app, and as nobody again', async () => {
  const tryAs = async (body: object) =>
    (await ask(`${service.base}/~/api/v1/apps/little/try-as`, consoleCookie, {
      method: 'POST',
      body: JSON.stringify(body),
      headers: { 'content-type': 'application/json' },
    })) as Response & { json: () => Promise<{ address: string }> };
  const { address } = await (await tryAs({ login: 'ansa', to: `${draft}?q=moss` })).json();
  const entered = await ask(address, look);
  expect(entered.headers.get('location')).toBe(`${draft}?q=moss`);
  const person = cookieOf(entered, 'pallmist_little_draft_person');
  expect(await (await ask(service.drafts + draft, `${look}; ${person}`)).text()).toContain('Home of Ansa');
  const left = await ask((await (await tryAs({ login: null })).json()).address, `${look}; ${person}`);
  expect(cookieOf(left, 'pallmist_little_draft_person')).toBe('pallmist_little_draft_person=');
  expect(await (await ask(service.drafts + draft, `${look}; ${person}`)).text()).not.toContain('Home of Ansa');
  for (const to of ['/little', '/~/draft/littlest', '//evil.example', '/~/draft/little/../other\\', 'https://evil.example/~/draft/little'])
    expect([to, (await tryAs({ login: 'ansa', to })).status]).toEqual([to, 422]);
});

it('looking ends when the console is left', async () => {
  expect((await ask(service.drafts + draft, look)).status).toBe(200);
  await ask(`${service.base}/~/api/v1/console/leave`, consoleCookie, { method: 'POST' });
  expect((await ask(service.drafts + draft, look)).status).toBe(401);
});

describe('behind a proxy', () => {
  it('drafts need a URL, and say so until they have one', async () => {
    const behind = await startTestService({ publicUrl: 'https://garden.example' });
    try {
      await publishApp(behind, 'little', littleApp({ pages }));
      const owner = { headers: { authorization: `Bearer ${behind.token}` } };
      const shown = await ask(behind.base + draft, '', owner);
      expect([shown.status, await shown.text()]).toEqual([503, expect.stringContaining('PALLMIST_DRAFT_URL') as string]);
      expect(await (await ask(`${behind.base}/~/api/v1/console/me`, '', owner)).json()).toMatchObject({ drafts: null });
    } finally {
      await behind.stop();
    }
  });

  it('each origin has its own URL, which cookies and frames go by', async () => {
    const behind = await startTestService({ publicUrl: 'https://garden.example', draftUrl: 'https://drafts.garden.example/' });
    try {
      await publishApp(behind, 'little', littleApp({ pages }));
      const owner = { headers: { authorization: `Bearer ${behind.token}` } };
      expect((await ask(behind.base + draft, '', owner)).headers.get('location')).toBe(`https://drafts.garden.example${draft}`);
      const shown = await ask(behind.drafts + draft, '', owner);
      expect(shown.headers.get('content-security-policy')).toContain('frame-ancestors https://garden.example');
      expect(shown.headers.get('strict-transport-security')).toMatch(/max-age/);
    } finally {
      await behind.stop();
    }
  });

  it('both URLs with one origin are refused at start', () => {
    const both = { PALLMIST_PUBLIC_URL: 'https://garden.example/', PALLMIST_DRAFT_URL: 'https://garden.example:443/drafts' };
    expect(() => readSettings(both)).toThrow('PALLMIST_DRAFT_URL has the origin of PALLMIST_PUBLIC_URL');
  });
});
