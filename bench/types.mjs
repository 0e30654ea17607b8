// How much longer the compiler takes for a file that imports types of a package, with every declaration checked.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { median } from './measure.mjs';

const modules = fileURLToPath(new URL('../node_modules', import.meta.url));
const rounds = 5;

const sources = {
  nothing: 'export {};',
  address:
    "import { integer, page } from '@pallmist/address'; export const plants = page('/plants{?page}', { page: integer({ default: 1 }) });",
  browser: "import { live } from '@pallmist/browser'; export const make = live;",
  app: "import type { AppDefinition } from '@pallmist/app'; export const pagesOf = (app: AppDefinition) => app.pages;",
  api: "import { PallmistClient } from '@pallmist/api'; export const apps = new PallmistClient({ base: '' }).call('listApps', {}).then((all) => all.apps);",
};

/** @returns milliseconds beyond those of a file that imports nothing, by package; and of that file, under “nothing” */
export function benchTypes() {
  const folder = mkdtempSync(join(tmpdir(), 'pallmist-types-'));
  try {
    symlinkSync(modules, join(folder, 'node_modules'));
    writeFileSync(join(folder, 'package.json'), '{ "type": "module" }');
    const times = Object.fromEntries(Object.keys(sources).map((name) => [name, []]));
    for (const [name, source] of Object.entries(sources)) writeFileSync(join(folder, `${name}.ts`), source);
    for (let round = 0; round < rounds; round++)
      for (const name of Object.keys(sources)) {
        const options = ['--strict', '--noEmit', '--module', 'esnext', '--moduleResolution', 'bundler', '--target', 'es2023'];
        const began = performance.now();
        execFileSync(process.execPath, [join(modules, 'typescript/bin/tsc'), ...options, '--lib', 'es2024,dom', `${name}.ts`], {
          cwd: folder,
        });
        times[name].push(performance.now() - began);
      }
    const nothing = median(times.nothing);
    return Object.fromEntries(
      Object.entries(times).map(([name, all]) => [name, name === 'nothing' ? nothing : Math.max(0, median(all) - nothing)]),
    );
  } finally {
    rmSync(folder, { recursive: true });
  }
}
