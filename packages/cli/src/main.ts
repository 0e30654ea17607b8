#!/usr/bin/env node
const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
if (major < 20 || (major === 20 && minor < 19)) {
  process.stderr.write(`Pallmist needs Node 20.19 or newer; this is ${process.versions.node}.\n`);
  process.exitCode = 2;
} else {
  // Only now: an older Node could not even read what follows.
  const { run } = await import('./run.ts');
  process.exitCode = await run(process.argv);
}

export {};
