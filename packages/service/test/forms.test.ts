import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { keeper, startGarden, type TestService } from '../../../test/support/garden-service.ts';
import { Visitor } from '../../../test/support/visitor.ts';

let service: TestService;
let visitor: Visitor;
beforeAll(async () => {
  service = await startGarden();
});
afterAll(() => service.stop());
beforeEach(() => {
  visitor = new Visitor(service.base);
});

const note = { '~form': 'write-note', heading: 'A test', body: 'First line\r\nsecond', day: '2026-11-23' };
const writing = '/garden/specimens/QM-0412?tab=notes&write=true';

describe('a form that creates', () => {
  it('saves, and leads on to where it says so, once', async () => {
    const answer = await visitor.send(writing, note);
    expect(answer.status).toBe(303);
    const first = await visitor.get(answer.headers.get('location') ?? '');
    // What acts once leaves the address by a redirect, and is said on the page that follows, and only there.
    const address = first.headers.get('location') ?? '';
    expect(address).toMatch(/^\/garden\/specimens\/QM-0412\?tab=notes$/);
    expect(await visitor.text(address)).toMatch(/Thank you: note N-0442 is in the file\./);
    expect(await visitor.text(address)).not.toMatch(/Thank you/);
    expect(await visitor.text('/garden/specimens/QM-0412?tab=notes&note=N-0442')).toMatch(/First line\nsecond[^]*A visitor/);
  });

  it('shows what is wrong beside the fields, and loses nothing that was typed', async () => {
    const answer = await visitor.send(writing, { ...note, heading: ' ', body: '<b>kept</b>', day: '2026-02-30' });
    expect(answer.status).toBe(422);
    const text = await answer.text();
    expect(text).toContain('It is not saved yet. Please look at what is marked.');
    expect(text).toContain('This cannot be empty.');
    expect(text).toContain('&lt;b>kept&lt;/b>');
    expect(text.match(/aria-invalid="true"/g)).toHaveLength(2);
  });

  it('takes no field that it does not show, whatever is sent', async () => {
    const answer = await visitor.send(writing, {
      ...note,
      heading: 'Forged',
      author: 'Ansa Wetherel',
      specimen: 'QM-0001',
      number: 'N-9999',
    });
    const page = await visitor.follow(answer);
    expect(page).toMatch(/Forged/);
    expect(page).not.toMatch(/N-9999/);
    expect(await visitor.text('/garden/specimens/QM-0001?tab=notes')).not.toContain('Forged');
  });

  it('is taken from the page that shows it only', async () => {
    expect((await visitor.send('/garden/specimens/QM-0412?tab=notes', note)).status).toBe(409);
    expect((await visitor.send(writing, { ...note, '~form': 'remove-note' })).status).toBe(409);
    expect((await visitor.send(writing, { heading: 'no name' })).status).toBe(405);
    expect((await visitor.send('/garden/specimens/QM-9999?write=true', note)).status).toBe(404);
    const fromElsewhere = await visitor.send(writing, note, { 'sec-fetch-site': 'cross-site' });
    expect(fromElsewhere.status).toBe(403);
  });

  it('refuses a text of another record that has to be its own', async () => {
    const member = { '~form': 'join', name: 'Odo', mail: 'odo@moor.example', kind: 'friend' };
    expect((await visitor.send('/garden/membership', member)).status).toBe(303);
    const again = await visitor.send('/garden/membership', member);
    expect(again.status).toBe(422);
    expect(await again.text()).toContain('Another record has this already.');
  });
});

