import { afterAll, beforeAll, expect, it } from 'vitest';
import { startGarden, type TestService } from '../../../test/support/garden-service.ts';

let service: TestService;
beforeAll(async () => {
  service = await startGarden({ publicUrl: 'https://quillmoor.example' });
});
afterAll(() => service.stop());

interface Short {
  shortAddresses: { code: string; short: string; address: string; endsAt: string | null }[];
}
const get = (path: string) => fetch(service.base + path, { redirect: 'manual' });
const make = async (address: string, days?: number) =>
  service.owner('POST', '/apps/quillmoor/short', { address, ...(days === undefined ? {} : { days }) });

it('a long address gets a short one, which leads to it as it is for sharing', async () => {
  const made = (await (await make('/garden/specimens?picked=QM-0412&q=a%26b&zones=tea-slope#end')).json()) as Short;
  const [{ code, short, address } = { code: '', short: '', address: '' }] = made.shortAddresses;
  expect(short).toBe(`https://quillmoor.example/garden/~s/${code}`);
  expect(address).toBe('/garden/specimens?q=a%26b&zones=tea-slope#end');
  const answer = await get(`/garden/~s/${code.toUpperCase()}`);
  expect([answer.status, answer.headers.get('location')]).toEqual([303, '/garden/specimens?q=a%26b&zones=tea-slope#end']);
  expect((await (await service.owner('GET', '/apps/quillmoor/short')).json()) as Short).toEqual(made);
  expect((await service.owner('DELETE', `/apps/quillmoor/short/${code}`)).status).toBe(200);
  expect((await get(`/garden/~s/${code}`)).status).toBe(404);
  expect((await service.owner('DELETE', `/apps/quillmoor/short/${code}`)).status).toBe(404);
});

it('it leads nowhere when its time is over, and never off the site', async () => {
  const made = (await (await make('/garden/houses', 0.01)).json()) as Short;
  expect(made.shortAddresses[0]?.endsAt).toMatch(/^20/);
  for (const address of ['https://evil.example/', '//evil.example', '/elsewhere', '/garden/nowhere', '/garden/specimens/%00', ''])
    expect((await make(address)).status, address).toBeGreaterThanOrEqual(400);
  expect((await fetch(`${service.base}/-/api/v1/apps/quillmoor/short`, { method: 'POST' })).status).toBe(401);
});

it('any address of the app is drawn as a code, and no other', async () => {
  const svg = await get('/garden/~qr.svg?of=%2Fgarden%2Fspecimens%3Fq%3Dfern');
  expect(svg.headers.get('content-type')).toContain('image/svg+xml');
  expect(await svg.text()).toMatch(/^<svg[^>]*viewBox/);
  const png = Buffer.from(await (await get('/garden/~qr.png?of=%2Fgarden')).arrayBuffer());
  expect(png.subarray(1, 4).toString()).toBe('PNG');
  for (const of of ['https://evil.example', '//evil.example', '/\\evil.example', '/other', 'javascript:alert(1)', ''])
    expect((await get(`/garden/~qr.svg?of=${encodeURIComponent(of)}`)).status, of).toBe(404);
  expect((await get(`/garden/~qr.svg?of=${encodeURIComponent(`/garden/specimens?q=${'a'.repeat(2000)}`)}`)).status).toBe(400);
});
