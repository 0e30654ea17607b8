import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { gardenFile, startGarden, startTestService, testClock, type TestService } from '../../../test/support/garden-service.ts';
import { littleApp } from '../../../test/support/little-app.ts';
import { startMailServer } from '../../../test/support/smtp.ts';
import { Visitor } from '../../../test/support/visitor.ts';

const minute = 60_000;
const day = 24 * 60 * minute;
const newMail = { app: 'quillmoor', subject: 'Hello', text: 'Hello', html: '<p>Hello</p>' };
interface Mail {
  number: number;
  state: string;
  recipient: string;
  problem: string;
}
const outbox = async (service: TestService) => ((await (await service.owner('GET', '/mails')).json()) as { mails: Mail[] }).mails;

describe('forms that send mails', () => {
  let service: TestService;
  const adopt = (mail: string, name = 'Ada') =>
    new Visitor(service.base).send('/garden/specimens/QM-0412?adopt=true', { '~form': 'adopt', name, mail });
  beforeAll(async () => {
    // The field takes any text: it is the mail that has to lead to one address.
    const open = gardenFile.replaceAll(/pattern: '\[\^@[^']+',/g, '').replaceAll(/, pattern: '\[\^@[^']+'/g, '');
    expect(open).not.toBe(gardenFile);
    service = await startGarden();
    await service.apps.push('quillmoor', { source: open });
    await service.apps.publish('quillmoor', undefined);
  });
  afterAll(() => service.stop());

  it('send few to one recipient, from one network, and of one form; the rest is refused, and nothing of it is saved', async () => {
    const statuses: number[] = [];
    for (let count = 0; count < 60; count++) statuses.push((await adopt('victim@moor.example')).status);
    expect(statuses.filter((status) => status === 303)).toHaveLength(5);
    expect(await outbox(service)).toHaveLength(5);
    expect(await service.store.records.count('quillmoor', 'adoptions')).toBe(5);
    const refused = await adopt('visitor@moor.example');
    expect([refused.status, await refused.text()]).toEqual([422, expect.stringContaining('from your network') as string]);
    service.clock.forward(11 * minute);
    const again = await adopt('victim@moor.example');
    expect([again.status, await again.text()]).toEqual([422, expect.stringContaining('went to this address') as string]);
    for (let count = 0; count < 300; count++)
      await service.store.mails.add({ ...newMail, form: 'specimen/adopt', recipient: `r${String(count)}@moor.example` }, 'kept');
    const full = await adopt('fresh@moor.example');
    expect([full.status, await full.text()]).toEqual([422, expect.stringContaining('This form has sent so many mails') as string]);
    service.clock.forward(day);
    expect((await adopt('victim@moor.example')).status).toBe(303);
  });

  it.each([
    'a@moor.example, b@moor.example',
    'a@moor.example;b@moor.example',
    'Ada <a@moor.example>',
    'a@moor.example b@moor.example',
    'nobody',
  ])('send none to %j, and the outbox says why', async (recipient) => {
    service.clock.forward(day);
    expect((await adopt(recipient)).status).toBe(303);
    const [mail] = await outbox(service);
    expect(mail).toMatchObject({ state: 'failed', recipient, problem: 'The recipient is not exactly one mail address.' });
    // Nothing makes it go.
    expect(await (await service.owner('POST', '/mails/resend', {})).json()).toEqual({ resent: 0 });
  });
});

it('a mail whose link cannot be written stands in the outbox, with the reason', async () => {
  const service = await startTestService();
  const collections =
    '  things: { keyField: code, fields: { code: { type: text, serial: T-00 }, mail: { type: text }, kind: { type: text } } }';
  const pages = `
  home:
    title: Home
    address: /
    content:
      - { show: form, name: make, label: Make, action: create, collection: things, fields: [mail, kind], submit: Send, mail: made, then: { page: home } }
  kind: { title: Kind, address: '/kinds/{kind}', parameters: { kind: { type: text, pattern: '[a-z]+', sample: a } }, content: [] }`;
  const mails = `mails:
  made:
    to: '{saved.mail}'
    subject: Made
    text: 'Look: {link.kind}'
    links: { kind: { text: Kind, to: { page: kind, values: { kind: '{saved.kind}' } } } }`;
  await service.apps.push('little', { source: littleApp({ collections, pages, more: mails }) });
  await service.apps.publish('little', undefined);
  const visitor = new Visitor(service.base);
  for (const kind of ['moss', 'NOT-ONE'])
    expect((await visitor.send('/little', { '~form': 'make', mail: 'a@moor.example', kind })).status).toBe(303);
  expect((await outbox(service)).map(({ state, problem }) => [state, problem])).toEqual([
    ['failed', 'The link “kind” cannot be written: its page needs a value that is missing or not accepted.'],
    ['kept', ''],
  ]);
  await service.stop();
});

it('after a start everything that waits is sent, a few at a time; what failed is sent again on request; what is old is removed', async () => {
  const data = mkdtempSync(join(tmpdir(), 'pallmist-test-'));
  const clock = testClock();
  const before = await startTestService({ data }, clock);
  const add = (recipient: string, state: 'waiting' | 'kept' = 'waiting') => before.store.mails.add({ ...newMail, recipient }, state);
  const recipients = Array.from({ length: 161 }, (_, index) => `r${String(index)}@moor.example`);
  await before.store.transaction(async ({ mails }) => {
    for (const recipient of recipients) await mails.add({ ...newMail, recipient }, 'waiting');
  });
  const failed = await add('failed@moor.example');
  await before.store.mails.note(failed, { state: 'failed', tries: 8, problem: 'no' });
  await before.stop();

  const server = await startMailServer();
  const service = await startTestService({ data, smtpUrl: server.url, keepMailDays: 30 }, clock);
  await expect.poll(() => server.received.length, { timeout: 60_000 }).toBe(161);
  expect(new Set(server.received.flatMap(({ to }) => to))).toEqual(new Set(recipients));
  expect(server.connections.most).toBeLessThanOrEqual(3);
  expect(server.connections.made).toBeLessThanOrEqual(6);
  expect(await (await service.owner('POST', '/mails/resend', {})).json()).toEqual({ resent: 1 });
  await expect.poll(() => server.received.at(-1)?.to).toEqual(['failed@moor.example']);
  await expect.poll(async () => (await service.store.mails.waiting()).count).toBe(0);

  clock.forward(29 * day);
  expect(await service.store.mails.sweep()).toBe(0);
  clock.forward(2 * day);
  expect(await service.store.mails.sweep()).toBe(162);
  await service.stop();
  await server.stop();
  rmSync(data, { recursive: true });
});

it('the mail of a one-time link is removed when the link is too old', async () => {
  const service = await startGarden();
  await new Visitor(service.base).send('/garden/sign-in', { '~mail': 'ansa@quillmoor.example', '~wanted': '' });
  await expect.poll(async () => (await outbox(service)).length).toBe(1);
  service.clock.forward(2 * day);
  await service.store.mails.sweep();
  expect(await outbox(service)).toEqual([]);
  await service.stop();
});
