import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { startProcess } from '../../../test/support/service-process.ts';
import { startMailServer } from '../../../test/support/smtp.ts';
import { Visitor } from '../../../test/support/visitor.ts';

let data: string;
beforeEach(() => {
  data = mkdtempSync(join(tmpdir(), 'pallmist-test-'));
});
afterEach(() => rmSync(data, { recursive: true, force: true }));

const person = { login: 'ansa', name: 'Ansa Wetherel', password: 'moss-and-quill', roles: ['keeper'], mail: 'ansa@quillmoor.example' };
const adopt = (base: string, mail: string) =>
  new Visitor(base).send('/garden/specimens/QM-0412?adopt=true', { '~form': 'adopt', name: 'Ada', mail });

it('no password, hash, token, login link or mail address stands in the log', { timeout: 120_000 }, async () => {
  const server = await startMailServer();
  const service = await startProcess(data, { command: 'demo', environment: { PALLMIST_LOG: 'debug', PALLMIST_SMTP_URL: server.url } });
  const { base, token, said } = service;
  const owner = { authorization: `Bearer ${token}`, 'content-type': 'application/json' };
  await fetch(`${base}/~/api/v1/apps/quillmoor/people/ansa`, {
    method: 'PUT',
    headers: owner,
    body: JSON.stringify({ ...person, login: undefined }),
  });
  const visitor = new Visitor(base);
  await visitor.send('/garden/sign-in', { '~name': 'ansa', '~password': 'not-her-password' });
  await visitor.signIn(person);
  await visitor.send('/garden/sign-in', { '~mail': person.mail, '~wanted': '' });
  await expect.poll(() => server.received.length).toBe(1);
  const link =
    /(\/garden\/sign-in\?~enter(?:=|=3D)[\w-]+)/.exec(server.received[0]?.body.replaceAll('=\r\n', '') ?? '')?.[1]?.replace('=3D', '=') ??
    '';
  expect(link).not.toBe('');
  await visitor.text(link);
  await visitor.get(`/garden/specimens?token=${token}&password=${person.password}`);
  server.refuse = true;
  await adopt(base, 'victim@moor.example');
  await expect.poll(() => said()).toContain('a mail was not taken');
  expect(await service.end()).toBe(0);
  await server.stop();
  // What is printed for the owner at the start is no log.
  const log = said()
    .split('\n')
    .filter((line) => line.startsWith('{'));
  expect(log.length).toBeGreaterThan(5);
  const text = log.join('\n');
  for (const secret of [
    person.password,
    'not-her-password',
    'scrypt',
    token,
    link.split('=')[1] ?? '',
    person.mail,
    'victim@moor.example',
    'pallmist_quillmoor_person',
  ])
    expect(text).not.toContain(secret);
});

it('a disk that is full refuses what would be written, loses nothing, and stops nothing', { timeout: 120_000 }, async () => {
  const full = await startProcess(data, { command: 'demo' });
  expect(await full.end()).toBe(0);
  const server = await startMailServer();
  server.refuse = true;
  // The log of writes has room for little.
  const service = await startProcess(data, { limitBlocks: 1300, environment: { PALLMIST_SMTP_URL: server.url } });
  const saved: string[] = [];
  let refused = 0;
  for (let count = 0; count < 200 && refused < 3; count++) {
    const note = { '~form': 'write-note', heading: `Heading ${String(count)}`, body: 'x'.repeat(1900), day: '2026-11-18' };
    const answer = await new Visitor(service.base).send('/garden/specimens/QM-0412?tab=notes&write=true', note);
    if (answer.status === 303) saved.push(note.heading);
    else {
      refused++;
      expect(answer.status).toBe(500);
      expect(await answer.text()).not.toContain('SQLITE');
    }
    await adopt(service.base, `r${String(count)}@moor.example`);
  }
  expect(refused).toBe(3);
  expect((await fetch(`${service.base}/garden`)).status).toBe(200);
  expect((await fetch(`${service.base}/~/health`)).status).toBe(200);
  expect(service.child.exitCode).toBeNull();
  expect(service.said()).not.toMatch(/unhandled/i);
  await service.end();
  await server.stop();
  const again = await startProcess(data);
  const page = await new Visitor(again.base).text('/garden/specimens/QM-0412?tab=notes');
  for (const heading of saved) expect(page).toContain(heading);
  expect(await again.end()).toBe(0);
});
