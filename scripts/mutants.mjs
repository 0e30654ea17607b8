// Changes the code on purpose and looks whether a test notices: npm run mutants [-- PART OF A FILE NAME OR PROMISE].
// docs/mutants.yaml lists the changes. Each is made in a copy of this folder, so that nothing here is touched.
import { spawn } from 'node:child_process';
import { cpSync, existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parse } from 'yaml';

const root = fileURLToPath(new URL('../', import.meta.url));
const list = new URL('../docs/mutants.yaml', import.meta.url);
/** Milliseconds that the tests of one change have: a change may make them wait for ever. */
const longest = 240_000;

const part = process.argv[2] ?? '';
const mutants = parse(readFileSync(list, 'utf8')).filter(({ file, promise }) => part === '--check' || `${file} ${promise}`.includes(part));

const stale = mutants.flatMap(({ file, from, tests }) => [
  ...(readFileSync(join(root, file), 'utf8').split(from).length === 2 ? [] : [`${file} does not have this once: ${from}`]),
  ...tests.filter((test) => !existsSync(join(root, test))).map((test) => `There is no ${test}.`),
]);
if (mutants.length === 0) stale.push(`Nothing in docs/mutants.yaml has “${part}”.`);
if (stale.length > 0) {
  console.error([...new Set(stale)].join('\n'));
  process.exit(2);
}

// CI only asks whether the changes can still be made.
if (part === '--check') process.exit(0);

/** Runs tests in a folder. @returns whether they pass, and whether they came to an end */
function run(folder, tests, most = longest) {
  return new Promise((resolve) => {
    const words = [
      '--no-install',
      'vitest',
      'run',
      '--bail',
      '1',
      '--maxWorkers',
      '1',
      '--testTimeout',
      '30000',
      '--reporter',
      'dot',
      ...tests,
    ];
    const child = spawn('npx', words, { cwd: folder, stdio: ['ignore', 'pipe', 'pipe'], detached: true });
    let said = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => (said = (said + chunk).slice(-4000)));
    const timer = setTimeout(() => process.kill(-child.pid, 'SIGKILL'), most);
    child.once('exit', (status) => {
      clearTimeout(timer);
      resolve({ passed: status === 0, said });
    });
  });
}

const folders = Array.from({ length: Math.min(2, availableParallelism(), mutants.length) }, () =>
  mkdtempSync(join(tmpdir(), 'pallmist-mutants-')),
);
const survivors = [];
let done = 0;
try {
  for (const folder of folders)
    cpSync(root, folder, { recursive: true, verbatimSymlinks: true, filter: (path) => !path.endsWith('/.git') });
  const tests = [...new Set(mutants.flatMap((mutant) => mutant.tests))];
  console.log(`The ${tests.length} test files as the code is …`);
  const before = await run(folders[0], tests, 5 * longest);
  if (!before.passed) throw new Error(`They fail without any change:\n${before.said}`);
  const waiting = mutants.values();
  await Promise.all(
    folders.map(async (folder) => {
      for (const { promise, file, from, to, tests: own } of waiting) {
        const path = join(folder, file);
        const source = readFileSync(path, 'utf8');
        writeFileSync(
          path,
          source.replace(from, () => to),
        );
        const { passed } = await run(folder, own);
        writeFileSync(path, source);
        if (passed) survivors.push(`${file}: ${promise}`);
        console.log(`${String(++done).padStart(3)} of ${mutants.length}  ${passed ? 'SURVIVED' : 'caught  '}  ${promise}  ${file}`);
      }
    }),
  );
} finally {
  for (const folder of folders) rmSync(folder, { recursive: true, force: true });
}
console.log(`${mutants.length - survivors.length} of ${mutants.length} changes were caught.`);
if (survivors.length > 0) console.log(`No test noticed:\n${survivors.map((one) => `  ${one}`).join('\n')}`);
process.exitCode = survivors.length === 0 ? 0 : 1;
