import { connect } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { keeper, startGarden, type TestService } from '../../../test/support/garden-service.ts';
import { Visitor } from '../../../test/support/visitor.ts';

let service: TestService;
beforeAll(async () => {
  service = await startGarden();
});
afterAll(() => service.stop());

const get = (path: string, headers: Record<string, string> = {}) => fetch(service.base + path, { redirect: 'manual', headers });

/** Sends a path as it stands: `fetch` would tidy it up first. */
const raw = (path: string) =>
  new Promise<string>((resolve, reject) => {
    const { port, hostname } = new URL(service.base);
    const socket = connect(Number(port), hostname, () => socket.write(`GET ${path} HTTP/1.1\r\nhost: x\r\nconnection: close\r\n\r\n`));
    let answer = '';
    socket.on('data', (chunk: Buffer) => (answer += chunk.toString()));
    socket.on('end', () => resolve(answer));
    socket.on('error', reject);
  });

describe('whatever the address', () => {
  it.each([
    ['/garden/specimens?q=%', 200],
    ['/garden/specimens?q=%ff%fe', 200],
    ['/garden/specimens?page=2&page=3', 200],
    ['/garden/specimens?health=green', 200],
    ['/garden/specimens?house=nowhere', 200],
    // These are not in the written form.
    ["/garden/specimens?q='%20OR%201=1%20--", 303],
    ['/garden/specimens?q=%22%3E%3Cscript%3Ealert(1)%3C/script%3E', 303],
    ['/garden/specimens?q=%27%20OR%201%3D1%20--x', 200],
    ['/garden/specimens?q=%22%3E%3Cscript%3Ealert%281%29%3C%2Fscript%3E', 200],
    ['/garden/specimens?page=999', 200],
    ['/garden/specimens/QM-9999', 404],
    ['/garden/specimens/%00', 404],
    ['/garden/specimens/%zz', 404],
    ['/garden/speciments', 404],
    ['/garden/../../../etc/passwd', 404],
    ['/nowhere', 404],
    ['/', 404],
    ['//x', 404],
    ['/\\x', 400],
    ['/~/nothing', 404],
    ['/~/assets/../../../package.json', 404],
    [`/garden/specimens?q=${'x'.repeat(70_000)}`, 414],
    [`/${'x'.repeat(600_000)}`, 431],
    ['/garden/specimens?' + 'a=1&'.repeat(900), 200],
    ['/garden/specimens?' + 'a=1&'.repeat(10_000), 414],
  ])('%s is answered with a page, %i', async (path, status) => {
    const answer = await raw(path);
    expect(answer.slice(0, 40)).toMatch(new RegExp(`^HTTP/1.1 ${path === '/\\x' ? '4\\d\\d' : String(status)} `));
    expect(answer).not.toMatch(/<script>alert|at .*\.(?:js|ts):\d+/);
  });

  it('a record that belongs to another one is refused by name, and not shown under a heading that is not its own', async () => {
    const { records } = service.store;
    const { collections = {} } = service.live.byName('quillmoor')?.definition ?? {};
    const noteOf = async (operator: 'before' | 'equals', value: string) => {
      const where = [{ field: 'specimen', operator, value }];
      return (await records.read('quillmoor', collections, { from: 'notes', where, sort: [], page: 1, size: 1, nothing: false })).rows[0];
    };
    const [own, other] = [await noteOf('equals', 'QM-0412'), await noteOf('before', 'QM-0412')];
    const heading = String(other?.['heading']).slice(0, 20);
    const right = await (await get(`/garden/specimens/QM-0412?tab=notes&note=${String(own?.['number'])}`)).text();
    expect(right).not.toContain('does not belong');
    const wrong = await (await get(`/garden/specimens/QM-0412?tab=notes&note=${String(other?.['number'])}`)).text();
    expect(wrong).toContain(`“Open note” cannot be “${String(other?.['number'])}”: It does not belong to “Specimen” of this address.`);
    expect(wrong).not.toContain(heading);
  });

  it('says on the page what was wrong, and shows it with the default', async () => {
    const page = await (await get('/garden/specimens?health=thriv')).text();
    expect(page).toContain('“Health” cannot be “thriv”');
    expect(page).toContain('of 640');
  });

  it('takes nothing by methods that a page does not have', async () => {
    for (const method of ['POST', 'PUT', 'DELETE']) expect((await fetch(`${service.base}/garden/houses`, { method })).status).toBe(405);
  });
});

describe('an address of the past', () => {
  it.each([
    ['/garden/plants/QM-0412', '/garden/specimens/QM-0412'],
    ['/garden/plants/QM-0412?tab=log&x=1', '/garden/specimens/QM-0412?tab=care&x=1'],
    ['/garden/specimens?search=fern', '/garden/specimens?q=fern'],
  ])('%s is redirected for good to %s', async (former, today) => {
    const response = await get(former);
    expect([response.status, response.headers.get('location')]).toEqual([301, today]);
    expect((await get(today)).status).toBe(200);
  });
});

