import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { gardenFile, startGarden, type TestService } from '../../../test/support/garden-service.ts';

let service: TestService;
beforeAll(async () => {
  service = await startGarden({ apiOrigins: ['https://desk.quillmoor.example'] });
});
afterAll(() => service.stop());

const post = (path: string, body: unknown) =>
  fetch(`${service.base}/~/api/v1${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: typeof body === 'string' ? body : JSON.stringify(body),
  });

async function problem(
  response: Response,
): Promise<{ type: string; status: number; detail: string; problems?: { code: string; pointer?: string }[] }> {
  expect(response.headers.get('content-type')).toContain('application/problem+json');
  const details = (await response.json()) as { type: string; status: number; detail: string };
  expect(details).toMatchObject({
    type: `/~/api#problem-${String(response.status)}`,
    title: expect.any(String),
    status: response.status,
    detail: expect.any(String),
  });
  return details;
}

it('tells its health and describes itself', async () => {
  expect(await (await fetch(`${service.base}/~/health`)).json()).toMatchObject({ status: 'ok', apps: 1 });
  const description = (await (await fetch(`${service.base}/~/api/v1/openapi.json`)).json()) as {
    openapi: string;
    paths: Record<string, object>;
  };
  expect(description.openapi).toBe('3.1.0');
  expect(Object.keys(description.paths)).toContain('/apps/{app}/read');
  expect(JSON.stringify(description)).not.toContain('#/$defs');
});

describe('reading and writing, for anybody', () => {
  it('reads an address', async () => {
    const reading = await (await post('/apps/quillmoor/read', { address: '/garden/specimens/QM-0412?tab=Care' })).json();
    expect(reading).toMatchObject({
      status: 'found',
      page: 'specimen',
      values: { specimen: 'QM-0412', tab: 'care' },
      address: '/garden/specimens/QM-0412?tab=care',
    });
  });

  it('writes an address from values or from texts', async () => {
    const values = { q: 'fern', page: 2, sort: [{ field: 'height', descending: true }] };
    expect(await (await post('/apps/quillmoor/write', { page: 'specimens', values })).json()).toEqual({
      address: '/garden/specimens?q=fern&sort=-height&page=2',
      url: `${service.base}/garden/specimens?q=fern&sort=-height&page=2`,
      problems: [],
    });
    const texts = { q: 'fern', page: '2', sort: '-height' };
    expect(await (await post('/apps/quillmoor/write', { page: 'specimens', texts })).json()).toMatchObject({
      address: '/garden/specimens?q=fern&sort=-height&page=2',
    });
  });

  it.each([
    ['/apps/quillmoor/read', {}, 400],
    ['/apps/quillmoor/read', { address: 5 }, 400],
    ['/apps/quillmoor/read', { address: '/', more: 1 }, 400],
    ['/apps/quillmoor/read', '{"address"', 400],
    ['/apps/quillmoor/read', 'null', 400],
    ['/apps/nowhere/read', { address: '/' }, 404],
    ['/apps/%ff/read', { address: '/' }, 400],
    ['/apps/quillmoor/write', { page: 'spceimens' }, 404],
    ['/apps/quillmoor/write', { page: 'specimen' }, 422],
    ['/apps/quillmoor/write', { page: 'specimens', values: { page: 'two' } }, 422],
    ['/apps/quillmoor/write', { page: 'specimens', values: [] }, 400],
    ['/apps/quillmoor/write', { page: '__proto__', values: { __proto__: 1 } }, 404],
    ['/nothing', {}, 404],
  ])('answers POST %s %j with Problem Details, %i', async (path, body, status) => {
    const response = await post(path, body);
    expect(response.status).toBe(status);
    await problem(response);
  });

  it('points to the value that was refused', async () => {
    const { problems } = await problem(await post('/apps/quillmoor/write', { page: 'specimens', values: { page: 0 } }));
    expect(problems).toEqual([expect.objectContaining({ code: 'too-small', pointer: '/values/page' })]);
  });

  it('wants JSON, and not too much of it', async () => {
    const text = await fetch(`${service.base}/~/api/v1/apps/quillmoor/read`, { method: 'POST', body: 'address=/' });
    expect((await problem(text)).status).toBe(415);
  });
});

