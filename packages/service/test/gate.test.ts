import { spawn } from 'node:child_process';
import { Worker } from 'node:worker_threads';
import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest';
import { keeper, otherKeeper, startGarden, type TestService } from '../../../test/support/garden-service.ts';
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
const goesTo = async (path: string) => {
  const answer = await visitor.get(path);
  return answer.headers.get('location') ?? answer.status;
};

it('a page for some is shown to them, and to others says so and offers another account, without a loop', async () => {
  expect(await goesTo('/garden/ledger?page=2')).toBe(
    '/garden/sign-in?~wanted=%2Fgarden%2Fledger?page=2&~why=sign-in-needed'.replace('?page', '%3Fpage').replace('=2', '%3D2'),
  );
  await visitor.signIn(otherKeeper);
  const refused = await visitor.get('/garden/ledger?page=2');
  expect(refused.status).toBe(403);
  const other = /href="([^"]*~why=other-account[^"]*)"/.exec(await refused.text())?.[1]?.replaceAll('&amp;', '&') ?? '';
  const form = await visitor.text(other);
  expect(form).toContain('You may sign in with another account.');
  const answer = await visitor.send('/garden/sign-in', {
    '~name': keeper.login,
    '~password': keeper.password,
    '~wanted': /name="~wanted" value="([^"]*)"/.exec(form)?.[1] ?? '',
  });
  expect(answer.headers.get('location')).toBe('/garden/ledger?page=2');
  expect((await visitor.get('/garden/ledger')).status).toBe(200);
});

it('who is signed in already goes straight on, and never to another site', async () => {
  await visitor.signIn(keeper);
  expect(await goesTo('/garden/sign-in?~wanted=%2Fgarden%2Fcare-rounds%3Ftask%3Dfeed&~why=sign-in-needed')).toBe(
    '/garden/care-rounds?task=feed',
  );
  expect(await goesTo('/garden/sign-in?~wanted=%2F%2Fevil.example&~why=sign-in-needed')).toBe('/garden/care-rounds');
  expect(await goesTo('/garden/sign-in?~wanted=%2Fgarden%2Fsign-in&~why=sign-in-needed')).toBe('/garden/care-rounds');
  // To look at one's account is no way in.
  expect(await goesTo('/garden/sign-in')).toBe(200);
});

it('signing out everywhere ends the sessions of every browser', async () => {
  const elsewhere = new Visitor(service.base);
  await Promise.all([visitor.signIn(keeper), elsewhere.signIn(keeper)]);
  expect((await elsewhere.get('/garden/workspace')).status).toBe(200);
  await visitor.send('/garden/~sign-out', { '~everywhere': 'yes' });
  expect((await elsewhere.get('/garden/workspace')).status).toBe(303);
});

it('forwarding headers are believed from nobody while no proxy is trusted', async () => {
  const forged = { 'x-forwarded-host': 'evil.example', 'x-forwarded-proto': 'https', 'x-forwarded-for': '10.0.0.1', host: 'evil.example' };
  const answer = await visitor.get('/garden/care-rounds', forged);
  expect(answer.headers.get('location')).toMatch(/^\/garden\/sign-in/);
  expect(await visitor.text('/garden')).not.toContain('evil.example');
});

/** Asks for addresses all at once, from a thread of its own. */
function askAllAtOnce(addresses: string[]): Promise<{ status: number; retryAfter: string | null; text: string; took: number }[]> {
  const code = `
    const { parentPort, workerData } = require('node:worker_threads');
    Promise.all(workerData.map(async (address) => {
      const begun = performance.now();
      const answer = await fetch(address);
      const text = await answer.text();
      return { status: answer.status, retryAfter: answer.headers.get('retry-after'), text, took: performance.now() - begun };
    })).then((answers) => parentPort.postMessage(answers));`;
  return new Promise((resolve, reject) => {
    new Worker(code, { eval: true, workerData: addresses }).once('message', resolve).once('error', reject);
  });
}

it('a service with too many at once says so, and when to come again, and health answers', async () => {
  const small = await startGarden();
  try {
    // Ten times what can be drawn within the time that a request waits for its turn, each another page.
    const addresses = Array.from(
      { length: 400 },
      (_, index) => `${small.base}/garden/specimens?size=100&page=${String(1 + (index % 7))}&x=${String(index)}`,
    );
    const [answers, [health]] = await Promise.all([askAllAtOnce(addresses), askAllAtOnce([`${small.base}/~/health`])]);
    expect(health?.status).toBe(200);
    const busy = answers.filter(({ status }) => status === 503);
    expect(answers.filter(({ status }) => status === 200).length + busy.length).toBe(400);
    // How many are turned away depends on the machine; each is told the same.
    for (const { retryAfter, text } of busy) {
      expect(retryAfter).toBe('2');
      expect(text).toContain('Please try again in a moment.');
    }
    expect((await fetch(`${small.base}/garden`)).status).toBe(200);
  } finally {
    await small.stop();
  }
});

it('a service beside busy programs turns nobody away who comes with few others', async () => {
  const quiet = await startGarden();
  // More of them than there are cores: the service gets a small part of the machine.
  const busy = Array.from({ length: 6 }, () => spawn(process.execPath, ['-e', 'for (;;);']));
  try {
    for (let round = 0; round < 2; round++) {
      const addresses = Array.from({ length: 10 }, (_, index) => `${quiet.base}/garden/specimens?page=${String(1 + index + 10 * round)}`);
      expect((await askAllAtOnce(addresses)).map(({ status }) => status)).toEqual(addresses.map(() => 200));
    }
  } finally {
    for (const program of busy) program.kill('SIGKILL');
    await quiet.stop();
  }
});
