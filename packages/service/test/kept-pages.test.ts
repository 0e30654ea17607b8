import { request, type IncomingMessage } from 'node:http';
import { brotliDecompressSync, gunzipSync } from 'node:zlib';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { startGarden, type TestService } from '../../../test/support/garden-service.ts';

let service: TestService;
beforeAll(async () => {
  service = await startGarden();
});
afterAll(() => service.stop());

interface Answer {
  response: IncomingMessage;
  bytes: Buffer;
}

/** Asks for a page and leaves its bytes as they were sent, which `fetch` does not. */
const ask = (path: string, headers: Record<string, string> = {}, method = 'GET') =>
  new Promise<Answer>((resolve, reject) => {
    request(service.base + path, { method, headers }, (response) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part));
      response.on('end', () => {
        resolve({ response, bytes: Buffer.concat(parts) });
      });
    })
      .on('error', reject)
      .end();
  });

const page = '/garden/specimens?q=fern&house=palm';

it('a page is the same in each encoding, the first time and when it is kept', async () => {
  const { bytes: plain, response } = await ask(page);
  expect(plain.toString()).toContain('</html>');
  expect(response.headers['content-encoding']).toBeUndefined();
  for (const [accept, encoding, open] of [
    ['gzip', 'gzip', gunzipSync],
    ['br;q=0.5, gzip;q=0.1', 'br', brotliDecompressSync],
    ['gzip, deflate, br, zstd', 'br', brotliDecompressSync],
  ] as const)
    for (let time = 0; time < 2; time++) {
      const { response: packed, bytes } = await ask(page, { 'accept-encoding': accept });
      expect([packed.statusCode, packed.headers['content-encoding']]).toEqual([200, encoding]);
      expect(packed.headers.vary).toContain('Accept-Encoding');
      expect(open(bytes).equals(plain)).toBe(true);
      expect(packed.headers.etag).toBe(response.headers.etag);
    }
});

it('a browser that has the page is told so, and a HEAD has no body', async () => {
  const { response } = await ask(page, { 'accept-encoding': 'gzip' });
  const again = await ask(page, { 'accept-encoding': 'gzip', 'if-none-match': response.headers.etag ?? '' });
  expect([again.response.statusCode, again.bytes.length]).toEqual([304, 0]);
  const head = await ask(page, { 'accept-encoding': 'gzip' }, 'HEAD');
  expect([head.response.statusCode, head.bytes.length]).toEqual([200, 0]);
});

it('each answer with a form has a mark of its own', async () => {
  const marks = [];
  for (let time = 0; time < 3; time++) {
    const { bytes } = await ask('/garden/membership', { 'accept-encoding': 'gzip' });
    marks.push(/name="~once" value="([^"]+)"/.exec(gunzipSync(bytes).toString())?.[1]);
  }
  expect(marks).not.toContain(undefined);
  expect(new Set(marks).size).toBe(3);
});

it.each([
  '&utm_source=letter-7',
  '&fbclid=a%2Fb&fbclid=c',
  '&=x&&x',
  '&%C3%BC=%F0%9F%8C%BF',
  `&track=${'x'.repeat(2000)}`,
  '&constructor=1&__proto__=2',
])('a page is one and the same with %s in its address, and has nothing of it', async (stray) => {
  const { response, bytes } = await ask(page);
  const values = stray
    .split('&')
    .flatMap((pair) => pair.split('=').slice(1))
    .filter((value) => value.length > 2);
  const [path = '', query = ''] = page.split('?');
  for (const address of [page + stray, `${path}?${stray.slice(1)}&${query}`]) {
    const answer = await ask(address);
    expect(answer.response.statusCode).toBe(200);
    expect(answer.bytes.equals(bytes)).toBe(true);
    expect(answer.response.headers.etag).toBe(response.headers.etag);
    for (const value of values) expect(answer.bytes.toString()).not.toContain(decodeURIComponent(value));
  }
});

it('a page names an unknown parameter that looks like a typing error, and other visitors do not see it', async () => {
  const slip = await ask('/garden/specimens?q=fern&huose=palm');
  expect(slip.bytes.toString()).toContain('huose');
  expect((await ask('/garden/specimens?q=fern')).bytes.toString()).not.toContain('huose');
});

it('a page is kept without the names that mails and networks add, for every visitor', async () => {
  for (const stray of ['utm_source=zebra', 'fbclid=zebra', 'zebra', 'zebra=1&zebra=2', 'z%65bra=1']) {
    const path = `/garden/specimens?q=moss&${stray}`;
    for (let time = 0; time < 2; time++) expect([path, (await ask(path)).bytes.toString().includes('zebra')]).toEqual([path, false]);
  }
  expect((await ask('/garden/specimens?q=moss')).bytes.toString()).not.toContain('zebra');
});
