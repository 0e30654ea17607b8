// npm run bench: measures, prints, and with --write keeps the figures in docs/performance.md.
import { readFileSync, writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { benchCore } from './core.mjs';

const table = (head, rows) => [head, head.map(() => '---'), ...rows].map((row) => `| ${row.join(' | ')} |`).join('\n');

const { rows, growth } = benchCore();
const text = [
  `Measured on ${new Date().toISOString().slice(0, 10)}, Node ${process.versions.node}, ${cpus().length} cores (${cpus()[0]?.model.trim()}). Medians of 25 rounds in turns; a ratio is the median of the rounds' ratios.`,
  '',
  table(['what', 'Pallmist', 'beside it', 'ratio', 'goal'], rows),
  '',
  'How it grows with the number of pages (the page read and written has 8 parameters; each page of the checked file has five parameters, a read, and five components):',
  '',
  table(['pages', 'read', 'write', 'compile', 'check'], growth),
].join('\n');
console.log(text);
if (process.argv.includes('--write')) {
  const file = new URL('../docs/performance.md', import.meta.url);
  const marks = ['<!-- figures -->', '<!-- end of figures -->'];
  const before = readFileSync(file, 'utf8');
  const [head, rest] = before.split(marks[0]);
  writeFileSync(file, `${head}${marks[0]}\n\n${text}\n\n${marks[1]}${rest.split(marks[1])[1]}`);
}
