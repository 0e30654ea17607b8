import { connect } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startGarden, type TestService } from '../../../test/support/garden-service.ts';

let service: TestService;
beforeAll(async () => {
  service = await startGarden();
});
afterAll(() => service.stop());

/** Where an address leads to in the end, and by which redirects. */
async function follow(address: string): Promise<{ status: number; at: string; by: number[]; text: string }> {
  const by: number[] = [];
  for (let at = address; ;) {
    const response = await fetch(service.base + at, { redirect: 'manual' });
    const to = response.headers.get('location');
    if (to === null || by.length > 5) return { status: response.status, at, by, text: await response.text() };
    by.push(response.status);
    at = to;
  }
}

describe('addresses that were damaged on their way', () => {
  it.each([
    ['/garden/specimens/qm-0412', '/garden/specimens/QM-0412'],
    ['/garden/specimens/QM-0412).', '/garden/specimens/QM-0412'],
    ['/garden/specimens/QM-0412?tab=care.', '/garden/specimens/QM-0412?tab=care'],
    ['/garden/specimens?q=fern&amp;house=palm', '/garden/specimens?q=fern&house=palm'],
    ['/garden/specimens?q=fern&House=palm', '/garden/specimens?q=fern&house=palm'],
    ['/garden/specimens?house=pal%256D', '/garden/specimens?house=palm'],
    ['/garden/houses,', '/garden/houses'],
  ])('%s leads to %s', async (damaged, meant) => {
    const { status, at } = await follow(damaged);
    expect([status, at]).toEqual([200, meant]);
  });

  it('shows a problem instead of guessing when there are several meanings', async () => {
    const { status, at, text } = await follow('/garden/specimens?house=pla');
    expect([status, at]).toEqual([200, '/garden/specimens?house=pla']);
    expect(text).toContain('pla');
  });
});

describe('forms without a program', () => {
  it.each([
    ['/garden/specimens?q=&house=&page=1', '/garden/specimens'],
    ['/garden/specimens?house=palm&q=fern', '/garden/specimens?q=fern&house=palm'],
    ['/garden/specimens?utm_source=mail&house=palm&q=fern', '/garden/specimens?q=fern&house=palm&utm_source=mail'],
    ['/garden/specimens?q=tree+fern', '/garden/specimens?q=tree%20fern'],
  ])('%s arrives at %s', async (sent, written) => {
    const { status, at, by } = await follow(sent);
    expect([status, at, by]).toEqual([200, written, [303]]);
  });

  it('a written address, with what nobody declared behind it, is answered at once', async () => {
    for (const address of ['/garden/specimens?q=fern&house=palm&utm_source=mail', '/garden/specimens?house=palm', '/garden/'])
      expect((await follow(address)).by).toEqual([]);
  });
});

it('a backslash and a no-break space in a query are read as the URL standard says', async () => {
  const raw = (path: Buffer) =>
    new Promise<string>((resolve, reject) => {
      const { port } = new URL(service.base);
      const socket = connect(Number(port), '127.0.0.1', () => {
        socket.write(Buffer.concat([Buffer.from('GET '), path, Buffer.from(' HTTP/1.1\r\nHost: a\r\nConnection: close\r\n\r\n')]));
      });
      let answer = '';
      socket.on('data', (chunk: Buffer) => (answer += chunk.toString()));
      socket.once('close', () => {
        resolve(answer);
      });
      socket.once('error', reject);
    });
  expect(await raw(Buffer.from('/garden/specimens?q=a\\b'))).toMatch(/^HTTP\/1\.1 (?:200|303)/);
  expect(await raw(Buffer.from('/garden/specimens?q=tree\u00a0fern'))).toMatch(/^HTTP\/1\.1 (?:200|303)/);
});
