import { execFile, spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';

const main = fileURLToPath(new URL('../dist/main.js', import.meta.url));
const demoFile = fileURLToPath(new URL('../../../demo/quillmoor/app.yaml', import.meta.url));
const folder = mkdtempSync(join(tmpdir(), 'pallmist-cli-'));
let base = '';
let environment: Record<string, string> = {};

/** Runs the real command. */
function pallmist(words: string[], input = ''): Promise<{ status: number; out: string; err: string }> {
  return new Promise((resolve) => {
    const child = execFile(
      process.execPath,
      [main, ...words],
      { env: { PATH: process.env['PATH'], ...environment } },
      (error, out, err) => {
        resolve({ status: error === null ? 0 : Number(error.code), out, err });
      },
    );
    child.stdin?.end(input);
  });
}

/** Starts `pallmist demo` and waits until it says that it is ready. */
function startDemo(): Promise<ReturnType<typeof spawn>> {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [main, 'demo'], {
      env: { PATH: process.env['PATH'], PALLMIST_PORT: '0', PALLMIST_DATA: join(folder, 'data'), PALLMIST_LOG: 'silent' },
    });
    let said = '';
    child.stdout.on('data', (chunk: Buffer) => {
      said += chunk.toString();
      const ready = /ready at (http:\S+)/.exec(said)?.[1];
      if (ready === undefined) return;
      base = ready;
      resolve(child);
    });
    child.on('exit', () => reject(new Error(said)));
  });
}

let demo: ReturnType<typeof spawn>;
beforeAll(async () => {
  demo = await startDemo();
  environment = { PALLMIST_URL: base, PALLMIST_DATA: join(folder, 'data') };
});
afterAll(async () => {
  const ended = new Promise<number | null>((resolve) => demo.once('exit', resolve));
  demo.kill('SIGTERM');
  expect(await ended).toBe(0);
  rmSync(folder, { recursive: true, force: true });
});

describe('pallmist read', () => {
  it('prints the reading, from a file as from a service', async () => {
    const address = '/garden/specimens/QM-0412?tab=Care';
    const fromFile = await pallmist(['read', address, '--file', demoFile, '--json']);
    expect(fromFile.status).toBe(0);
    const reading = JSON.parse(fromFile.out) as object;
    expect(reading).toMatchObject({ page: 'specimen', values: { tab: 'care' }, address: '/garden/specimens/QM-0412?tab=care' });
    const answer = await fetch(`${base}/-/api/v1/apps/quillmoor/read`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ address }),
    });
    expect(reading).toEqual(await answer.json());
    expect(JSON.parse((await pallmist(['read', address, '--app', 'quillmoor', '--json'])).out)).toEqual(reading);
  });

  it('tells people what is wrong, and ends with 1', async () => {
    const { status, out } = await pallmist(['read', '/garden/specimens?page=0&pgae=2', '--file', demoFile]);
    expect(status).toBe(1);
    expect(out).toContain('“Page of the list” cannot be “0”: The number must be at least 1.');
    expect(out).toContain('Perhaps “page” was meant.');
  });
});

describe('pallmist link', () => {
  it('writes an address, odd characters and all', async () => {
    expect((await pallmist(['link', 'specimens', 'q=café & rose=1', 'page=02', '--file', demoFile])).out).toBe(
      '/garden/specimens?q=caf%C3%A9%20%26%20rose%3D1&page=2\n',
    );
    expect((await pallmist(['link', 'specimen', 'specimen=QM-0412', '--app', 'quillmoor'])).out).toBe('/garden/specimens/QM-0412\n');
  });

  it('says every problem', async () => {
    const { status, err } = await pallmist(['link', 'specimen', 'tab=x', 'nope=1', '--file', demoFile]);
    expect(status).toBe(1);
    expect(err).toMatch(/“tab” cannot be “x”/);
    expect(err).toMatch(/no parameter “nope”/);
    expect(err).toMatch(/“specimen” is required/);
  });
});

describe('pallmist check, push and publish', () => {
  it('find nothing wrong in the demo, and everything in a broken copy, with line and column', async () => {
    expect(await pallmist(['check', demoFile])).toMatchObject({ status: 0, out: expect.stringContaining('no problems') as string });
    const file = join(folder, 'broken.yaml');
    writeFileSync(file, readFileSync(demoFile, 'utf8').replace('bind: tab', 'bind: tba').replace('{ page: houses }', '{ page: huoses }'));
    const { status, out } = await pallmist(['check', file]);
    expect(status).toBe(1);
    expect(out).toMatch(/broken\.yaml:\d+:\d+: error: .*“tba”/);
    expect(out).toMatch(/broken\.yaml:\d+:\d+: error: There is no page “huoses”/);
    expect(out).toContain('Did you mean “houses”?');
    expect((await pallmist(['push', file])).out).toMatch(/draft \d+ is in place, 2 errors/);
    expect(await pallmist(['publish', 'quillmoor'])).toMatchObject({
      status: 1,
      err: expect.stringContaining('was not published') as string,
    });
    expect((await pallmist(['check', '--app', 'quillmoor'])).status).toBe(1);
  });

  it('mend what they know how to mend, and keep the rest of the file', async () => {
    const file = join(folder, 'mend.yaml');
    const right = readFileSync(demoFile, 'utf8');
    writeFileSync(file, right.replace('bind: tab', 'bind: tba').replace('{ page: houses }', '{ page: huoses }'));
    const { status, out } = await pallmist(['check', file, '--mend']);
    expect(status).toBe(0);
    expect(out.match(/^mended: /gm)?.length).toBe(2);
    expect(readFileSync(file, 'utf8')).toContain('# Quillmoor Glasshouses: an invented botanic garden');
    expect((await pallmist(['check', file])).out).toContain('no problems');
  });

  it('publish a mended draft', async () => {
    expect((await pallmist(['push', demoFile, '--with-data', '--json'])).status).toBe(0);
    expect((await pallmist(['publish', 'quillmoor'])).out).toMatch(/edition 2 is served at http.*\/garden/);
    expect((await pallmist(['person', 'quillmoor', 'bruno', '--name', 'Bruno'], 'ferns-and-moss')).out).toContain('bruno may sign in');
  });
});

describe('wrong usage', () => {
  it.each([
    [['nonsense'], 2, /unknown command/],
    [['read'], 2, /missing required argument/],
    [['read', '/garden'], 2, /--file.*--app/],
    [['check', 'nowhere.yaml'], 2, /there is no such file/],
    [['link', 'specimens', 'q', '--file', demoFile], 2, /name=value/],
    [['serve', '--port', 'high'], 2, /PALLMIST_PORT is “high”/],
    [['read', '/x', '--app', 'a', '--service', 'http://127.0.0.1:9'], 3, /There is no Pallmist service at/],
    [['publish', 'quillmoor', '--token', 'guess'], 1, /Only the owner/],
  ])('%j ends with %i and a sentence', async (words, status, sentence) => {
    const answer = await pallmist(words);
    expect(answer.status).toBe(status);
    expect(answer.err).toMatch(sentence);
    expect(answer.err).not.toMatch(/\n\s+at /);
  });

  it('helps, with examples', async () => {
    const { status, out } = await pallmist(['--help']);
    expect(status).toBe(0);
    for (const command of ['serve', 'demo', 'check', 'read', 'link', 'push', 'publish']) expect(out).toContain(command);
    expect((await pallmist(['link', '--help'])).out).toContain('Examples:');
  });
});