describe('a keeper', () => {
  beforeEach(() => visitor.signIn(keeper));

  it('edits a row in its place, and says when another person was quicker', async () => {
    const editing = '/garden/care-rounds?day=2026-11-18&entry=C-03201';
    const seen = async () => /name="~seen" value="(\w+)"/.exec(await visitor.text(editing))?.[1] ?? '';
    const before = await seen();
    const change = { '~form': 'change-entry', '~seen': before, task: 'feed', remark: 'Mine' };
    const saved = await visitor.send(editing, change);
    expect(saved.headers.get('location')).toBe('/garden/care-rounds?day=2026-11-18');
    const late = await visitor.send(editing, { ...change, remark: 'Theirs' });
    expect(late.status).toBe(422);
    const text = await late.text();
    expect(text).toContain('This was changed by another person meanwhile.');
    expect(text).toContain('Theirs');
    // Sent again with the mark that it was answered with, it is taken.
    expect((await visitor.send(editing, { ...change, remark: 'Theirs', '~seen': await seen() })).status).toBe(303);
    expect(await visitor.text('/garden/care-rounds?day=2026-11-18')).toContain('Theirs');
  });

  it('adds a record by the key of another, and is told when there is none', async () => {
    const entry = { '~form': 'add-entry', specimen: 'QM-9999', day: '2026-11-23', task: 'water', remark: '' };
    const adding = '/garden/care-rounds?add=true';
    expect(await (await visitor.send(adding, entry)).text()).toContain('There is no such record.');
    expect((await visitor.send(adding, { ...entry, specimen: 'QM-0412' })).headers.get('location')).toBe(
      '/garden/care-rounds?day=2026-11-23',
    );
    expect(await visitor.text('/garden/specimens/QM-0412?tab=care')).toContain('2026-11-23');
  });

  it('removes a note, which closes its dialog', async () => {
    const answer = await visitor.send('/garden/specimens/QM-0412?tab=notes&note=N-0441', { '~form': 'remove-note' });
    expect(answer.headers.get('location')).toBe('/garden/specimens/QM-0412?tab=notes');
    expect((await visitor.get('/garden/specimens/QM-0412?tab=notes&note=N-0441')).status).toBe(200);
    expect(await visitor.text('/garden/specimens/QM-0412?tab=notes&note=N-0441')).toContain('There is no such record.');
  });

  it('finds again what stood in a form when the session had ended', async () => {
    const adding = '/garden/care-rounds?add=true';
    const entry = { '~form': 'add-entry', specimen: 'QM-0412', day: '2026-11-22', task: 'inspect', remark: 'A long remark' };
    visitor.forget('pallmist_quillmoor_person');
    const sent = await visitor.send(adding, entry);
    expect(sent.headers.get('location')).toMatch(/sign-in\?~wanted=.*add%3Dtrue&~why=sign-in-needed/);
    await visitor.signIn(keeper);
    const page = await visitor.text(adding);
    expect(page).toContain('Your session had ended, so this was not saved.');
    expect(page).toContain('A long remark');
    expect((await visitor.send(adding, entry)).status).toBe(303);
    expect(await visitor.text(adding)).not.toContain('Your session had ended');
  });
});

it('what came with the address of arrival is remembered for the visit, and only what is declared', async () => {
  const arrived = await visitor.get('/garden/membership?via=leaflet-26');
  expect([arrived.status, arrived.headers.get('location')]).toEqual([303, '/garden/membership']);
  expect(await visitor.text('/garden/membership')).toContain('the first cup of tea is on us');
  // The first address counts; a later one does not change it.
  await visitor.get('/garden/specimens?via=newsletter');
  const card = await visitor.follow(
    await visitor.send('/garden/membership', { '~form': 'join', name: 'Wyn', mail: 'wyn@moor.example', kind: 'student' }),
  );
  expect(card).toContain('The leaflet of 2026');
  visitor.set('pallmist_quillmoor_visit', Buffer.from('{"via":"<script>"}').toString('base64url'));
  expect(await visitor.text('/garden/membership')).not.toContain('cup of tea');
  visitor.set('pallmist_quillmoor_visit', '%%%');
  expect((await visitor.get('/garden/membership')).status).toBe(200);
});

it('a sealed card opens whole, and not after a single sign of it is changed', async () => {
  const joined = await visitor.send('/garden/membership', { '~form': 'join', name: 'Sel', mail: 'sel@moor.example', kind: 'family' });
  const address = joined.headers.get('location') ?? '';
  expect(address).toMatch(/^\/garden\/membership\/card\?member=[\w-]+(\.|%2E){2}[\w-]+(\.|%2E)[\w-]+(\.|%2E)[\w-]+$/);
  expect(await visitor.text(address)).toContain('sel@moor.example');
  const broken = await visitor.get(`${address.slice(0, -3)}AAA`);
  expect(broken.status).toBe(400);
  expect(await broken.text()).toContain('It was cut or changed on its way, or it is no longer valid.');
  expect((await visitor.get('/garden/membership/card?member=M-0001')).status).toBe(400);
  // Nobody but the owner is told what is in it, or gets another one made.
  const read = (headers: Record<string, string>) =>
    fetch(`${service.base}/~/api/v1/apps/quillmoor/read`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', ...headers },
      body: JSON.stringify({ address }),
    }).then((answer) => answer.json());
  expect(await read({})).toMatchObject({ status: 'refused', values: {} });
  expect(await read({ authorization: `Bearer ${service.token}` })).toMatchObject({
    status: 'found',
    values: { member: expect.stringMatching(/^M-/) as string },
  });
  const write = (headers: Record<string, string>) =>
    fetch(`${service.base}/~/api/v1/apps/quillmoor/write`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', ...headers },
      body: JSON.stringify({ page: 'member', values: { member: 'M-0001' } }),
    });
  expect((await write({})).status).toBe(422);
  expect((await write({ authorization: `Bearer ${service.token}` })).status).toBe(200);
});