describe('drafts and editions, for the owner', () => {
  it('are refused to everybody else', async () => {
    for (const [method, path] of [
      ['GET', '/apps'],
      ['GET', '/apps/quillmoor/draft'],
      ['POST', '/apps/quillmoor/publish'],
    ] as const) {
      const response = await fetch(`${service.base}/~/api/v1${path}`, { method, headers: { authorization: 'Bearer guess' } });
      expect((await problem(response)).status).toBe(401);
    }
    expect((await fetch(`${service.base}/~/draft/quillmoor/specimens`)).status).toBe(401);
  });

  it('keep a broken draft with every problem in its place, and go on serving the edition', async () => {
    const broken = gardenFile
      .replace('bind: q,', 'bind: query,')
      .replace('page: houses }', 'page: huoses }')
      .replace('default: overview', 'default: cover');
    const draft = (await (await service.owner('PUT', '/apps/quillmoor/draft', { source: broken })).json()) as {
      revision: number;
      problems: { code: string; line: number; column: number }[];
    };
    expect(draft.problems.map(({ code }) => code)).toEqual(expect.arrayContaining(['unknown-binding', 'unknown-page']));
    expect(draft.problems.every(({ line, column }) => line > 0 && column > 0)).toBe(true);
    for (const path of ['/specimens', '/specimens/QM-0412', '/houses', '/nothing']) {
      const shown = await service.owner('GET', `/../../draft/quillmoor${path}`);
      expect(shown.status, path).toBeLessThan(500);
    }
    const refused = await service.owner('POST', '/apps/quillmoor/publish', {});
    expect(refused.status).toBe(422);
    expect((await problem(refused)).problems?.length).toBe(draft.problems.length);
    expect((await fetch(`${service.base}/garden/houses`)).status).toBe(200);

    const unreadable = (await (await service.owner('PUT', '/apps/quillmoor/draft', { source: 'pages: [' })).json()) as { revision: number };
    expect(unreadable.revision).toBe(draft.revision + 1);
    expect((await fetch(`${service.base}/garden/houses`)).status).toBe(200);
    expect((await service.owner('GET', '/apps')).status).toBe(200);
    await service.owner('PUT', '/apps/quillmoor/draft', { source: gardenFile });
  });

  it('change by a patch from the revision one has seen, and publish', async () => {
    const { revision } = (await (await service.owner('GET', '/apps/quillmoor/draft')).json()) as { revision: number };
    const patch = [{ op: 'replace', path: '/pages/houses/title', value: 'All the houses' }];
    const changed = await service.owner('PATCH', '/apps/quillmoor/draft', { revision, patch });
    expect(changed.status).toBe(200);
    expect(((await changed.json()) as { source: string }).source).toContain('# Quillmoor Glasshouses: an invented botanic garden');
    expect((await problem(await service.owner('PATCH', '/apps/quillmoor/draft', { revision, patch }))).status).toBe(409);
    expect(
      (
        await problem(
          await service.owner('PATCH', '/apps/quillmoor/draft', { revision: revision + 1, patch: [{ op: 'remove', path: '/nothing' }] }),
        )
      ).status,
    ).toBe(422);
    expect(await (await fetch(`${service.base}/garden/houses`)).text()).not.toContain('All the houses');
    expect(await (await service.owner('POST', '/apps/quillmoor/publish', {})).json()).toEqual({
      app: 'quillmoor',
      edition: 2,
      mount: '/garden',
    });
    expect(await (await fetch(`${service.base}/garden/houses`)).text()).toContain('All the houses');
  });

  it('change only where “If-Match” names the draft as it is, and name it by an ETag', async () => {
    const got = await service.owner('GET', '/apps/quillmoor/draft');
    const tag = got.headers.get('etag') ?? '';
    const { revision, source } = (await got.json()) as { revision: number; source: string };
    expect(tag).toBe(`"${String(revision)}"`);
    const send = (method: string, path: string, body: unknown, headers: Record<string, string>) =>
      fetch(`${service.base}/~/api/v1${path}`, {
        method,
        headers: { authorization: `Bearer ${service.token}`, 'content-type': 'application/json', ...headers },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      });
    expect((await send('GET', '/apps/quillmoor/draft', undefined, { 'if-none-match': tag, 'cache-control': 'max-age=0' })).status).toBe(
      304,
    );
    const patch = { revision, patch: [{ op: 'replace', path: '/title', value: 'Another' }] };
    for (const [method, path, body] of [
      ['PATCH', '/apps/quillmoor/draft', patch],
      ['PUT', '/apps/quillmoor/draft', { source: source.replace('title:', 'title: Other #') }],
      ['POST', '/apps/quillmoor/publish', {}],
    ] as const) {
      const refused = await send(method, path, body, { 'if-match': '"1", "999999"' });
      expect((await problem(refused)).status, method).toBe(412);
    }
    const kept = (await (await service.owner('GET', '/apps/quillmoor/draft')).json()) as { revision: number };
    expect(kept.revision).toBe(revision);
    const changed = await send('PATCH', '/apps/quillmoor/draft', patch, { 'if-match': tag });
    expect([changed.status, changed.headers.get('etag')]).toEqual([200, `"${String(revision + 1)}"`]);
    await service.owner('PUT', '/apps/quillmoor/draft', { source });
  });

  it('take data whole or not at all', async () => {
    const push = (houses: string) => service.owner('PUT', '/apps/quillmoor/draft', { source: gardenFile, data: { houses } });
    const wrong = await problem(await push('code,name,built\npalm,Palm House,1887\nPALM,,old\npalm,Again,1\n'));
    expect(wrong.problems?.map(({ code }) => code)).toEqual(['wrong-value', 'missing', 'wrong-value', 'repeated-value']);
    expect((await problem(await push('code,nmae\nx,y\n'))).problems?.[0]).toMatchObject({ code: 'unknown-field' });
    expect((await problem(await push('code,name\n"x'))).problems?.[0]).toMatchObject({ code: 'csv-syntax' });
    expect(await (await fetch(`${service.base}/garden/houses`)).text()).toContain('Alpine House');
  });

  it('do not mount two apps in one place, and do not mix up their names', async () => {
    const rival = 'pallmist: 1\napp: rival\ntitle: Rival\nmount: /garden\npages: { home: { title: Home, address: /, content: [] } }\n';
    expect((await problem(await service.owner('PUT', '/apps/other/draft', { source: rival }))).detail).toContain('“rival”');
    expect((await service.owner('PUT', '/apps/rival/draft', { source: rival })).status).toBe(200);
    expect((await problem(await service.owner('POST', '/apps/rival/publish', {}))).problems?.[0]?.code).toBe('mount-taken');
    await service.owner('PUT', '/apps/rival/draft', { source: rival.replace('/garden', '/') });
    expect((await service.owner('POST', '/apps/rival/publish', {})).status).toBe(200);
    expect(await (await fetch(`${service.base}/`)).text()).toContain('Rival');
    expect(await (await fetch(`${service.base}/garden`)).text()).toContain('Quillmoor');
    expect((await fetch(`${service.base}/~/health`)).status).toBe(200);
  });
});

