import { execFile, spawn } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { zipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';

const main = fileURLToPath(new URL('../dist/main.js', import.meta.url));
const demoFile = fileURLToPath(new URL('../../../demo/quillmoor/app.yaml', import.meta.url));
const folder = mkdtempSync(join(tmpdir(), 'pallmist-cli-'));
let base = '';
let environment: Record<string, string> = {};

/** Runs the real command. */
function pallmist(
  words: string[],
  input = '',
  cwd?: string,
  more: Record<string, string> = {},
): Promise<{ status: number; out: string; err: string }> {
  return new Promise((resolve) => {
    const child = execFile(
      process.execPath,
      [main, ...words],
      { cwd, env: { PATH: process.env['PATH'], ...environment, ...more } },
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
    const answer = await fetch(`${base}/~/api/v1/apps/quillmoor/read`, {
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
    expect(out).toContain('“Page of the list” cannot be “0”: It should be a whole number from 1 to 1000.');
    expect(out).toContain('(perhaps “page” was meant)');
  });
});

describe('pallmist write', () => {
  it('writes an address, odd characters and all', async () => {
    expect((await pallmist(['write', 'specimens', 'q=café & rose=1', 'page=02', '--file', demoFile])).out).toBe(
      '/garden/specimens?q=caf%C3%A9%20%26%20rose%3D1&page=2\n',
    );
    expect((await pallmist(['write', 'specimen', 'specimen=QM-0412', '--app', 'quillmoor'])).out).toBe('/garden/specimens/QM-0412\n');
  });

  it('takes values with their types as JSON, makes a short address, and saves the QR code', async () => {
    const values = '{"zones": ["fog-desert", "tea-slope"], "page": 2}';
    const long = '/garden/specimens?q=fern&zones=fog-desert,tea-slope&page=2';
    expect((await pallmist(['write', 'specimens', 'q=fern', '--values', values, '--file', demoFile])).out).toBe(`${long}\n`);
    expect((await pallmist(['write', 'specimens', 'q=fern', '--values', '-', '--app', 'quillmoor'], values)).out).toBe(`${long}\n`);
    expect((await pallmist(['write', 'specimens', '--values', '[1]', '--file', demoFile])).status).toBe(2);
    const code = join(folder, 'code.svg');
    const { out, err } = await pallmist(['write', 'specimens', 'q=fern', '--app', 'quillmoor', '--short', '--qr', code]);
    const answer = await fetch(out.trim(), { redirect: 'manual' });
    expect([err, answer.headers.get('location')]).toEqual(['', '/garden/specimens?q=fern']);
    expect(readFileSync(code, 'utf8')).toContain('<svg');
    await pallmist(['short', 'quillmoor', '--withdraw', /\w{7}$/.exec(out.trim())?.[0] ?? '']);
    expect((await pallmist(['link', 'specimens', 'q=fern', '--app', 'quillmoor', '--whole'])).out).toBe(
      `${base}/garden/specimens?q=fern\n`,
    );
    expect((await pallmist(['write', 'specimens', '--short', '--file', demoFile])).status).toBe(2);
  });

  it('says every problem', async () => {
    const { status, err } = await pallmist(['write', 'specimen', 'tab=x', 'nope=1', '--file', demoFile]);
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
    expect((await pallmist(['push', file, '--replace'])).out).toMatch(/draft \d+ is in place, 2 errors/);
    expect(await pallmist(['publish', 'quillmoor'])).toMatchObject({
      status: 1,
      err: expect.stringContaining('was not published') as string,
    });
    expect((await pallmist(['check', '--app', 'quillmoor'])).status).toBe(1);
  });

  it('fix what they know how to fix, and keep the rest of the file', async () => {
    const file = join(folder, 'fix.yaml');
    const right = readFileSync(demoFile, 'utf8');
    writeFileSync(file, right.replace('bind: tab', 'bind: tba').replace('{ page: houses }', '{ page: huoses }'));
    const { status, out } = await pallmist(['check', file, '--fix']);
    expect(status).toBe(0);
    expect(out.match(/^fixed: /gm)?.length).toBe(2);
    expect(readFileSync(file, 'utf8')).toContain('# Quillmoor Glasshouses: an invented botanic garden');
    expect((await pallmist(['check', file])).out).toContain('no problems');
  });

  it.each(['--fix', '--mend'])('%s updates the keys of an older app file', async (option) => {
    const file = join(folder, 'older.yaml');
    writeFileSync(file, readFileSync(demoFile, 'utf8').replace('keyField: code', 'key: code').replace('titleField: name', 'title: name'));
    const before = await pallmist(['check', file, '--json']);
    expect((JSON.parse(before.out) as { problems: { code: string }[] }).problems.map(({ code }) => code)).toEqual([
      'former-key',
      'former-key',
    ]);
    expect((await pallmist(['check', file, option])).status).toBe(0);
    expect(readFileSync(file, 'utf8')).toBe(readFileSync(demoFile, 'utf8'));
  });

  it('renames a parameter everywhere, and old addresses keep working', async () => {
    const file = join(folder, 'renamed.yaml');
    writeFileSync(file, readFileSync(demoFile, 'utf8'));
    const { out } = await pallmist(['rename', file, 'parameter', 'specimens.q', 'words', '--json']);
    expect((JSON.parse(out) as { patch: unknown[] }).patch.length).toBeGreaterThan(4);
    expect((await pallmist(['check', file])).out).toContain('no problems');
    const reading = await pallmist(['read', '/garden/specimens?q=fern', '--file', file, '--json']);
    expect(JSON.parse(reading.out)).toMatchObject({ values: { words: 'fern' }, former: true });
    const none = await pallmist(['rename', file, 'parameter', 'specimens.nothing', 'x']);
    expect([none.status, none.err]).toEqual([1, expect.stringMatching(/nothing/)]);
  });

  it('publish a fixed draft', async () => {
    // In a folder of its own: the command keeps beside the file what it has seen.
    cpSync(dirname(demoFile), join(folder, 'garden'), { recursive: true });
    const copy = join(folder, 'garden', 'app.yaml');
    expect((await pallmist(['push', copy, '--with-data', '--replace', '--json'])).status).toBe(0);
    expect((await pallmist(['publish', 'quillmoor'])).out).toMatch(/edition 2 is served at http.*\/garden/);
    expect((await pallmist(['people', 'quillmoor', 'bruno', '--name', 'Bruno'], 'ferns-and-moss')).out).toContain('bruno may sign in');
  });
});

describe('what the habits of a shell expect', () => {
  const own = (name: string) => join(folder, name);

  it('reads a file from standard input, and takes --json anywhere', async () => {
    const { status, out } = await pallmist(['--json', 'check', '-'], readFileSync(demoFile, 'utf8'));
    expect([status, (JSON.parse(out) as { publishable: boolean }).publishable]).toEqual([0, true]);
    expect((await pallmist(['--version'])).out).toMatch(/^\d+\.\d+\.\d+\n$/);
  });

  it('ends without a word when the reader has seen enough', async () => {
    const shell = await new Promise<{ out: string; err: string }>((resolve) => {
      execFile(
        'bash',
        ['-c', `"$0" "$1" params "$2" --json | head -c 20; echo " \${PIPESTATUS[0]}"`, process.execPath, main, demoFile],
        (_, out, err) => {
          resolve({ out, err });
        },
      );
    });
    expect(shell).toEqual({ out: expect.stringMatching(/ 0\n$/) as string, err: '' });
  });

  it('writes a new app that runs, and leaves a file alone that is there', async () => {
    const file = own('seeds.yaml');
    expect((await pallmist(['new', 'Seed “swap”: & #1', '--file', file])).out).toContain('pallmist push');
    expect((await pallmist(['check', file])).out).toBe(`${file}: no problems\n`);
    expect((await pallmist(['new', 'Other', '--file', file])).status).toBe(2);
    const { app } = JSON.parse((await pallmist(['push', file, '--json'])).out) as { app: string };
    expect((await pallmist(['publish', app])).status).toBe(0);
    const { pages } = JSON.parse((await pallmist(['pages', '--app', app, '--json'])).out) as { pages: { address: string }[] };
    const answer = await fetch(base + (pages[0]?.address ?? '').replace(/\{.*/, ''));
    expect([answer.status, await answer.text()]).toEqual([200, expect.stringContaining('There is nothing like that.')]);
    await pallmist(['pull', app, own('pulled.yaml')]);
    expect(readFileSync(own('pulled.yaml'), 'utf8')).toBe(readFileSync(file, 'utf8'));
    writeFileSync(own('pulled.yaml'), readFileSync(file, 'utf8').replace('size: 25', 'size: 30'));
    await pallmist(['push', own('pulled.yaml')]);
    expect((await pallmist(['editions', app])).out).toMatch(/^1 /);
    const refused = await pallmist(['editions', app, '--bring-back', '1']);
    expect([refused.status, refused.err]).toEqual([1, expect.stringContaining('changes that are not published')]);
    expect((await pallmist(['pull', app])).out).toContain('size: 30');
    expect((await pallmist(['editions', app, '--bring-back', '1', '--replace'])).status).toBe(0);
    // A draft without changes of its own needs no consent.
    expect((await pallmist(['editions', app, '--bring-back', '1'])).status).toBe(0);
    expect((await pallmist(['pull', app])).out).toBe(readFileSync(file, 'utf8'));
    expect((await pallmist(['pull', app, '--edition', '1'])).out).toContain('size: 25');
  });

  it('uses app.yaml of the folder where neither a file nor an app is named', async () => {
    const own = join(folder, 'own');
    mkdirSync(own);
    for (const words of [['check'], ['dev'], ['link', 'list'], ['types']]) {
      const { status, err } = await pallmist(words, '', own);
      expect({ status, err }).toEqual({ status: 2, err: expect.stringContaining('there is no app.yaml in this folder') });
    }
    await pallmist(['new', 'Bulbs'], '', own);
    expect((await pallmist(['check'], '', own)).out).toBe('app.yaml: no problems\n');
    expect((await pallmist(['link', 'list', 'q=tulip & co'], '', own)).out).toBe('/bulbs?q=tulip%20%26%20co\n');
    expect((await pallmist(['read', '/bulbs?q=tulip'], '', own)).out).toContain('tulip');
    expect((await pallmist(['pages', '--app', 'quillmoor'], '', own)).out).toContain('specimens');
    expect((await pallmist(['link', 'app.yaml', 'list'], '', own)).err).toContain('write --file app.yaml');
    expect((await pallmist(['check', '.'], '', own)).err).toBe('. cannot be read: it is a folder; name the app file in it.\n');
  });

  it('draws the map as a picture that stands alone', async () => {
    const picture = join(folder, 'map.svg');
    expect((await pallmist(['map', demoFile, '--svg', picture])).status).toBe(0);
    const svg = readFileSync(picture, 'utf8');
    expect(svg).toMatch(/^<svg xmlns="http:\/\/www\.w3\.org\/2000\/svg"/);
    expect(svg).toContain('Welcome to Quillmoor');
    expect(svg).toContain('/notes{?words,numbers}');
    expect(svg).not.toMatch(/NaN|undefined|url\(http/);
  });

  it('lists pages and parameters, and draws the map', async () => {
    expect((await pallmist(['pages', demoFile])).out).toMatch(/^specimen +\/garden\/specimens\/\{specimen\}/m);
    expect((await pallmist(['params', demoFile, '--page', 'specimen'])).out).toMatch(
      /^specimen +tab +query +choice of specimen-tab +"overview"/m,
    );
    expect((await pallmist(['params', demoFile, '--page', 'specimn'])).err).toMatch(/specimen/);
    const map = (await pallmist(['map', demoFile])).out;
    expect(map).toMatch(/^flowchart LR\n {2}n0\["/);
    expect(map).toMatch(/-->\|"specimen[^"]*"\| n/);
  });

  it('writes types that stay as they are, and says where they are out of date', async () => {
    const out = own('pages.ts');
    expect((await pallmist(['types', demoFile, '--out', out, '--check'])).status).toBe(1);
    await pallmist(['types', demoFile, '--out', out]);
    expect((await pallmist(['types', demoFile, '--out', out, '--check'])).status).toBe(0);
    expect((await pallmist(['types', demoFile])).out).toBe(readFileSync(out, 'utf8'));
  });

  it('puts the pages of a module into an app file and into a draft', async () => {
    mkdirSync(own('node_modules/@pallmist'), { recursive: true });
    symlinkSync(fileURLToPath(new URL('../../address', import.meta.url)), own('node_modules/@pallmist/address'));
    const [file, module] = [own('stall.yaml'), own('stall.ts')];
    expect((await pallmist(['new', 'Stall', '--file', file])).status).toBe(0);
    const before = readFileSync(file, 'utf8');
    writeFileSync(own('most.ts'), 'export const most: number = 12;\n');
    writeFileSync(
      module,
      `import { integer, page } from '@pallmist/address';\nimport { most } from './most';\nexport const trays = page('/trays{?row}', { row: integer({ max: most }) });\n`,
    );
    expect((await pallmist(['declare', module, file, '--check'])).status).toBe(1);
    expect(readFileSync(file, 'utf8')).toBe(before);
    expect((await pallmist(['declare', module, file])).out).toBe('trays: added, without content yet\n');
    expect(readFileSync(file, 'utf8')).toContain('max: 12');
    expect((await pallmist(['declare', module, file])).out).toBe(`${file} says what ${module} does.\n`);
    const { app } = JSON.parse((await pallmist(['push', file, '--json'])).out) as { app: string };
    writeFileSync(own('most.ts'), 'export const most: number = 15;\n');
    expect((await pallmist(['declare', module, '--app', app, '--json'])).status).toBe(0);
    expect((await pallmist(['pull', app])).out).toContain('max: 15');
    await pallmist(['apps', '--remove', app, '--yes']);
    writeFileSync(own('broken.ts'), 'export const = 1;\n');
    const broken = await pallmist(['declare', own('broken.ts'), file]);
    expect([broken.status, broken.err.trimEnd().split('\n').length]).toEqual([2, 1]);
    expect((await pallmist(['declare', own('most.ts'), file])).err).toContain('exports no page');
  });

  it('completes commands and options in bash, and has a manual page', async () => {
    const script = (await pallmist(['completion', 'bash'])).out;
    const complete = (...words: string[]) =>
      new Promise<string[]>((resolve) => {
        const line = `${script}\nCOMP_WORDS=(pallmist ${words.map((word) => `'${word}'`).join(' ')}); COMP_CWORD=${String(words.length)}; _pallmist; echo "\${COMPREPLY[*]}"`;
        execFile('bash', ['-c', line], (_, out) => {
          resolve(out.trim().split(' '));
        });
      });
    expect(await complete('pu')).toEqual(['push', 'pull', 'publish']);
    expect(await complete('types', '--c')).toEqual(['--check']);
    expect(await complete('records', 'imp')).toEqual(['import']);
    for (const shell of ['zsh', 'fish']) expect((await pallmist(['completion', shell])).out).toContain('publish');
    expect((await pallmist(['completion', 'tcsh'])).status).toBe(2);
    expect((await pallmist(['manual'])).out).toMatch(/^\.TH PALLMIST 1[\s\S]*\.SS\npallmist records import/);
  });
});

describe('wrong usage', () => {
  it.each([
    [['nonsense'], 2, /unknown command/],
    [['read'], 2, /missing required argument/],
    [['read', '/garden'], 2, /--file.*--app/],
    [['check', 'nowhere.yaml'], 2, /there is no such file/],
    [['write', 'specimens', 'q', '--file', demoFile], 2, /name=value/],
    [['serve', '--port', 'high'], 2, /PALLMIST_PORT is “high”/],
    [['read', '/x', '--app', 'a', '--service', 'http://127.0.0.1:9'], 3, /There is no Pallmist service at/],
    [['publish', 'quillmoor', '--token', 'guess'], 1, /Only builders/],
  ])('%j ends with %i and a sentence', async (words, status, sentence) => {
    const answer = await pallmist(words);
    expect(answer.status).toBe(status);
    expect(answer.err).toMatch(sentence);
    expect(answer.err).not.toMatch(/\n\s+at /);
  });

  it.each([
    [['people', 'quillmoor', 'new'], 2, /password on standard input/],
    [['people', 'nowhere', 'new'], 1, /There is no app “nowhere”/],
    [['people', 'quillmoor', 'two words'], 1, /letters and digits/],
    [['people', 'quillmoor', 'new', '--mail', 'no address'], 1, /mail/],
    [['short', 'quillmoor', '/garden/nowhere'], 1, /No page of the app is at/],
    [['short', 'quillmoor', '/garden', '--days', 'many'], 2, /--days is a number/],
    [['short', 'quillmoor', '--withdraw', 'zzzzzzz'], 1, /has no short address/],
    [['outbox', '99'], 1, /There is no mail 99/],
    [['keys', '--rotate', '--forget', 'x'], 2, /either --rotate or --forget/],
    [['keys', '--forget', 'nothing'], 1, /key/],
    [['visits', 'nowhere'], 1, /There is no app “nowhere”/],
  ])('%j ends with %i and says why', async (words, status, sentence) => {
    const answer = await pallmist(words, words[0] === 'people' && status === 1 ? 'long-enough\n' : '');
    expect([answer.status, answer.err]).toEqual([status, expect.stringMatching(sentence)]);
    expect(answer.err).not.toMatch(/\n\s+at /);
  });

  it('helps, with examples', async () => {
    const { status, out } = await pallmist(['--help']);
    expect(status).toBe(0);
    for (const command of ['serve', 'demo', 'check', 'read', 'write', 'push', 'publish']) expect(out).toContain(command);
    expect((await pallmist(['write', '--help'])).out).toContain('Examples:');
  });
});

describe('what an owner does beside building', () => {
  const json = async <Answer>(words: string[], input?: string) => JSON.parse((await pallmist([...words, '--json'], input)).out) as Answer;
  const form = (path: string, fields: Record<string, string>, headers: Record<string, string> = {}) =>
    fetch(base + path, { method: 'POST', redirect: 'manual', body: new URLSearchParams(fields), headers });

  it('adds a person with a password, roles and a mail address', async () => {
    const words = ['people', 'quillmoor', 'cleo', '--name', 'Cleo Marsh', '--role', 'keeper', '--mail', 'cleo@quillmoor.example'];
    expect((await pallmist(words, 'reed-and-sedge\n')).out).toBe('cleo may sign in to quillmoor.\n');
    const answer = await form('/garden/sign-in', { '~name': 'cleo', '~password': 'reed-and-sedge', '~wanted': '/garden/workspace' });
    expect(answer.headers.get('location')).toBe('/garden/workspace');
    await form('/garden/sign-in', { '~mail': 'cleo@quillmoor.example' });
    await expect
      .poll(async () => (await pallmist(['outbox'])).out)
      .toMatch(/1 .* kept .* cleo@quillmoor\.example .* Your way into Quillmoor Glasshouses/);
    const mail = (await pallmist(['outbox', '1'])).out;
    expect(mail).toMatch(/^To: cleo@quillmoor\.example\nSubject: Your way into Quillmoor Glasshouses\nState: kept\n\nDear Cleo Marsh,/);
    expect(mail).toContain(`${base}/garden/sign-in?~enter=`);
  });

  it('makes, lists and withdraws short addresses', async () => {
    expect((await pallmist(['short', 'quillmoor'])).out).toBe('There are no short addresses yet.\n');
    const { shortAddresses } = await json<{ shortAddresses: { code: string; short: string }[] }>([
      'short',
      'quillmoor',
      '/garden/specimens?q=fern&picked=QM-0412',
      '--days',
      '30',
    ]);
    const [{ code, short } = { code: '', short: '' }] = shortAddresses;
    expect((await fetch(short, { redirect: 'manual' })).headers.get('location')).toBe('/garden/specimens?q=fern');
    expect((await pallmist(['short', 'quillmoor'])).out).toMatch(
      /\/garden\/~s\/\w{7} +until 20\d\d-\d\d-\d\d +\/garden\/specimens\?q=fern\n/,
    );
    expect((await pallmist(['short', 'quillmoor', '--withdraw', code])).out).toContain('no longer works.');
    expect((await fetch(short)).status).toBe(404);
  });

  it('makes a new key, which seals from then on, and forgets the old one, whose addresses are void', async () => {
    const write = async () => {
      const answer = await pallmist(['write', 'member', 'member=M-0001', '--app', 'quillmoor']);
      return answer.out.trim();
    };
    await form('/garden/membership', { '~form': 'join', name: 'Ada', mail: 'ada@quillmoor.example', kind: 'friend' }, { cookie: '' });
    const sealed = await write();
    expect((await fetch(base + sealed)).status).toBe(200);
    const [old] = (await json<{ keys: { id: string }[] }>(['keys'])).keys;
    const { keys } = await json<{ keys: { id: string; current: boolean }[] }>(['keys', '--rotate']);
    expect(keys.map(({ current }) => current).sort()).toEqual([false, true]);
    expect((await fetch(base + sealed)).status).toBe(200);
    expect((await pallmist(['keys', '--forget', old?.id ?? ''])).out).toMatch(/^\w+ +made .* seals and opens\n$/);
    expect((await fetch(base + sealed)).status).toBe(400);
    expect((await fetch(base + (await write()))).status).toBe(200);
  });

  it('sees who came by what, and what they sent', async () => {
    expect((await pallmist(['visits', 'quillmoor'])).out).toBe('Nobody has come with anything to remember yet.\n');
    const arrived = await fetch(`${base}/garden/membership?via=leaflet-26`, { redirect: 'manual' });
    const cookie = arrived.headers
      .getSetCookie()
      .map((set) => set.split(';')[0])
      .join('; ');
    await form('/garden/membership', { '~form': 'join', name: 'Bo', mail: 'bo@quillmoor.example', kind: 'friend' }, { cookie });
    await fetch(`${base}/garden?via=newsletter`, { redirect: 'manual' });
    expect((await pallmist(['visits', 'quillmoor'])).out).toMatch(/ +came +forms sent\nvia=leaflet-26 +1 +1\nvia=newsletter +1 +0\n/);
  });

  it('exports the records of a collection and imports them again', async () => {
    const file = join(folder, 'zones.csv');
    const told = await pallmist(['records', 'export', 'quillmoor', 'zones', file]);
    expect([told.status, told.out]).toEqual([0, expect.stringContaining(file)]);
    const csv = readFileSync(file, 'utf8');
    const lines = csv.trim().split(/\r?\n/);
    expect(lines.length).toBeGreaterThan(12);
    const asJson = await pallmist(['records', 'export', 'quillmoor', 'zones', '--format', 'json']);
    expect(JSON.parse(asJson.out)).toHaveLength(lines.length - 1);

    writeFileSync(file, `${lines[0] ?? ''}\nno-such,thing,here,at,all,and,more\n`);
    const wrong = await pallmist(['records', 'import', 'quillmoor', 'zones', file]);
    expect([wrong.status, wrong.err]).toEqual([1, expect.stringMatching(/line 2|columns|fields/i)]);
    writeFileSync(file, csv);
    expect((await pallmist(['records', 'import', 'quillmoor', 'zones', file])).status).toBe(0);
    expect((await pallmist(['records', 'export', 'quillmoor', 'zones'])).out).toBe(csv);
    expect((await pallmist(['records', 'import', 'quillmoor', 'nowhere', file])).err).toMatch(/nowhere/);
  });

  it('ends a person’s access, and the console’s sessions', async () => {
    await pallmist(['people', 'quillmoor', 'guest', '--name', 'Guest'], 'a-long-password');
    const logins = async () => (await json<{ people: { login: string }[] }>(['people', 'quillmoor'])).people.map(({ login }) => login);
    expect(await logins()).toContain('guest');
    expect((await pallmist(['people', 'quillmoor', 'guest', '--remove'])).status).toBe(0);
    expect(await logins()).not.toContain('guest');
    expect((await pallmist(['access', '--end-sessions'])).status).toBe(0);
    expect((await pallmist(['access'])).status).toBe(2);
  });

  it('prints a stable code with each error, for programs', async () => {
    const failed = await pallmist(['read', '/x', '--app', 'a', '--service', 'http://127.0.0.1:9', '--json']);
    expect([failed.status, JSON.parse(failed.out)]).toEqual([3, { error: expect.any(String) as string, code: 'service-not-reached' }]);
  });

  it('lists records by conditions, shows, saves and removes one', async () => {
    const list = await json<{ records: { house: string; planted: string }[]; total: number; next: string }>([
      ...['records', 'list', 'quillmoor', 'specimens', 'house=palm', 'planted.within=2020-01-01..', '--sort', '-planted', '--limit', '3'],
    ]);
    expect(list.records).toHaveLength(3);
    for (const { house, planted } of list.records) expect([house, planted >= '2020-01-01']).toEqual(['palm', true]);
    const table = await pallmist(['records', 'list', 'quillmoor', 'specimens', 'house=palm', '--limit', '2']);
    expect(table.out).toMatch(/^accession +name +house/);
    expect(table.out).toMatch(/2 of \d+\. Go on with --after \S+/);
    expect((await pallmist(['records', 'save', 'quillmoor', 'zones', 'code=test-bed', 'name=Test bed', 'letter=Z'])).status).toBe(0);
    expect((await pallmist(['records', 'show', 'quillmoor', 'zones', 'test-bed'])).out).toMatch(/name +Test bed/);
    const wrong = await pallmist(['records', 'save', 'quillmoor', 'zones', 'nam=x', '--key', 'test-bed']);
    expect([wrong.status, wrong.err.match(/no field “nam”/g)]).toEqual([1, ['no field “nam”']]);
    const removed = await pallmist(['records', 'remove', 'quillmoor', 'zones', 'test-bed', '--gone', 'It was a test.']);
    expect(removed.out).toMatch(/test-bed is removed\.\nOnce you publish quillmoor, links to test-bed tell/);
    expect((await pallmist(['records', 'show', 'quillmoor', 'zones', 'test-bed'])).status).toBe(1);
    const again = await pallmist(['records', 'save', 'quillmoor', 'zones', 'code=other', 'name=Other', 'letter=Z']);
    expect([again.status, again.err]).toEqual([1, expect.stringContaining('“Z” named a record that is gone.')]);
  });

  it('makes a token that may do what it names and no more, and ends it', async () => {
    const { token, made } = await json<{ token: string; made: { id: string } }>(['tokens', '--make', 'Labels', '--scopes', 'records:read']);
    const asToken = (words: string[]) => pallmist([...words, '--token', token]);
    expect((await asToken(['records', 'show', 'quillmoor', 'houses', 'palm'])).status).toBe(0);
    expect((await asToken(['records', 'remove', 'quillmoor', 'houses', 'palm'])).err).toContain('has no scope “records:write”');
    expect((await pallmist(['tokens'])).out).toMatch(/Labels +records:read +all apps/);
    expect((await pallmist(['tokens', '--make', 'x', '--scopes', 'record:read'])).err).toContain('Did you mean “records:read”?');
    expect((await pallmist(['tokens', '--end', made.id])).status).toBe(0);
    expect((await asToken(['records', 'show', 'quillmoor', 'houses', 'palm'])).status).toBe(1);
  });

  it('makes a webhook, and shows what was sent to it', async () => {
    const made = await json<{ secret: string; webhook: { id: string } }>([
      ...['webhooks', 'quillmoor', '--make', 'http://127.0.0.1:9/told', '--collections', 'members'],
    ]);
    expect(made.secret).toHaveLength(43);
    expect((await pallmist(['webhooks', 'quillmoor'])).out).toContain('http://127.0.0.1:9/told');
    expect((await pallmist(['webhooks', 'quillmoor', '--deliveries', made.webhook.id.slice(0, 6)])).out).toBe('Nothing was sent yet.\n');
    expect((await pallmist(['webhooks', 'quillmoor', '--remove', made.webhook.id.slice(0, 6)])).status).toBe(0);
  });

  it('copies a running service, finds the copy damaged where it is, and puts it in place', async () => {
    const backup = join(folder, 'backup');
    expect((await pallmist(['backup', backup])).out).toMatch(/^The backup is in .*backup, [\d.]+ MB\.\n$/);
    expect((await pallmist(['backup', backup])).err).toContain('is not empty');
    // The service is running.
    expect((await pallmist(['restore', backup, '--replace'])).err).toContain('Another Pallmist service is using');
    const [place, other] = [join(folder, 'restored'), join(folder, 'other')];
    expect((await pallmist(['restore', backup, '--data', place])).status).toBe(0);
    expect((await pallmist(['restore', backup, '--data', place])).err).toContain('--replace');
    const again = await json<{ before: string }>(['restore', backup, '--data', place, '--replace']);
    expect(readdirSync(again.before)).toContain('pallmist.sqlite');
    for (const name of ['keys.json', 'api-token'])
      expect(readFileSync(join(place, name))).toEqual(readFileSync(join(environment['PALLMIST_DATA'] ?? '', name)));
    const whole = readFileSync(join(backup, 'pallmist.sqlite'));
    writeFileSync(join(backup, 'pallmist.sqlite'), whole.subarray(0, whole.length - 1));
    expect((await pallmist(['restore', backup, '--data', other])).err).toContain('pallmist.sqlite');
    expect(existsSync(join(other, 'pallmist.sqlite'))).toBe(false);
  });

  it('examines a running service, and a directory whose database is damaged', async () => {
    const { port } = new URL(base);
    environment = { ...environment, PALLMIST_PORT: port };
    const well = await pallmist(['doctor']);
    expect(well.out).toMatch(/ok +Database +[\d.]+ MB, whole\./);
    expect(well.out).toMatch(/ok +Service +Pallmist \S+ answers at http/);
    expect(well.status).toBe(0);
    const ill = join(folder, 'ill');
    mkdirSync(ill, { mode: 0o700 });
    writeFileSync(join(ill, 'pallmist.sqlite'), 'not a database, but long enough to be taken for one, until it is read');
    writeFileSync(join(ill, 'keys.json'), '[{"id": "a"}]');
    const found = await pallmist(['doctor', '--data', ill]);
    expect(found.status).toBe(1);
    expect(found.out).toMatch(/BAD +Database +It is damaged/);
    expect(found.out).toMatch(/BAD +Keys /);
    expect(found.out).toContain('pallmist restore');
    expect(well.out).not.toContain('Address of drafts');
    const behind = { PALLMIST_PUBLIC_URL: 'https://garden.example' };
    expect((await pallmist(['doctor'], '', undefined, behind)).out).toMatch(/look +Address of drafts .*[^]*PALLMIST_DRAFT_URL/);
    const named = { ...behind, PALLMIST_DRAFT_URL: 'https://drafts.garden.example' };
    expect((await pallmist(['doctor'], '', undefined, named)).out).toMatch(/ok +Address of drafts +https:\/\/drafts\.garden\.example/);
  });

  it('removes an app only when told twice', async () => {
    const file = join(folder, 'shed.yaml');
    await pallmist(['new', 'Shed', '--file', file]);
    await pallmist(['push', file, '--replace']);
    expect((await pallmist(['apps'])).out).toMatch(/shed +Shed/);
    expect((await pallmist(['apps', '--remove', 'shed'])).status).toBe(2);
    expect((await pallmist(['apps', '--remove', 'shed', '--yes'])).out).toBe('shed is removed.\n');
    expect((await pallmist(['apps'])).out).not.toContain('shed');
  });
});

describe('links that last', () => {
  const letter = join(folder, 'letter.txt');

  it('finds the addresses of an app in files, and shows which work', async () => {
    writeFileSync(
      letter,
      'See https://quillmoor.example/garden/specimens?q=fern&amp;house=palm, and (http://q.example/garden/plants/QM-0001).\n' +
        'Wrong: https://q.example/garden/speciments https://q.example/garden/specimens?page=zero https://q.example/garden/specimens?page=no.\n' +
        '127.0.0.1 - - [19/Nov/2026] "GET /garden/climates HTTP/1.1" 200\nplant,/garden/houses\nhttps://elsewhere.example/other',
    );
    const { status, out } = await pallmist(['audit', 'quillmoor', letter]);
    expect(status).toBe(1);
    expect(out).toContain(`unknown: /garden/speciments  ${letter}:2`);
    expect(out).toContain('Perhaps /garden/specimens was meant.');
    expect(out).toContain(`noted: /garden/specimens?page=zero  ${letter}:2\n`);
    expect(out).toMatch(/ 3 {2}work\n +1 {2}lead to today’s address\n +2 {2}open without a value, .*\n +1 {2}lead nowhere\n$/);
    const { out: ofHost } = await pallmist(['audit', 'quillmoor', letter, '--host', 'quillmoor.example', '--json']);
    expect(JSON.parse(ofHost)).toMatchObject({ addresses: [{ address: '/garden/specimens?q=fern&house=palm', verdict: 'works' }] });
    expect((await pallmist(['audit', 'quillmoor', join(folder, 'no-such-file')])).status).toBe(2);
  });

  it('finds addresses in the texts and links of a spreadsheet', async () => {
    const book = join(folder, 'links.xlsx');
    const texts = '<sst><si><r><t>Our list: https://q.example/garden/</t></r><r><t>specimens?q=moss&amp;sort=-height</t></r></si></sst>';
    const links = '<Relationships><Relationship Target="https://q.example/garden/specimen/QM-0412"/></Relationships>';
    const part = (xml: string) => new TextEncoder().encode(xml);
    writeFileSync(book, zipSync({ 'xl/sharedStrings.xml': part(texts), 'xl/worksheets/_rels/sheet1.xml.rels': part(links) }));
    const { out } = await pallmist(['audit', 'quillmoor', book, '--json']);
    expect((JSON.parse(out) as { addresses: object[] }).addresses).toMatchObject([
      { address: '/garden/specimens?q=moss&sort=-height', verdict: 'works' },
      { address: '/garden/specimen/QM-0412', verdict: 'unknown', to: '/garden/specimens/QM-0412' },
    ]);
    writeFileSync(book, zipSync({ 'letter.txt': part('https://q.example/garden') }));
    expect(await pallmist(['audit', 'quillmoor', book])).toMatchObject({
      status: 2,
      err: expect.stringContaining('no spreadsheet') as string,
    });
  });

  it('notes what a code is printed on, also of a short address', async () => {
    const code = join(folder, 'code.svg');
    const { out } = await pallmist([
      'write',
      'specimen',
      'specimen=QM-0413',
      '--app',
      'quillmoor',
      '--short',
      '--qr',
      code,
      '--printed-on',
      'Labels',
    ]);
    const short = new URL(out.trim()).pathname;
    expect(readFileSync(code, 'utf8')).toContain('<svg');
    const noted = JSON.parse((await pallmist(['printed', 'quillmoor', '--json'])).out) as { printed: { id: string; address: string }[] };
    const { id = '' } = noted.printed.find(({ address }) => address === short) ?? {};
    const withdraw = ['short', 'quillmoor', '--withdraw', short.slice(-7)];
    expect(await pallmist(withdraw)).toMatchObject({ status: 1, err: expect.stringContaining('is printed on “Labels”') as string });
    expect((await pallmist(['short', 'quillmoor'])).out).toContain('printed on Labels');
    expect((await pallmist(['printed', 'quillmoor', '--remove', id])).status).toBe(0);
    expect((await pallmist(withdraw)).status).toBe(0);
    expect((await pallmist(['write', 'houses', '--app', 'quillmoor', '--printed-on', 'Labels'])).status).toBe(2);
  });

  it('rehearses publishing, repairs what is certain, and publishes the rest with consent', async () => {
    const file = join(folder, 'lasting.yaml');
    await pallmist(['pull', 'quillmoor', file]);
    const moved = readFileSync(file, 'utf8').replace('mount: /garden', 'mount: /glasshouses').replace('default: overview', 'default: care');
    writeFileSync(file, moved);
    await pallmist(['push', file, '--replace']);
    const rehearsed = await pallmist(['rehearse', 'quillmoor']);
    expect(rehearsed.status).toBe(1);
    expect(rehearsed.out).toContain('without “tab” meant “overview” and now means “care”.');
    expect((await pallmist(['publish', 'quillmoor'])).status).toBe(1);

    const fixed = await pallmist(['rehearse', 'quillmoor', '--fix']);
    expect(fixed.out).toContain('Done: Keep /garden as a former place of the app: addresses there lead to /glasshouses.');
    const [, id = ''] = /^ {2}([0-9a-f]{10}) {2}An address of the page “specimen”/m.exec(fixed.out) ?? [];
    const wrong = await pallmist(['rehearse', 'quillmoor', '--repair', 'nonsense']);
    expect([wrong.status, wrong.err]).toEqual([2, expect.stringContaining('There is no finding nonsense.')]);
    expect((await pallmist(['publish', 'quillmoor', '--consent', id, '--why', 'Care first'])).status).toBe(0);
    expect((await fetch(`${base}/garden/houses`, { redirect: 'manual' })).headers.get('location')).toBe('/glasshouses/houses');
    const after = await pallmist(['rehearse', 'quillmoor']);
    expect([after.status, after.out]).toEqual([0, 'Every address of earlier editions means the same after publishing.\n']);
  });
});
