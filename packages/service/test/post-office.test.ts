import { afterAll, beforeAll, expect, it } from 'vitest';
import { startGarden, type TestService } from '../../../test/support/garden-service.ts';
import { startMailServer, type TestMailServer } from '../../../test/support/smtp.ts';
import { Visitor } from '../../../test/support/visitor.ts';

let service: TestService;
let server: TestMailServer;

beforeAll(async () => {
  server = await startMailServer();
  service = await startGarden({
    smtpUrl: server.url,
    mailFrom: 'Quillmoor <garden@quillmoor.example>',
    publicUrl: 'https://quillmoor.example/',
  });
});
afterAll(async () => {
  await service.stop();
  await server.stop();
});

const adopt = (fields: Record<string, string>) =>
  new Visitor(service.base).send(
    '/garden/specimens/QM-0412?adopt=true',
    { '~form': 'adopt', ...fields },
    { 'sec-fetch-site': 'same-origin' },
  );
const mails = async () =>
  ((await (await service.owner('GET', '/mails')).json()) as { mails: { state: string; tries: number; problem: string }[] }).mails;
const until = (holds: () => Promise<boolean> | boolean) => expect.poll(holds).toBe(true);

/** The text part as it was meant: quoted-printable undone. */
const plain = (body: string) =>
  Buffer.from(
    body.replaceAll(/=\r\n/g, '').replaceAll(/=([0-9A-F]{2})/g, (_, hex: string) => String.fromCharCode(parseInt(hex, 16))),
    'latin1',
  ).toString('utf8');

it('a mail arrives whole, and its links lead to the public address', async () => {
  expect((await adopt({ name: 'Ünal\nBcc: x@evil.example', mail: 'unal@moor.example' })).status).toBe(303);
  await until(() => server.received.length === 1);
  const { to, body } = server.received[0] ?? { to: [], body: '' };
  expect(to).toEqual(['unal@moor.example']);
  expect(body.split('\r\n\r\n')[0]).not.toMatch(/^Bcc:/m);
  // By its number: a mail that is sent again after a kill has the same.
  expect(body.split('\r\n\r\n')[0]).toMatch(/^Message-ID: <\d+\.\d{13}@[\w.-]+>\r?$/m);
  const text = plain(body);
  expect(text).toContain('Subject: Needle foxtail is yours to look after');
  expect(text).toContain('https://quillmoor.example/garden/specimens/QM-0412?tab=notes&write=true');
  expect(text).toContain('<a href="https://quillmoor.example/garden/specimens/QM-0412?tab=notes&amp;write=true">Write the first note</a>');
  // The link of the card opens what it was made for.
  const card = /https:\/\/quillmoor\.example(\/garden\/adoptions\?adoption=[^\s"'<]+)/.exec(text)?.[1] ?? '';
  expect(await new Visitor(service.base).text(card)).toContain('Adoption of Needle foxtail');
  await until(async () => (await mails())[0]?.state === 'sent');
});

it('a link in a mail changes nothing by being opened', async () => {
  const text = plain(server.received[0]?.body ?? '');
  const card = /(\/garden\/adoptions\?adoption=[^\s"'<]+)/.exec(text)?.[1] ?? '';
  const visitor = new Visitor(service.base);
  for (let times = 0; times < 3; times++) expect(await visitor.text(card)).toContain('Give it back');
  expect((await visitor.send(card, { '~form': 'give-back' })).headers.get('location')).toBe('/garden');
  expect((await visitor.get(card)).status).toBe(404);
});

it('a mail that the server does not take waits, and is not lost', async () => {
  server.refuse = true;
  expect((await adopt({ name: 'Later', mail: 'later@moor.example' })).status).toBe(303);
  await until(async () => (await mails())[0]?.tries === 1);
  expect((await mails())[0]).toMatchObject({ state: 'waiting', problem: expect.stringContaining('not now') as string });
  // Whom the server's answer names is nobody's business.
  expect((await mails())[0]?.problem).not.toContain('later@');
  // It goes when its time has come.
  server.refuse = false;
  service.clock.forward(60_000);
  expect((await adopt({ name: 'Next', mail: 'next@moor.example' })).status).toBe(303);
  await until(() => server.received.length === 3);
  expect(new Set(server.received.flatMap(({ to }) => to))).toEqual(
    new Set(['unal@moor.example', 'later@moor.example', 'next@moor.example']),
  );
  await until(async () => (await mails()).every(({ state }) => state === 'sent'));
});

it('a mail of a draft leads to the draft, and says so', async () => {
  server.refuse = false;
  const before = server.received.length;
  const draft = '/~/draft/quillmoor/specimens/QM-0001?adopt=true';
  const answer = await fetch(service.drafts + draft, {
    method: 'POST',
    redirect: 'manual',
    headers: { authorization: `Bearer ${service.token}` },
    body: new URLSearchParams({ '~form': 'adopt', name: 'Tester', mail: 'tester@moor.example' }),
  });
  expect(answer.status).toBe(303);
  await until(() => server.received.length > before);
  const text = plain(server.received.at(-1)?.body ?? '');
  expect(text).toMatch(/Subject: \[Draft\] /);
  expect(text).toContain('https://quillmoor.example/~/draft/quillmoor/specimens/QM-0001?tab=notes&write=true');
});
