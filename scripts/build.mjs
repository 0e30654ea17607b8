// Builds everything that runs: the packages with tsc, the hosted pages and the console with Vite.
import { execFileSync } from 'node:child_process';

const root = new URL('../', import.meta.url);
const steps = [
  ['compiling the packages', '.', ['tsc', '-b']],
  ['building the hosted pages for browsers', 'packages/pages', ['vite', 'build', '--logLevel', 'warn']],
  ['building the hosted pages for the service', 'packages/pages', ['vite', 'build', '--ssr', 'src/server.ts', '--logLevel', 'warn']],
  ['building the console', 'packages/console', ['vite', 'build', '--logLevel', 'warn']],
];
for (const [what, folder, command] of steps) {
  console.log(`  ${what} …`);
  execFileSync('npx', ['--no-install', ...command], { cwd: new URL(folder, root), stdio: ['ignore', 'inherit', 'inherit'] });
}
