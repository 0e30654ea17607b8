// Hostile requests against the real process. `npm run hostile` goes on for longer: PALLMIST_DOOR_SECONDS and PALLMIST_DOOR_SEED.
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, beforeEach, afterEach, expect, it } from 'vitest';
import { startProcess, type ServiceProcess } from '../support/service-process.ts';
import { littleApp } from '../support/little-app.ts';
import { chanceOf } from '../support/chance.ts';
import { greatRequests, request } from './requests.ts';

/** Seconds for all tests of this file. */
const longer = process.env['PALLMIST_DOOR_SECONDS'];
const seconds = Number(longer ?? 45);
/** Other requests each time where there is time for it; the seed stands in the name of the test. */
const seed = Number(process.env['PALLMIST_DOOR_SEED'] ?? (longer === undefined ? 20261202 : Date.now() % 1_000_000_000));
/** Milliseconds of processor time for which a request may hold up the others: design, section 13. */
const longestStop = 50;
const mostMemory = 700;
/** Requests under way at a time: fewer than the service turns away. */
const atOnce = 8;

let service: ServiceProcess;
let port: number;
/** Port of the origin of drafts. */
let draftPort: number;
const data = mkdtempSync(join(tmpdir(), 'pallmist-door-'));

/** An app at “/”, where an address could be read as another host. */
const atRoot = littleApp({
  app: 'root',
  mount: '/',
  pages: `
  home: { title: Home, address: '/', content: [{ show: heading, text: Home }] }
  pair:
    title: Pair
    address: '/{a}/{b}{/c}{?x}'
    parameters: { a: { type: text, blank: empty }, b: { type: text }, c: { type: text }, x: { type: text } }
    content: [{ show: text, text: '{param.b}' }]
  deep:
    title: Deep
    address: '/deep{?pack}'
    parameters: { pack: { type: packed, schema: {} } }
    content: [{ show: heading, text: Deep }]`,
});

