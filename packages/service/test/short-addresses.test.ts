import { afterAll, beforeAll, expect, it } from 'vitest';
import { startGarden, type TestService } from '../../../test/support/garden-service.ts';
import { Visitor } from '../../../test/support/visitor.ts';

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
  expect((await fetch(`${service.base}/~/api/v1/apps/quillmoor/short`, { method: 'POST' })).status).toBe(401);
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

it('a visitor makes a short address of a view that offers it, gets the same one again, and withdraws it; nobody else does', async () => {
  const visitor = new Visitor(service.base);
  const of = '/garden/specimens?q=fern&zones=tea-slope';
  const made = await visitor.send('/garden/~s', { of });
  const about = made.headers.get('location') ?? '';
  expect([made.status, about]).toEqual([303, expect.stringMatching(/^\/garden\/~s\/[a-z0-9]{7}\/about$/)]);
  expect((await visitor.send('/garden/~s', { of })).headers.get('location')).toBe(about);
  const told = await visitor.send('/garden/~s', { of }, { accept: 'application/json' });
  const short = about.replace('/about', '');
  expect(await told.json()).toMatchObject({ short: `https://quillmoor.example${short}`, about });
  const page = await visitor.text(about);
  for (const text of [`https://quillmoor.example${of.replace('&', '&amp;')}`, 'until 2027-02-', 'Withdraw it', '~qr.svg?of=%2Fgarden%2F~s'])
    expect(page).toContain(text);
  const stranger = new Visitor(service.base);
  expect((await stranger.get(short)).headers.get('location')).toBe(of);
  expect(await stranger.text(about)).not.toContain('Withdraw it');
  expect((await stranger.send(short, { '~withdraw': 'yes' })).status).toBe(403);
  expect((await stranger.send('/garden/~s', { of })).headers.get('location')).not.toBe(about);
  expect((await visitor.send(short, {})).status).toBe(403);
  expect((await visitor.send(short, { '~withdraw': 'yes' })).status).toBe(200);
  expect((await visitor.get(short)).status).toBe(404);
});

it('a visitor makes none for what is no page of the app, nor for a page that does not offer it', async () => {
  const visitor = new Visitor(service.base);
  for (const of of [
    '',
    'https://evil.example',
    '//evil.example/garden/specimens',
    '/garden/houses',
    '/garden/specimens/%00',
    '/elsewhere',
    'javascript:alert(1)',
  ])
    expect((await visitor.send('/garden/~s', { of })).status, of).toBe(422);
  expect((await visitor.send('/garden/~s', { of: '/garden/specimens' }, { 'sec-fetch-site': 'cross-site' })).status).toBe(403);
  // What is nobody else’s, and what the page does not declare, stays behind.
  const made = await visitor.send('/garden/~s', { of: '/garden/specimens?q=x&picked=QM-0412&evil=1' });
  expect((await visitor.get((made.headers.get('location') ?? '').replace('/about', ''))).headers.get('location')).toBe(
    '/garden/specimens?q=x',
  );
  for (let time = 0; time < 30; time++) await visitor.send('/garden/~s', { of: '/garden/specimens' });
  expect((await visitor.send('/garden/~s', { of: '/garden/specimens' })).status).toBe(429);
});
