import { randomBytes } from 'node:crypto';
import { connect, type Socket } from 'node:net';
import { gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { gardenFile, keeper, startGarden, type TestService } from '../../../test/support/garden-service.ts';
import { Visitor } from '../../../test/support/visitor.ts';

let service: TestService;
beforeAll(async () => {
  service = await startGarden();
});
afterAll(() => service.stop());

const api = (method: string, path: string, body: BodyInit, headers: Record<string, string> = {}) =>
  fetch(`${service.base}/~/api/v1${path}`, { method, headers: { 'content-type': 'application/json', ...headers }, body });

describe('a body', () => {
  const many = gzipSync(JSON.stringify({ source: 'a'.repeat(30_000_000) }));

  it('is not read before it is known who asks', async () => {
    const { base } = service;
    const { port } = new URL(base);
    // The head alone, and never a body: the answer is there all the same.
    const socket = connect(Number(port), '127.0.0.1');
    const answer = await new Promise<string>((resolve) => {
      socket.once('data', (data) => {
        resolve(String(data));
      });
      socket.write(
        'PUT /~/api/v1/apps/quillmoor/draft HTTP/1.1\r\nhost: x\r\ncontent-type: application/json\r\ncontent-length: 55000000\r\n\r\n',
      );
    });
    socket.destroy();
    expect(answer).toMatch(/^HTTP\/1\.1 401 /);
    expect((await api('PUT', '/apps/quillmoor/draft', many, { 'content-encoding': 'gzip' })).status).toBe(401);
  });

  it('is counted unpacked, by the limit of its operation', async () => {
    const token = { authorization: `Bearer ${service.token}` };
    const long = JSON.stringify({ address: `/garden?q=${'a'.repeat(64_000)}` });
    expect((await api('POST', '/apps/quillmoor/read', long)).status).toBe(413);
    expect((await api('POST', '/apps/quillmoor/read', gzipSync(long), { 'content-encoding': 'gzip' })).status).toBe(413);
    expect((await api('PATCH', '/apps/quillmoor/draft', many, { 'content-encoding': 'gzip', ...token })).status).toBe(413);
    expect((await api('POST', '/apps/quillmoor/read', '{}', { 'content-encoding': 'rar' })).status).toBe(415);
    expect((await api('POST', '/apps/quillmoor/read', 'no gzip', { 'content-encoding': 'gzip' })).status).toBe(400);
    expect((await service.owner('PUT', '/apps/quillmoor/draft', { source: gardenFile })).status).toBe(200);
  });

  it('that never ends keeps nobody busy but its sender', async () => {
    const { port } = new URL(service.base);
    const sockets: Socket[] = [];
    const answers: string[] = [];
    for (let count = 0; count < 60; count++) {
      const socket = connect(Number(port), '127.0.0.1');
      socket.on('data', (data) => answers.push(String(data)));
      socket.on('error', () => undefined);
      socket.write(
        'POST /garden/membership HTTP/1.1\r\nhost: x\r\ncontent-type: application/x-www-form-urlencoded\r\ncontent-length: 1000\r\n\r\na=',
      );
      sockets.push(socket);
    }
    // Those beyond the bound of one network are told so; pages are served as ever.
    await expect.poll(() => answers.filter((answer) => answer.startsWith('HTTP/1.1 429')).length).toBe(60 - 24);
    expect((await fetch(`${service.base}/garden`)).status).toBe(200);
    for (const socket of sockets) socket.destroy();
    const join = { '~form': 'join', name: 'Odo', mail: 'odo@moor.example', kind: 'friend' };
    await expect.poll(async () => (await new Visitor(service.base).send('/garden/membership', join)).status).toBe(303);
  });

  it('of many texts has one limit for all of them', async () => {
    const visitor = new Visitor(service.base);
    const text = 'x'.repeat(60_000);
    const fields = Object.fromEntries(Array.from({ length: 30 }, (_, index) => [`field${String(index)}`, text]));
    expect((await visitor.send('/garden/membership', fields)).status).toBe(413);
    expect((await visitor.sendFiles('/garden/specimens/QM-0412?write=true', fields, {})).status).toBe(413);
    const lines = Object.fromEntries(Array.from({ length: 400 }, (_, index) => [`field${String(index)}`, 'x']));
    expect((await visitor.send('/garden/membership', lines)).status).toBe(413);
  });
});

describe('an address', () => {
  it('that is far too long is refused before anything is looked for in it', async () => {
    for (const piece of ['a', 'A-_', '..', 'a..', `${'a'.repeat(400)}..${'b'.repeat(16)}.`]) {
      const long = (length: number) => `/garden/specimens?q=${piece.repeat(Math.ceil(length / piece.length))}`;
      const refused = await fetch(service.base + long(66_000));
      expect(refused.status).toBe(414);
      expect(await refused.text()).toContain('The address is longer than 65,536 characters.');
      // Beyond the head that the server takes at all.
      expect((await fetch(service.base + long(400_000))).status).toBe(431);
    }
  });

  it('is refused in the same way for every route, and so are too many parameters and header fields', async () => {
    for (const path of ['/garden', '/garden/~to/specimens', '/garden/~qr.svg', '/garden/~files/a.png', '/~/docs', '/~/api/v1/apps', '/']) {
      expect((await fetch(`${service.base}${path}?q=${'a'.repeat(66_000)}`)).status, path).toBe(414);
      expect((await fetch(`${service.base}${path}?${'a&'.repeat(1001)}`)).status, path).toBe(414);
      const refused = await fetch(service.base + path, { headers: { cookie: 'a=b;'.repeat(5000) } });
      expect(refused.status, path).toBe(431);
      expect(refused.headers.get('content-type'), path).toMatch(path.startsWith('/~/api') ? /^application\/problem\+json/ : /^text\/html/);
    }
  });

  it('that looks sealed is read without compiling the app again', async () => {
    const compiled = service.live.byName('quillmoor')?.compiled.pages;
    const sealed = `${'a'.repeat(20)}..${'b'.repeat(16)}.${'c'.repeat(40)}.${'d'.repeat(22)}`;
    expect((await fetch(`${service.base}/garden/membership/card?member=${sealed}`)).status).toBe(400);
    expect(service.live.byName('quillmoor')?.compiled.pages).toBe(compiled);
  });
});

it('forms of one network are limited, and what was typed is not taken', async () => {
  const small = await startGarden({ formsPerMinute: 3 });
  try {
    const send = () =>
      new Visitor(small.base).send('/garden/membership', { '~form': 'join', name: 'Odo', mail: 'odo@moor.example', kind: 'friend' });
    const statuses = [];
    for (let count = 0; count < 5; count++) statuses.push((await send()).status);
    // The second form with this mail address is refused with a sentence: 422.
    expect(statuses).toEqual([303, 422, 422, 429, 429]);
    expect((await send()).headers.get('retry-after')).toMatch(/^\d+$/);
    small.clock.forward(61_000);
    expect((await send()).status).toBe(422);
  } finally {
    await small.stop();
  }
});

describe('a QR code', () => {
  const code = (of: string, kind = 'png') => fetch(`${service.base}/garden/~qr.${kind}?of=${encodeURIComponent(of)}`);

  it('is a picture of the address, and drawn for this app only', async () => {
    const png = Buffer.from(await (await code('/garden/specimens?q=fern')).arrayBuffer());
    expect(png.subarray(1, 4).toString()).toBe('PNG');
    expect(await (await code('/garden', 'svg')).text()).toMatch(/^<svg [^]*<path d="M4 4h7v1/);
    expect((await code('//evil.example')).status).toBe(404);
    expect((await code(`/garden/specimens?q=${'a'.repeat(2000)}`)).status).toBe(400);
  });

  it('that was drawn is kept, and new ones are limited', async () => {
    const statuses = await Promise.all(
      Array.from({ length: 150 }, (_, index) => code(`/garden/specimens?page=${String(index + 1)}`).then(({ status }) => status)),
    );
    expect(statuses.filter((status) => status === 429).length).toBeGreaterThan(20);
    expect((await code('/garden/specimens?q=fern')).status).toBe(200);
  });
});

it('nothing secret stands in an answer that goes wrong', async () => {
  const visitor = new Visitor(service.base);
  await visitor.signIn(keeper);
  for (const path of ['/garden/%', `/garden/specimens/${randomBytes(4).toString('hex')}%00`, '/~/api/v1/nothing', '/~/draft/quillmoor']) {
    const text = await (await visitor.get(path)).text();
    expect(text).not.toMatch(/\s+at .*\.(?:ts|js):\d/);
    expect(text).not.toContain(service.token);
    expect(text).not.toContain(service.data);
  }
});
