// Builds everything that runs: the packages with tsc, the hosted pages and the console with Vite; compresses what browsers load.
import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';

const root = new URL('../', import.meta.url);
const steps = [
  ['compiling the packages', '.', ['tsc', '-b']],
  ['building the hosted pages for browsers', 'packages/pages', ['vite', 'build', '--logLevel', 'warn']],
  ['building the hosted pages for the service', 'packages/pages', ['vite', 'build', '--ssr', 'src/server.ts', '--logLevel', 'warn']],
  ['bundling the command', 'packages/cli', ['vite', 'build', '--logLevel', 'warn']],
  ['building the console', 'packages/console', ['vite', 'build', '--logLevel', 'warn']],
];
for (const [what, folder, command] of steps) {
  console.log(`  ${what} …`);
  execFileSync('npx', ['--no-install', ...command], { cwd: new URL(folder, root), stdio: ['ignore', 'inherit', 'inherit'] });
}

console.log('  building the guides …');
await import('./docs-site.mjs');

console.log('  compressing what browsers load …');
const compressible = /\.(?:js|css|svg|json)$/;
/** Below this, in bytes, a file is not worth a second copy. */
const least = 512;
for (const folder of ['packages/pages/dist/browser/', 'packages/console/dist/']) {
  for (const entry of readdirSync(new URL(folder, root), { recursive: true, withFileTypes: true })) {
    if (!entry.isFile() || !compressible.test(entry.name)) continue;
    const path = `${entry.parentPath}/${entry.name}`;
    const content = readFileSync(path);
    if (content.length < least) continue;
    writeFileSync(`${path}.br`, brotliCompressSync(content, { params: { [constants.BROTLI_PARAM_SIZE_HINT]: content.length } }));
    writeFileSync(`${path}.gz`, gzipSync(content, { level: 9 }));
  }
}
