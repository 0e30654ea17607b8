import { execFile, spawn } from 'node:child_process';
import { mkdir, mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import { checkPackage, createPackageFromTarballData } from '@arethetypeswrong/core';
import { publint } from 'publint';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { watchErrors } from '../support/chromium.ts';
import { launchStrictChromium } from '../support/front-end.ts';

const root = fileURLToPath(new URL('../../', import.meta.url));
const names = ['address', 'browser', 'api', 'app', 'pages', 'console', 'service', 'cli'];
const run = promisify(execFile);
let folder: string;
/** The tarballs by the name of their package’s folder. */
const packed: Record<string, string> = {};
/** A project with Vite and TypeScript, in which those who use the libraries begin. */
let frontEnd: string;

/** Runs a command. @returns what it wrote; where it fails, the error has that too */
async function output(cwd: string, command: string, ...words: string[]): Promise<string> {
  try {
    const { stdout } = await run(command, words, { cwd, env: { ...process.env, NO_COLOR: '1' }, maxBuffer: 1e8 });
    return stdout;
  } catch (error) {
    const { stdout, stderr } = error as { stdout: string; stderr: string };
    throw new Error(`${command} ${words.join(' ')}\n${stdout}${stderr}`, { cause: error });
  }
}

/** An empty project with some of the packages, and some of others, and with these files. */
async function project(name: string, packages: string[], others: Record<string, string>, files: Record<string, string>): Promise<string> {
  const place = join(folder, name);
  await mkdir(place);
  const dependencies = {
    ...Object.fromEntries(packages.map((one) => [one === 'cli' ? 'pallmist' : `@pallmist/${one}`, `file:${packed[one] ?? ''}`])),
    ...others,
  };
  await writeFile(
    join(place, 'package.json'),
    JSON.stringify({
      name,
      private: true,
      type: 'module',
      dependencies,
      overrides: Object.fromEntries(
        names
          .filter((one) => !packages.includes(one))
          .map((one) => [one === 'cli' ? 'pallmist' : `@pallmist/${one}`, `file:${packed[one] ?? ''}`]),
      ),
    }),
  );
  for (const [file, text] of Object.entries(files)) await writeFile(join(place, file), text);
  await output(place, 'npm', 'install', '--prefer-offline', '--no-audit', '--no-fund', '--loglevel=error');
  return place;
}

/** A folder in a project, with these files. */
async function folderIn(place: string, name: string, files: Record<string, string>): Promise<string> {
  const made = join(place, name);
  await mkdir(made);
  await writeFile(join(made, 'package.json'), '{ "type": "module" }');
  for (const [file, text] of Object.entries(files)) await writeFile(join(made, file), text);
  return made;
}

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'pallmist-packed-'));
  const told = JSON.parse(
    await output(root, 'npm', 'pack', '--json', '--pack-destination', folder, ...names.map((name) => `--workspace=packages/${name}`)),
  ) as { name: string; filename: string }[];
  for (const { name, filename } of told)
    packed[name === 'pallmist' ? 'cli' : name.replace('@pallmist/', '')] = join(folder, filename.replace('@pallmist/', 'pallmist-'));
  const { devDependencies } = JSON.parse(await readFile(join(root, 'package.json'), 'utf8')) as { devDependencies: Record<string, string> };
  frontEnd = await project(
    'front-end',
    ['address', 'browser'],
    Object.fromEntries(['typescript', 'vite', 'svelte'].map((name) => [name, devDependencies[name] ?? ''])),
    {},
  );
});
afterAll(() => rm(folder, { recursive: true, force: true }));

interface AttwProblem {
  kind: string;
  resolutionKind?: string;
}

