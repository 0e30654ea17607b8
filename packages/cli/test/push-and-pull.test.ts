import { execFile } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { PallmistClient } from '@pallmist/api';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { startTestService, type TestService } from '../../../test/support/garden-service.ts';
import { littleApp } from '../../../test/support/little-app.ts';

const main = fileURLToPath(new URL('../dist/main.js', import.meta.url));
const root = mkdtempSync(join(tmpdir(), 'pallmist-push-'));
let service: TestService;
let client: PallmistClient;
let folder: string;
let app: string;
let number = 0;

beforeAll(async () => {
  service = await startTestService();
  client = new PallmistClient({ base: service.base, token: service.token });
});
afterAll(async () => {
  await service.stop();
  rmSync(root, { recursive: true, force: true });
});
beforeEach(() => {
  number += 1;
  app = `ferns${String(number)}`;
  folder = join(root, app);
  mkdirSync(folder);
});

/** The app file with a title. */
const titled = (title: string) =>
  littleApp({ app, mount: `/${app}`, pages: '  home: { title: Home, address: /, content: [] }' }).replace(
    /^title: .*$/m,
    `title: ${title}`,
  );
const write = (text: string, file = 'app.yaml') => writeFileSync(join(folder, file), text);
const read = (file = 'app.yaml') => readFileSync(join(folder, file), 'utf8');
const draft = async () => (await client.call('getDraft', { app })).source;
const titleOf = (text: string) => /^title: (.*)$/m.exec(text)?.[1];

/** Runs the real command in the folder. */
function pallmist(words: string[], input = ''): Promise<{ status: number; out: string; err: string }> {
  const env = { PATH: process.env['PATH'], PALLMIST_URL: service.base, PALLMIST_TOKEN: service.token };
  return new Promise((resolve) => {
    const child = execFile(process.execPath, [main, ...words], { cwd: folder, env }, (error, out, err) => {
      resolve({ status: error === null ? 0 : Number(error.code), out, err });
    });
    child.stdin?.end(input);
  });
}

/** A colleague changes the title in the console. */
async function colleague(title: string): Promise<void> {
  const { revision } = await client.call('getDraft', { app });
  const patch = [{ op: 'replace' as const, path: '/title', value: title }];
  await client.call('changeDraft', { app }, { revision, patch, what: `Changed the title to ${title}` });
}

describe('pallmist push', () => {
  it('makes a new app, and then knows what it pushed', async () => {
    write(titled('One'));
    expect((await pallmist(['push'])).status).toBe(0);
    write(titled('Two'));
    expect((await pallmist(['push'])).out).toContain('draft 2 is in place');
    expect(titleOf(await draft())).toBe('Two');
    expect(read('.pallmist/.gitignore')).toBe('*\n');
  });

  it('refuses to overwrite what colleagues changed, and names each change', async () => {
    write(titled('One'));
    await pallmist(['push']);
    await colleague('Hers');
    await colleague('Hers again');
    write(titled('Mine'));
    const { status, err } = await pallmist(['push']);
    expect(status).toBe(1);
    expect(err).toMatch(/Revision 3, .*: Changed the title to Hers again\./);
    expect(err).toMatch(/Revision 2, .*: Changed the title to Hers\./);
    expect(titleOf(await draft())).toBe('Hers again');
    expect(titleOf(read())).toBe('Mine');

    const replaced = await pallmist(['push', '--replace']);
    expect(replaced.out).toMatch(/Discarded:\n {2}2 .*Changed the title to Hers\n {2}3 .*Changed the title to Hers again/);
    expect(titleOf(await draft())).toBe('Mine');
    // From now on the draft is the file’s own again.
    write(titled('Mine again'));
    expect((await pallmist(['push'])).status).toBe(0);
  });

  it.each([
    ['with records', ['--with-data']],
    ['from standard input', ['-']],
    ['from another folder, which has not seen the draft', ['copy.yaml']],
  ])('refuses it too %s', async (_, words) => {
    write(titled('One'));
    await pallmist(['push']);
    await colleague('Hers');
    write(titled('Mine'));
    write(titled('Mine'), 'copy.yaml');
    const { status, err } = await pallmist(['push', ...words], titled('Mine'));
    expect([status, titleOf(await draft())]).toEqual([1, 'Hers']);
    expect(err).toContain('Changed the title to Hers');
    expect((await pallmist(['push', ...words, '--replace'], titled('Mine'))).status).toBe(0);
    expect(titleOf(await draft())).toBe('Mine');
  });

  it('takes a text that the draft has already for no change', async () => {
    write(titled('One'));
    await pallmist(['push']);
    await colleague('Hers');
    write(await draft());
    expect((await pallmist(['push'])).out).toContain('draft 2 is in place');
    rmSync(join(folder, '.pallmist'), { recursive: true });
    expect((await pallmist(['push'])).out).toContain('draft 2 is in place');
  });

  it('lets one of two pushes at once in, and tells the other', async () => {
    write(titled('One'));
    await pallmist(['push']);
    const { revision } = await client.call('getDraft', { app });
    const both = await Promise.allSettled(
      ['Left', 'Right'].map((title) => client.call('pushDraft', { app }, { source: titled(title), revision })),
    );
    expect(both.map((one) => one.status).sort()).toEqual(['fulfilled', 'rejected']);
  });

  it.each(['{', 'null'])('goes on with %s in the place of what it had seen, as if it had seen nothing', async (broken) => {
    write(titled('One'));
    await pallmist(['push']);
    write(broken, '.pallmist/drafts.json');
    write(titled('Two'));
    expect((await pallmist(['push'])).status).toBe(1);
    expect((await pallmist(['push', '--replace'])).status).toBe(0);
  });
});

