#!/usr/bin/env node
import { run } from './run.ts';

const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
if (major < 20 || (major === 20 && minor < 19)) {
  process.stderr.write(`Pallmist needs Node 20.19 or newer; this is ${process.versions.node}.\n`);
  process.exitCode = 2;
} else {
  process.exitCode = await run(process.argv);
}