describe('a page without JavaScript', () => {
  it('is whole: what the address says is in it, and every control leads somewhere', async () => {
    const page = await (await get('/garden/specimens?q=quill&house=palm&sort=-height')).text();
    const names = [...page.matchAll(/href="\/garden\/specimens\/QM-\d{4}"[^>]*>([^<]+)</g)].map(([, name]) => name);
    expect(names.length).toBeGreaterThan(0);
    expect(names.every((name) => name?.startsWith('Quill '))).toBe(true);
    expect(page).toContain('<input type="hidden" name="house" value="palm"/>');
    expect(page).toContain('href="/garden/specimens?q=quill&amp;house=palm&amp;sort=height"');
  });

  it('finds accents and capitals folded', async () => {
    expect(await (await get('/garden/specimens?q=ECLAIR')).text()).toContain('Éclair ');
    expect(await (await get('/garden/specimens?q=%C3%B3m%C3%B3ri')).text()).toContain('Ōmori ');
  });

  it('has no inline script, and a policy that would stop one', async () => {
    const response = await get('/garden/specimens/QM-0412?tab=care');
    expect(response.headers.get('content-security-policy')).toContain("script-src 'self';");
    expect((await response.text()).match(/<script(?![^>]*(?:src=|application\/json))/g)).toBeNull();
  });
});

describe('signing in', () => {
  const wanted = '/garden/care-rounds?day=2026-11-18&task=water';
  const send = (fields: Record<string, string>, headers: Record<string, string> = {}) =>
    fetch(`${service.base}/garden/sign-in`, { method: 'POST', redirect: 'manual', body: new URLSearchParams(fields), headers });
  const right = { '~name': keeper.login, '~password': keeper.password };

  it('sends one there with a reason, and then on to the wanted address', async () => {
    const asked = await get(wanted);
    expect(asked.status).toBe(303);
    const signIn = new URL(asked.headers.get('location') ?? '', service.base);
    expect(signIn.pathname).toBe('/garden/sign-in');
    expect(await (await get(signIn.pathname + signIn.search)).text()).toContain('The care rounds are for keepers.');
    const signedIn = await send({ ...right, '~wanted': signIn.searchParams.get('~wanted') ?? '' });
    expect(signedIn.headers.get('location')).toBe(wanted);
    const cookie = signedIn.headers.getSetCookie().find((set) => set.includes('_person=')) ?? '';
    expect(cookie).toMatch(/^pallmist_quillmoor_person=[\w-]{43}; .*Path=\/garden;.*HttpOnly; SameSite=Lax/);
    const session = { cookie: cookie.split(';')[0] ?? '' };
    expect(await (await get(wanted, session)).text()).toContain('Good to see you, Ansa Wetherel.');
    // The session of the published app opens neither the console nor the draft.
    expect((await get('/~/api/v1/apps', session)).status).toBe(401);

    const out = await fetch(`${service.base}/garden/~sign-out`, { method: 'POST', redirect: 'manual', headers: session });
    expect(out.headers.get('location')).toContain('~why=signed-out');
    expect((await get(wanted, session)).status).toBe(303);
  });

  it('says what is wrong without losing the way, and never leads off the app', async () => {
    const wrong = await send({ '~name': 'ansa', '~password': 'guess', '~wanted': wanted });
    const again = new URL(wrong.headers.get('location') ?? '', service.base);
    expect(again.searchParams.get('~why')).toBe('wrong-password');
    expect(again.searchParams.get('~wanted')).toBe(wanted);
    for (const back of ['https://evil.example/', '//evil.example/garden', '/\\evil.example', '/~/console/', '/garden/sign-in', '']) {
      expect((await send({ ...right, '~wanted': back })).headers.get('location')).toBe('/garden/care-rounds');
    }
  });

  it('shows no text from the address as a reason', async () => {
    expect(await (await get('/garden/sign-in?~why=Call+us+at+1234')).text()).not.toMatch(/role="status"|1234"?>/);
  });

  it('takes no form from another site', async () => {
    expect((await send(right, { 'sec-fetch-site': 'cross-site' })).status).toBe(403);
    expect((await send(right, { origin: 'https://evil.example' })).status).toBe(403);
  });

  it('slows down whoever guesses', async () => {
    const answers = await Promise.all(Array.from({ length: 34 }, () => send({ '~name': 'ansa', '~password': 'guess' })));
    expect(answers.map((answer) => answer.headers.get('location')).some((place) => place?.includes('~why=too-many-tries'))).toBe(true);
  });
});

it('without JavaScript too the way back stays while one stays on a page, and is that of this page alone', async () => {
  const visitor = new Visitor(service.base);
  const list = '/garden/specimens?q=fern';
  const open = async (path: string, from: string) => (await visitor.get(path, { referer: service.base + from })).text();
  const leadsBack = (html: string) => html.includes(`href="${list}"`);
  expect(leadsBack(await open('/garden/specimens/QM-0228', list))).toBe(true);
  expect(leadsBack(await open('/garden/specimens/QM-0228?tab=care', '/garden/specimens/QM-0228'))).toBe(true);
  expect(leadsBack(await open('/garden/specimens/QM-0228?tab=notes', '/garden/specimens/QM-0228?tab=care'))).toBe(true);
  expect(leadsBack(await open('/garden/specimens/QM-0487?tab=care', '/garden/specimens/QM-0487'))).toBe(false);
  for (const forged of ['https://evil.example', '//evil.example/x', '/elsewhere', 'javascript:alert(1)']) {
    visitor.set('pallmist_quillmoor_previous', Buffer.from(`/garden/specimens/QM-0228 ${forged}`).toString('base64url'));
    expect(await open('/garden/specimens/QM-0228?tab=care', '/garden/specimens/QM-0228'), forged).not.toContain(forged);
  }
});