beforeAll(async () => {
  const environment = { PALLMIST_TRUST_PROXY: '1', PALLMIST_FORMS_PER_MINUTE: '1000000', PALLMIST_LOG: 'error' };
  service = await startProcess(data, { command: 'demo', environment });
  port = Number(new URL(service.base).port);
  const owner = (method: string, path: string, body: unknown) =>
    fetch(`${service.base}/~/api/v1${path}`, {
      method,
      headers: { authorization: `Bearer ${service.token}`, 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  const me = await fetch(`${service.base}/~/api/v1/console/me`, { headers: { authorization: `Bearer ${service.token}` } });
  draftPort = Number(new URL(((await me.json()) as { drafts: string }).drafts).port);
  const pushed = await owner('PUT', '/apps/root/draft', { source: atRoot });
  expect(pushed.status, await pushed.text()).toBe(200);
  expect((await owner('POST', '/apps/root/publish', {})).status).toBe(200);
});
afterAll(async () => {
  service.child.kill('SIGKILL');
  rmSync(data, { recursive: true, force: true });
});

/** What the process wrote to its log before a test: more of it means an error. */
let said = '';
beforeEach(() => {
  said = service.said();
});
afterEach(() => {
  expect(service.child.exitCode, service.said().slice(-2000)).toBeNull();
  expect(service.child.signalCode).toBeNull();
  expect(service.said().slice(said.length)).toBe('');
});

/** Sends bytes, in pieces with a moment between them. @returns all that came back */
function send(pieces: readonly Buffer[], { hangUp = false, wait = 5000, to = port } = {}): Promise<string> {
  return new Promise((resolve) => {
    const socket = connect(to, '127.0.0.1');
    let answer = '';
    const done = () => {
      clearTimeout(timer);
      socket.destroy();
      resolve(answer);
    };
    const timer = setTimeout(done, wait);
    socket.setNoDelay(true);
    socket.on('data', (chunk) => {
      answer += chunk.toString('latin1');
    });
    socket.on('error', done);
    socket.on('close', done);
    const [first, ...others] = pieces;
    if (first !== undefined) socket.write(first);
    let left = others.length;
    for (const [index, piece] of others.entries())
      setTimeout(
        () => {
          if (socket.writable) socket.write(piece);
          left--;
        },
        2 * (index + 1),
      );
    if (hangUp) setTimeout(() => (left <= 0 ? socket.destroy() : undefined), 3);
  });
}

/** Every third request goes to the origin of drafts. */
const portOf = (turn: number) => (turn % 3 === 0 ? draftPort : port);

/** Checks one answer: no failure of the service, no way to another site. */
function expectDecent(answer: string, sent: Buffer): void {
  const status = /^HTTP\/1\.1 (\d{3})/.exec(answer)?.[1];
  const shown = () => JSON.stringify(sent.subarray(0, 600).toString('latin1'));
  if (status !== undefined && Number(status) >= 500) expect.fail(`${status} for ${shown()}`);
  const to = /^location: (.*)$/im.exec(answer.split('\r\n\r\n')[0] ?? '')?.[1]?.trim();
  if (to !== undefined && !/^\/(?![/\\])[\x21-\x7e]*$/.test(to)) expect.fail(`leads to ${to} for ${shown()}`);
}

/** Milliseconds of processor time that the process has had; Linux counts in steps of ten. */
function processorTime(): number {
  const fields =
    readFileSync(`/proc/${String(service.child.pid)}/stat`, 'utf8')
      .split(') ')[1]
      ?.split(' ') ?? [];
  return (Number(fields[11]) + Number(fields[12])) * 10;
}
const memory = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${String(service.child.pid)}/status`, 'utf8'))?.[1]) / 1000;

/** Does work in a few lanes until the time is over. */
async function during(share: number, work: (turn: number) => Promise<void>): Promise<number> {
  const until = performance.now() + seconds * 1000 * share;
  let turn = 0;
  await Promise.all(
    Array.from({ length: atOnce }, async () => {
      while (performance.now() < until && service.child.exitCode === null) await work(turn++);
    }),
  );
  return turn;
}

const known = [
  ['a multipart head without a colon', 'POST /garden HTTP/1.1\r\nhost: x\r\ncontent-type: multipart/form-data; boundary=B\r\ncontent-length: 11\r\n\r\n--B\r\nX-A b'],
  ['a target that is no URL', 'GET /\\[é HTTP/1.1\r\nhost: x\r\n\r\n'],
  ['a target with an odd port', 'GET /\\é:99999/ HTTP/1.1\r\nhost: x\r\n\r\n'],
  ['a target that names a host', 'GET //evil.example/%0D%0A HTTP/1.1\r\nhost: x\r\nconnection: close\r\n\r\n'],
  ['a form that names a host', 'GET /~to/pair?a=&a=x&b=evil.example HTTP/1.1\r\nhost: x\r\nconnection: close\r\n\r\n'],
  ['a file of an inherited name', 'GET /garden/~files/a.constructor HTTP/1.1\r\nhost: x\r\nconnection: close\r\n\r\n'],
] as const; // prettier-ignore

it.each(known)('%s is answered, and nothing more happens', async (_, text) => {
  const bytes = Buffer.from(text);
  const answer = await send([bytes], { wait: 1500 });
  expect(answer).toMatch(/^HTTP\/1\.1 [34]/);
  expectDecent(answer, bytes);
});

it(`requests of the grammar (seed ${String(seed)}) get a status below 500, and no redirect to another site`, async () => {
  const sent = await during(0.4, async (turn) => {
    const bytes = request(chanceOf(seed + turn));
    expectDecent(await send([bytes], { wait: 1500, to: portOf(turn) }), bytes);
  });
  expect(sent).toBeGreaterThan(50);
});

it('requests that are cut at any byte, or come in two pieces, do no harm', async () => {
  const sent = await during(0.35, async (turn) => {
    // The same few requests, cut a byte later each time.
    const bytes = request(chanceOf(seed - 1 - (turn % 97)));
    const at = 1 + ((Math.floor(turn / 97) * 7 + turn) % Math.max(1, Math.min(bytes.length - 1, 1500)));
    const [head, rest] = [bytes.subarray(0, at), bytes.subarray(at)];
    if (turn % 2 === 0) await send([head], { hangUp: true, wait: 50, to: portOf(turn) });
    else expectDecent(await send([head, rest], { wait: 1500, to: portOf(turn) }), bytes);
  });
  expect(sent).toBeGreaterThan(50);
});

it('the greatest requests stop the service for a moment only', async () => {
  const slow: string[] = [];
  const until = performance.now() + seconds * 250;
  const all = greatRequests();
  // Not the same ones each time where the time does not suffice for all of them.
  const first = chanceOf(seed).below(all.length);
  for (const { name, bytes } of [...all.slice(first), ...all.slice(0, first)]) {
    if (performance.now() > until) break;
    let least = Infinity;
    // What else the process does (compiling, collecting garbage) falls upon one of them.
    for (let tries = 0; tries < 4 && least > longestStop; tries++) {
      const before = processorTime();
      const answer = await send([bytes]);
      least = Math.min(least, processorTime() - before);
      expectDecent(answer, bytes);
      expect(answer, name).toMatch(/^HTTP\/1\.1 [234]/);
    }
    if (least > longestStop) slow.push(`${name}: ${String(least)} ms`);
  }
  expect(slow).toEqual([]);
});

it('health answers, and memory is bounded', async () => {
  expect((await fetch(`${service.base}/~/health`)).status).toBe(200);
  expect(memory()).toBeLessThan(mostMemory);
});