it('each package has what it needs, and types that every resolution finds', async () => {
  for (const name of names) {
    const tarball = await readFile(packed[name] ?? '');
    const { messages } = await publint({ pack: { tarball: Uint8Array.from(tarball).buffer }, strict: true });
    expect(messages, name).toEqual([]);
    // The command has no entry to import, and the console is files for a browser.
    if (!['cli', 'console'].includes(name)) {
      const { problems } = (await checkPackage(createPackageFromTarballData(tarball), {
        excludeEntrypoints: ['./tokens.css', './package.json'],
      })) as { problems: AttwProblem[] };
      // The packages are modules: what only CommonJS or Node 10 would look for is not there.
      const found = problems.filter(
        ({ kind, resolutionKind }) => kind !== 'CJSResolvesToESM' && resolutionKind !== 'node10' && resolutionKind !== 'node16-cjs',
      );
      expect(found, name).toEqual([]);
    }
    const files = await output(folder, 'tar', '-tzf', packed[name] ?? '');
    for (const file of ['README.md', 'LICENSE', 'package.json']) expect(files, `${name} lacks ${file}`).toContain(`package/${file}\n`);
    expect(files).not.toMatch(/tsbuildinfo|\/test\//);
  }
});

it('in a project with Vite and TypeScript, the first example of each README compiles and builds', async () => {
  const examples = await Promise.all(['address', 'browser'].map((name) => firstExample(name)));
  const compilerOptions = {
    strict: true,
    target: 'ES2023',
    lib: ['ES2024', 'DOM'],
    noEmit: true,
    skipLibCheck: false,
    types: [],
    module: 'esnext',
    moduleResolution: 'bundler',
  };
  const place = await folderIn(frontEnd, 'first', {
    'index.html': '<!doctype html><title>Plants</title><script type="module" src="/main.ts"></script>',
    'main.ts': examples[1] ?? '',
    'address.ts': examples[0] ?? '',
    'entries.ts': `export * as dom from '@pallmist/browser/dom'; export * as svelte from '@pallmist/browser/svelte'; export * as app from '@pallmist/browser/app';`,
    'tsconfig.json': JSON.stringify({ compilerOptions, include: ['*.ts'] }),
    'tsconfig.node.json': JSON.stringify({
      compilerOptions: { ...compilerOptions, module: 'node16', moduleResolution: 'node16' },
      include: ['*.ts'],
    }),
  });
  for (const config of ['tsconfig.json', 'tsconfig.node.json']) expect(await output(place, 'npx', 'tsc', '-p', config)).toBe('');
  await output(place, 'npx', 'vite', 'build', '--logLevel', 'error');
  const [script = ''] = (await readdir(join(place, 'dist/assets'))).filter((name) => name.endsWith('.js'));
  const built = await readFile(join(place, 'dist/assets', script), 'utf8');
  expect(built).toContain('shade');
  expect(built.length).toBeLessThan(20_000);
});

it('in an empty project, the five-minute guide makes a filter list whose address can be shared', async () => {
  const guide = await readFile(join(root, 'docs/front-end.md'), 'utf8');
  const blocks = (language: string) =>
    [...guide.matchAll(new RegExp(`\`\`\`${language}\\n([\\s\\S]*?)\`\`\``, 'g'))].map(([, code = '']) => code);
  const place = await folderIn(frontEnd, 'five-minutes', {
    'tsconfig.json': blocks('json')[0] ?? '',
    'plants.ts': blocks('ts')[0] ?? '',
    'main.ts': blocks('ts')[1] ?? '',
    'index.html': blocks('html')[0] ?? '',
  });
  expect(await output(place, 'npx', 'tsc')).toBe('');
  await output(place, 'npx', 'vite', 'build', '--logLevel', 'error');
  const { preview } = await import('vite');
  const server = await preview({ root: place, configFile: false, logLevel: 'silent', preview: { port: 0, host: '127.0.0.1' } });
  const browser = await launchStrictChromium();
  try {
    const page = await browser.newPage();
    const errors = watchErrors(page);
    await page.goto(`${server.resolvedUrls?.local[0] ?? ''}?light=Shade&page=many`);
    expect(await page.locator('#found').innerText()).toBe('Fog fern\nTree fern');
    await page.selectOption('[name=light]', '');
    await page.check('[value=mist]');
    await page.click('text=Apply');
    await page.waitForFunction(() => location.search === '?zones=mist');
    await page.locator('[name=q]').pressSequentially('tree', { delay: 15 });
    await page.waitForFunction(() => location.search === '?q=tree&zones=mist');
    expect(await page.locator('#found').innerText()).toBe('Tree fern');
    await page.reload();
    expect([await page.inputValue('[name=q]'), await page.isChecked('[value=mist]')]).toEqual(['tree', true]);
    await page.goBack();
    expect(await page.inputValue('[name=light]')).toBe('shade');
    expect(errors).toEqual([]);
  } finally {
    await browser.close();
    await server.close();
  }
});

it('in plain Node, every entry can be imported, and the first examples run', async () => {
  const packages = ['address', 'browser', 'api', 'app'];
  const entries: string[] = [];
  for (const name of packages) {
    const { exports } = JSON.parse(await readFile(join(root, 'packages', name, 'package.json'), 'utf8')) as {
      exports: Record<string, unknown>;
    };
    for (const entry of Object.keys(exports)) if (entry !== './svelte') entries.push(`@pallmist/${name}${entry.slice(1)}`);
  }
  const place = await project(
    'plain',
    packages,
    {},
    {
      'entries.mjs': entries.map((entry) => `await import(${JSON.stringify(entry)});`).join('\n'),
      'address.mjs': await firstExample('address'),
    },
  );
  await output(place, process.execPath, 'entries.mjs');
  // The compiler needs three seconds to read Zod's types, so no entry may import them.
  await writeFile(join(place, 'types.ts'), entries.map((entry, at) => `export type * as entry${String(at)} from '${entry}';`).join('\n'));
  const compiler = ['--strict', '--noEmit', '--module', 'node16', '--target', 'es2023', '--lib', 'es2024,dom', '--listFiles'];
  const read = await output(place, join(root, 'node_modules/.bin/tsc'), ...compiler, 'types.ts');
  for (const name of packages) expect(read).toContain(`@pallmist/${name}/dist/index.d.ts`);
  expect(read).not.toContain('/node_modules/zod/');
  expect(await output(place, process.execPath, 'address.mjs')).toBe("{ q: 'fern', light: undefined, page: 2 }\n/plants?light=shade\n");
});

it('the global command says its version, checks a file, and serves the console', async () => {
  const prefix = join(folder, 'global');
  await mkdir(prefix);
  await output(
    folder,
    'npm',
    'install',
    '--global',
    '--prefix',
    prefix,
    '--prefer-offline',
    '--no-audit',
    '--no-fund',
    '--loglevel=error',
    ...Object.values(packed),
  );
  const command = join(prefix, 'bin/pallmist');
  expect(await output(folder, command, '--version')).toMatch(/^\d+\.\d+\.\d+\n$/);
  await writeFile(
    join(folder, 'pots.yaml'),
    'pallmist: 1\napp: pots\ntitle: Pots\nmount: /pots\npages: { home: { title: Pots, address: /, content: [] } }\n',
  );
  expect(await output(folder, command, 'check', 'pots.yaml')).toContain('pots.yaml: ');
  const service = spawn(command, ['serve', '--port', '0', '--data', join(folder, 'data')], {
    cwd: folder,
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  try {
    const base = await new Promise<string>((resolve, reject) => {
      let said = '';
      service.stdout.on('data', (chunk: Buffer) => {
        said += chunk.toString();
        const ready = /ready at (\S+)/.exec(said);
        if (ready?.[1] !== undefined) resolve(ready[1]);
      });
      service.on('exit', () => {
        reject(new Error(`It ended: ${said}`));
      });
    });
    const page = await (await fetch(`${base}/~/console`)).text();
    const [script = ''] = /\/~\/console\/assets\/[^"]+\.js/.exec(page) ?? [];
    expect((await fetch(base + script)).status).toBe(200);
  } finally {
    service.kill();
  }
});

/** The first example in the README of a package. */
async function firstExample(name: string): Promise<string> {
  return /```ts\n([\s\S]*?)```/.exec(await readFile(join(root, 'packages', name, 'README.md'), 'utf8'))?.[1] ?? '';
}
