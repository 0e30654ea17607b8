import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { verifyWebhook, scopeNames } from '@pallmist/api';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startGarden, type TestService } from '../../../test/support/garden-service.ts';
import { Visitor } from '../../../test/support/visitor.ts';

let service: TestService;
beforeAll(async () => {
  service = await startGarden();
});
afterAll(() => service.stop());

interface Answer {
  status: number;
  headers: Headers;
  body: Record<string, unknown> & { detail?: string };
}
async function call(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Answer> {
  const response = await fetch(`${service.base}/~/api/v1${path}`, {
    method,
    headers: {
      authorization: `Bearer ${service.token}`,
      ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      ...headers,
    },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  return { status: response.status, headers: response.headers, body: (await response.json()) as Answer['body'] };
}
const as = (token: string) => ({ authorization: `Bearer ${token}` });
const records = '/apps/quillmoor/collections/specimens/records';

describe('tokens with scopes', () => {
  const make = async (body: object) => (await call('POST', '/tokens', body)).body as { token: string; made: { id: string } };

  it('a token does what its scopes name, for its app, and the refusal names what is missing', async () => {
    const { token } = await make({ name: 'label printer', scopes: ['records:read'], app: 'quillmoor' });
    expect((await call('GET', `${records}?limit=1`, undefined, as(token))).status).toBe(200);
    const refused = await call('PATCH', `${records}/QM-0412`, { record: { name: 'x' } }, as(token));
    expect([refused.status, refused.headers.get('www-authenticate')]).toEqual([
      403,
      'Bearer error="insufficient_scope", scope="records:write"',
    ]);
    expect(refused.body.detail).toBe('The token “label printer” has no scope “records:write”.');
    // What is about all apps is not for a token of one.
    expect((await call('GET', '/mails', undefined, as(token))).status).toBe(403);
    const other = await make({ name: 'all apps', scopes: ['apps:read'] });
    expect((await call('GET', '/apps', undefined, as(other.token))).status).toBe(200);
    // The draft, as a page, and sealed values are for tokens of that scope only.
    const draft = (bearer: string) => fetch(`${service.drafts}/~/draft/quillmoor`, { headers: as(bearer) });
    expect((await draft(other.token)).status).toBe(200);
    expect((await draft(token)).status).toBe(401);
  });

  it('no token makes tokens, keys or builders, whatever its scopes', async () => {
    const { token } = await make({ name: 'everything', scopes: [...scopeNames] });
    for (const [method, path] of [
      ['GET', '/tokens'],
      ['POST', '/tokens'],
      ['POST', '/token'],
      ['POST', '/keys'],
      ['POST', '/builders'],
    ] as const)
      expect([path, (await call(method, path, undefined, as(token))).status]).toEqual([path, 403]);
  });

  it('tokens are listed without their texts, renewed, and ended; they end by themselves', async () => {
    const first = await make({ name: 'nightly', scopes: ['apps:read'], days: 1 });
    const use = (token: string) => call('GET', '/apps', undefined, as(token)).then(({ status }) => status);
    expect(await use(first.token)).toBe(200);
    const list = await call('GET', '/tokens');
    expect(JSON.stringify(list.body)).not.toContain(first.token);
    expect(list.body['tokens']).toContainEqual(
      expect.objectContaining({
        name: 'nightly',
        app: null,
        usedOn: '2026-11-19',
        endsAt: expect.stringMatching(/^2026-11-20T/) as string,
      }),
    );
    const renewed = (await call('POST', `/tokens/${first.made.id}/renew`)).body as { token: string };
    expect([await use(first.token), await use(renewed.token)]).toEqual([401, 200]);
    service.clock.forward(25 * 3_600_000);
    expect(await use(renewed.token)).toBe(401);
    const second = await make({ name: 'ended', scopes: ['apps:read'] });
    expect((await call('DELETE', `/tokens/${second.made.id}`)).status).toBe(200);
    expect(await use(second.token)).toBe(401);
    expect((await call('DELETE', `/tokens/${second.made.id}`)).status).toBe(404);
  });
});

describe('records for programs', () => {
  it('every page of a list is met once, by cursor, whatever is added meanwhile; also where values are missing', async () => {
    for (const [round, sort] of ['', 'house', '-planted,name', 'name', '-house,-accession'].entries()) {
      const keys: string[] = [];
      let after = '';
      do {
        const { body } = await call('GET', `${records}?limit=97&sort=${sort}${after === '' ? '' : `&after=${after}`}`);
        keys.push(...(body['records'] as { accession: string }[]).map(({ accession }) => accession));
        // A record that sorts before the place moves nothing.
        if (keys.length === 97) {
          const accession = round === 0 ? 'QM-0000' : `QM-991${String(round)}`;
          const house = sort.startsWith('-') ? null : 'alpine';
          const first = { accession, name: 'Aaa', planted: '2199-01-01', house };
          expect((await call('POST', records, { record: first })).status).toBe(200);
        }
        after = (body['next'] as string | null) ?? '';
      } while (after !== '');
      const seen = new Set(keys);
      expect(seen.size).toBe(keys.length);
      expect(seen.size).toBeGreaterThan(600);
    }
  });

  it('lists take the operators of reads, and report each mistake with its parameter', async () => {
    const find = async (query: string) => (await call('GET', `${records}?${query}`)).body;
    const palm = await find('house=palm&name.contains=FERN&sort=-name&limit=5');
    const rows = palm['records'] as { house: string; name: string }[];
    expect(rows.length).toBeGreaterThan(0);
    for (const { house, name } of rows) expect([house, /fern/i.test(name)]).toEqual(['palm', true]);
    const within = await find('planted.within=2001-01-01..2003-12-31&limit=3');
    for (const { planted } of within['records'] as { planted: string }[])
      expect(planted >= '2001-01-01' && planted <= '2003-12-31').toBe(true);
    expect((await find('house.oneOf=palm,fern'))['total']).toBeGreaterThan(palm['total'] as number);
    const wrong = await find('hous=palm&planted.after=yesterday-ish&name.near=x&limit=0&sort=-nme');
    expect(wrong['problems']).toMatchObject([
      { message: 'The collection has no field “hous”. Did you mean “house”?' },
      { message: expect.stringContaining('“planted.after” is “yesterday-ish”') as string },
      { message: expect.stringContaining('There is no operator “near”') as string },
      { parameter: 'limit' },
      { parameter: 'sort', message: 'The collection has no field “nme”. Did you mean “name”?' },
    ]);
    const { next } = (await find('house=palm&limit=2')) as { next: string };
    expect((await find(`house=fern&limit=2&after=${next}`)).detail).toContain('is not from this list');
  });

  it('a record is added, read, changed while nobody else has, emptied and removed', async () => {
    const added = await call('POST', records, {
      record: { accession: 'QM-9990', name: 'Ostrich feather', house: 'palm', planted: '2024-02-29' },
    });
    const { key } = added.body as { key: string };
    expect(added.body).toMatchObject({ record: { accession: 'QM-9990', name: 'Ostrich feather', house: 'palm', planted: '2024-02-29' } });
    const tag = added.headers.get('etag') ?? '';
    expect((await call('GET', `${records}/${key}`)).headers.get('etag')).toBe(tag);
    expect((await call('PATCH', `${records}/${key}`, { record: { planted: null } }, { 'if-match': tag })).body).toMatchObject({
      record: { planted: null, name: 'Ostrich feather' },
    });
    expect((await call('PATCH', `${records}/${key}`, { record: { name: 'Late' } }, { 'if-match': tag })).status).toBe(412);
    const wrong = await call('PATCH', `${records}/${key}`, { record: { house: 'nowhere', planted: '2024-02-30' } });
    expect([wrong.status, wrong.body['problems']]).toMatchObject([422, [{ pointer: '/record/planted' }]]);
    expect((await call('PATCH', `${records}/${key}`, { record: { colour: 'red' } })).body).toMatchObject({
      problems: [{ code: 'unknown-field', pointer: '/record/colour' }],
    });
    expect((await call('DELETE', `${records}/${key}`)).status).toBe(200);
    expect((await call('DELETE', `${records}/${key}`)).status).toBe(404);
  });
});

describe('webhooks', () => {
  it('sends one signed message for each saved form, retries it, and lists it', async () => {
    const seen: { headers: Record<string, string>; body: string }[] = [];
    let status = 500;
    const receiver = createServer((request, response) => {
      let body = '';
      request.on('data', (chunk: Buffer) => (body += chunk.toString()));
      request.on('end', () => {
        seen.push({ headers: request.headers as Record<string, string>, body });
        response.writeHead(status).end('not for the log');
      });
    });
    await new Promise<void>((resolve) => receiver.listen(0, '127.0.0.1', resolve));
    const url = `http://127.0.0.1:${String((receiver.address() as AddressInfo).port)}/told?by=garden`;
    try {
      const hooks = '/apps/quillmoor/webhooks';
      const { secret, webhook } = (await call('POST', hooks, { url, events: ['record.created'], collections: ['adoptions'] })).body as {
        secret: string;
        webhook: { id: string };
      };
      const adopt = () =>
        new Visitor(service.base).send(
          '/garden/specimens/QM-0412?adopt=true',
          { '~form': 'adopt', name: 'Ünal', mail: 'unal@moor.example' },
          { 'sec-fetch-site': 'same-origin' },
        );
      expect((await adopt()).status).toBe(303);
      await expect.poll(() => seen.length).toBe(1);
      const message = (index: number) => ({ url, headers: seen[index]?.headers ?? {}, body: seen[index]?.body ?? '' });
      expect(await verifyWebhook(message(0), secret, service.clock())).toBe(true);
      expect(await verifyWebhook({ ...message(0), body: `${message(0).body} ` }, secret, service.clock())).toBe(false);
      expect(await verifyWebhook({ ...message(0), url: `${url}2` }, secret, service.clock())).toBe(false);
      expect(await verifyWebhook(message(0), 'another', service.clock())).toBe(false);
      expect(await verifyWebhook(message(0), secret, service.clock() + 400_000)).toBe(false);
      const event = JSON.parse(message(0).body) as { id: string; data: { record: Record<string, unknown> } };
      expect(event).toMatchObject({
        specversion: '1.0',
        type: 'record.created',
        data: { page: 'specimen', form: 'adopt', collection: 'adoptions', record: { name: 'Ünal', specimen: 'QM-0412' } },
      });
      const deliveries = async () =>
        (await call('GET', `${hooks}/${webhook.id}/deliveries`)).body['deliveries'] as { number: number; state: string; problem: string }[];
      await expect.poll(async () => (await deliveries())[0]?.problem).toBe('The receiver answered with the status 500.');
      // It goes when its time has come; the same event has the same id.
      status = 204;
      service.clock.forward(60_000);
      expect((await adopt()).status).toBe(303);
      await expect.poll(() => seen.length).toBe(3);
      await expect.poll(async () => (await deliveries()).map(({ state }) => state)).toEqual(['sent', 'sent']);
      expect(seen.filter(({ body }) => (JSON.parse(body) as { id: string }).id === event.id)).toHaveLength(2);
      const [first] = await deliveries();
      expect((await call('POST', `${hooks}/${webhook.id}/deliveries/${String(first?.number)}/resend`)).status).toBe(200);
      await expect.poll(() => seen.length).toBe(4);
      // A new secret signs from now on.
      const renewed = (await call('POST', `${hooks}/${webhook.id}/secret`)).body as { secret: string };
      expect(renewed.secret).not.toBe(secret);
      expect((await call('DELETE', `${hooks}/${webhook.id}`)).status).toBe(200);
      expect((await call('GET', `${hooks}/${webhook.id}/deliveries`)).status).toBe(404);
    } finally {
      receiver.close();
    }
  });

  it('refuses addresses that would expose the messages', async () => {
    const make = async (url: string) => (await call('POST', '/apps/quillmoor/webhooks', { url })).status;
    expect(await make('http://desk.quillmoor.example/told')).toBe(422);
    expect(await make('https://a:b@desk.quillmoor.example/told')).toBe(422);
    expect(await make('ftp://desk.quillmoor.example/')).toBe(400);
    expect(
      (await call('POST', '/apps/quillmoor/webhooks', { url: 'https://desk.quillmoor.example/', collections: ['specimen'] })).body.detail,
    ).toBe('The app has no collection “specimen”. Did you mean “specimens”?');
  });
});

describe('pictures and whole apps', () => {
  it('a picture is put in place as it is, listed, shown and removed', async () => {
    const path = '/apps/quillmoor/pictures/quill.svg';
    const put = (bytes: string | Uint8Array<ArrayBuffer>, to = path) =>
      fetch(`${service.base}/~/api/v1${to}`, { method: 'PUT', headers: as(service.token), body: bytes });
    expect((await put('<svg xmlns="http://www.w3.org/2000/svg"/>')).status).toBe(200);
    expect((await call('GET', '/apps/quillmoor/pictures')).body['pictures']).toContainEqual({
      name: 'quill.svg',
      bytes: 41,
      type: 'image/svg+xml',
      address: '/garden/~files/quill.svg',
    });
    expect((await fetch(`${service.base}/garden/~files/quill.svg`)).status).toBe(200);
    expect((await put(new Uint8Array(3_100_000))).status).toBe(413);
    expect((await put('x', '/apps/quillmoor/pictures/quill.html')).status).toBe(422);
    expect((await call('DELETE', path)).status).toBe(200);
    expect((await fetch(`${service.base}/garden/~files/quill.svg`)).status).toBe(404);
  });

  it('an app is removed only by someone who has seen its draft, and nothing of it stays', async () => {
    const source =
      'pallmist: 1\napp: shed\ntitle: Shed\nmount: /shed\npages:\n  home:\n    title: Shed\n    address: /\n    content: [{ show: heading, text: Shed }]\n';
    await call('PUT', '/apps/shed/draft', { source });
    await call('POST', '/apps/shed/publish', {});
    expect((await fetch(`${service.base}/shed`)).status).toBe(200);
    expect((await call('DELETE', '/apps/shed')).status).toBe(428);
    expect((await call('DELETE', '/apps/shed', undefined, { 'if-match': '"7"' })).status).toBe(412);
    const tag = (await call('GET', '/apps/shed/draft')).headers.get('etag') ?? '';
    expect((await call('DELETE', '/apps/shed', undefined, { 'if-match': tag })).status).toBe(200);
    expect((await fetch(`${service.base}/shed`)).status).toBe(404);
    expect((await call('GET', '/apps/shed/draft')).status).toBe(404);
    // The name is free again, from its first edition on.
    await call('PUT', '/apps/shed/draft', { source });
    expect((await call('POST', '/apps/shed/publish', {})).body).toMatchObject({ edition: 1 });
  });
});