describe('pallmist pull', () => {
  it('writes the draft, and the next push goes on from there', async () => {
    write(titled('One'));
    await pallmist(['push']);
    await colleague('Hers');
    expect((await pallmist(['pull', app, 'app.yaml'])).status).toBe(0);
    expect(titleOf(read())).toBe('Hers');
    write(titled('Both'));
    expect((await pallmist(['push'])).status).toBe(0);
    expect(titleOf(await draft())).toBe('Both');
  });

  it('does not overwrite a file that was changed, and keeps it where it is told to', async () => {
    write(titled('One'));
    await pallmist(['push']);
    await colleague('Hers');
    write(titled('Mine'));
    const { status, err } = await pallmist(['pull', app, 'app.yaml']);
    expect([status, titleOf(read())]).toEqual([1, 'Mine']);
    expect(err).toContain('has changes that were not pushed');
    expect((await pallmist(['pull', app, 'app.yaml', '--replace'])).out).toContain('app.yaml.before-pull');
    expect([titleOf(read()), titleOf(read('app.yaml.before-pull'))]).toEqual(['Hers', 'Mine']);
    write(titled('Mine once more'));
    await pallmist(['pull', app, 'app.yaml', '--replace']);
    expect(titleOf(read('app.yaml.before-pull-2'))).toBe('Mine once more');
  });

  it('does not overwrite a file of which it knows nothing, but one that is the same', async () => {
    write(titled('One'));
    await pallmist(['push']);
    write('something else', 'other.yaml');
    expect((await pallmist(['pull', app, 'other.yaml'])).status).toBe(1);
    expect(read('other.yaml')).toBe('something else');
    write(titled('One'), 'same.yaml');
    expect((await pallmist(['pull', app, 'same.yaml'])).status).toBe(0);
    expect((await pallmist(['pull', app, '-'])).out).toBe(titled('One'));
    expect(existsSync(join(folder, '-'))).toBe(false);
  });
});

it('records are exported to and imported from “-”', async () => {
  write(
    littleApp({
      app,
      mount: `/${app}`,
      collections: '  ferns: { keyField: name, fields: { name: { type: text } } }',
      pages: '  home: { title: Home, address: /, content: [] }',
    }),
  );
  await pallmist(['push']);
  expect((await pallmist(['records', 'import', app, 'ferns', '-'], 'name\nmoss\nlichen\n')).out).toContain('2 records');
  const exported = await pallmist(['records', 'export', app, 'ferns', '-']);
  expect(exported.out.trim().split(/\r?\n/).sort()).toEqual(['lichen', 'moss', 'name']);
  expect(existsSync(join(folder, '-'))).toBe(false);
  expect((await pallmist(['records', 'import', app, 'ferns', '-', '--format', 'json'], '{"name": "Ärmel 🌿"}\n')).out).toContain(
    '1 record',
  );
});