describe('by the rules of HTTP', () => {
  it('a method that a path does not have is told with those that it has', async () => {
    const response = await fetch(`${service.base}/~/api/v1/apps/quillmoor/draft`, { method: 'DELETE' });
    expect([(await problem(response)).status, response.headers.get('allow')]).toEqual([405, 'GET, HEAD, PATCH, PUT']);
    expect((await fetch(`${service.base}/~/api/v1/apps`)).headers.get('www-authenticate')).toBe('Bearer');
  });

  it('every problem leads to its place in the reference, which describes every operation', async () => {
    const { type } = await problem(await fetch(`${service.base}/~/api/v1/nothing`));
    const url = new URL(type, service.base);
    const page = await (await fetch(url)).text();
    expect(page).toContain(`id="${url.hash.slice(1)}"`);
    const { paths } = (await (await fetch(`${service.base}/~/api/v1/openapi.json`)).json()) as { paths: Record<string, object> };
    for (const path of Object.keys(paths)) expect(page).toContain(path);
    for (const [, target = ''] of page.matchAll(/href="#([^"]+)"/g)) expect(page).toContain(`id="${target}"`);
  });

  it('pages of origins that the owner names may call it, and no others', async () => {
    const ask = (origin: string) =>
      fetch(`${service.base}/~/api/v1/apps/quillmoor/draft`, {
        method: 'OPTIONS',
        headers: { origin, 'access-control-request-method': 'PATCH', 'access-control-request-headers': 'authorization' },
      });
    const allowed = await ask('https://desk.quillmoor.example');
    expect([allowed.status, allowed.headers.get('access-control-allow-origin')]).toEqual([204, 'https://desk.quillmoor.example']);
    expect(allowed.headers.get('access-control-allow-headers')).toContain('authorization');
    expect(allowed.headers.get('access-control-allow-credentials')).toBeNull();
    expect((await ask('https://evil.example')).headers.get('access-control-allow-origin')).toBeNull();
  });
});
