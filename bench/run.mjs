// npm run bench: measures, prints, and with --write keeps the figures in docs/performance.md.
import { readFileSync, writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { benchAddress } from './address.mjs';
import { benchConsole } from './console.mjs';
import { benchCore } from './core.mjs';
import { benchLinks } from './links.mjs';
import { benchLive } from './live.mjs';
import { benchPages } from './pages.mjs';
import { benchCreates, benchImport, benchReads } from './records.mjs';
import { benchTypes } from './types.mjs';

const table = (head, rows) => [head, head.map(() => '---'), ...rows].map((row) => `| ${row.join(' | ')} |`).join('\n');

const library = await benchAddress();
const live = await benchLive();
const { rows, growth } = benchCore();
const links = benchLinks();
const { throughput, browser, sizes } = await benchPages();
const records = await benchReads();
const creates = await benchCreates();
const imported = await benchImport();
const builder = await benchConsole();
const types = benchTypes();
const whole = (value) => Math.round(value).toLocaleString('en');
const withinFrame = browser.views.filter((time) => time <= 16.7).length;
const throughputRow = (what, { ours, theirs, ratio }, goal) => [what, whole(ours), whole(theirs), ratio.toFixed(2), goal];
const pages = [
  throughputRow(
    `requests a second of a hosted page with its data, ${whole(throughput.bytes / 1024)} KB, kept (beside: bare Express sending the same bytes)`,
    throughput.kept,
    'at least 0.8',
  ),
  throughputRow('the same with another address each time, so that each page is loaded and drawn again', throughput.again, 'at least 0.35'),
  throughputRow(
    'the kept page compressed, as browsers ask for it (beside: Express with its compression middleware)',
    throughput.compressed,
    '',
  ),
  [
    'change of a tab in the browser, laid out (100 clicks)',
    `median ${browser.views[50].toFixed(1)} ms, 95th ${browser.views[94].toFixed(1)} ms`,
    '',
    `${withinFrame} of 100 in a frame`,
    '95 of 100 within 16.7 ms',
  ],
  [
    'change of the sort order with new data, drawn (beside: loading the page)',
    `${browser.data.toFixed(1)} ms`,
    `${browser.load.toFixed(0)} ms`,
    (browser.load / browser.data).toFixed(1),
    'within 60 ms, 8 times as fast',
  ],
];
const text = [
  `Measured on ${new Date().toISOString().slice(0, 10)}, Node ${process.versions.node}, ${cpus().length} cores (${cpus()[0]?.model.trim()}). Medians of 25 rounds in turns; a ratio is the median of the rounds' ratios.`,
  '',
  'The address library, against code written by hand with `URLSearchParams` and plain checks, and against `URL` with Zod (goals: at least 1, 3 and 1):',
  '',
  table(['page', 'read', 'against code by hand', 'against Zod', 'write', 'against `URLSearchParams`'], library.rows),
  '',
  `Reading and writing takes a browser ${library.sizes[0].toLocaleString('en')} bytes for three parameters and ${library.sizes[1].toLocaleString('en')} for the filter list, minified and gzipped (goals: 4,096 and 6,144).`,
  '',
  'Live state of a page with 50 parameters, updates a second, against code written by hand for it (goal: at least 1):',
  '',
  table(['who is told', 'Pallmist', 'by hand', 'ratio'], live.rows),
  '',
  `A page of three parameters with its live state takes a browser ${live.bytes.toLocaleString('en')} bytes, minified and gzipped (goal: 5,120).`,
  '',
  `With every declaration checked, the compiler takes ${(types.nothing / 1000).toFixed(1)} s for a file that imports nothing. Importing types of one package adds: ${['address', 'browser', 'app', 'api'].map((name) => `${name} ${(types[name] / 1000).toFixed(2)} s`).join(', ')} (goal: at most 1 s).`,
  '',
  table(['what', 'Pallmist', 'beside it', 'ratio', 'goal'], [...rows, ...pages]),
  '',
  'How it grows with the number of pages (the page read and written has 8 parameters; each page of the checked file has five parameters, a read, and five components):',
  '',
  table(['pages', 'read', 'write', 'compile', 'check'], growth),
  '',
  `Links that last, with ${whole(links.comparison.versions)} versions of 1,000 pages from 100 editions: the draft is compared with all of them within ${whole(links.comparison.first)} ms where half of them differ from it, ${whole(links.comparison.different)} ms where all do (goal 500), and within ${whole(links.comparison.edit)} ms again after one edit (goal 50). An address that only an earlier edition knows is followed in ${links.follow.toFixed(2)} ms (${String(links.followed)} of ${String(links.of)} arrive). To count an address with eight parameters takes ${(links.counting.ours / 1000).toFixed(1)} µs (goal 0.4), reading it ${(links.counting.theirs / 1000).toFixed(1)} µs. An access log with 200,000 different addresses is audited in ${(links.auditing / 1000).toFixed(1)} s (goal 1).`,
  '',
  'Reads on a collection of 100,000 records, 25 on a page, with the number of all (medians of 15):',
  '',
  table(['read', 'time'], records),
  '',
  `Creating a record with a unique field and a serial number: ${creates.medians[0].toFixed(2)} ms among ${creates.sizes[0].toLocaleString('en')} records, ${creates.medians[1].toFixed(2)} ms among ${creates.sizes[1].toLocaleString('en')} (ratio ${creates.ratio.toFixed(2)}; goal: at most 2).`,
  '',
  `Importing ${imported.count.toLocaleString('en')} rows took ${imported.seconds.toFixed(1)} s. Meanwhile ${imported.visits} pages were asked for one after the other: median ${imported.median.toFixed(0)} ms, 99th percentile ${imported.p99.toFixed(0)} ms, longest ${imported.longest.toFixed(0)} ms (goal: at most 200).`,
  '',
  `The console, with an app of 500 pages: an edit is laid out within ${builder.painted.median.toFixed(0)} ms (95th ${builder.painted.most.toFixed(0)}, goal 100), checked within ${builder.checked.median.toFixed(0)} ms (95th ${builder.checked.most.toFixed(0)}, goal 300), and the draft’s page is drawn again within ${builder.drawn.median.toFixed(0)} ms (95th ${builder.drawn.most.toFixed(0)}, goal 500). First paint after ${builder.firstPaint.toFixed(0)} ms (goal 1,000); JavaScript before the file editor is opened ${(builder.bytes / 1000).toFixed(1)} KB gzipped (goal 200).`,
  '',
  `JavaScript of a hosted page, minified and gzipped: ${sizes.plain.toFixed(1)} KB; with forms, ranges and an address to share ${sizes.forms.toFixed(1)} KB; with expressions that need the CEL engine ${sizes.cel.toFixed(1)} KB; with a packed parameter ${sizes.packed.toFixed(1)} KB.`,
].join('\n');
console.log(text);
if (process.argv.includes('--write')) {
  const file = new URL('../docs/performance.md', import.meta.url);
  const marks = ['<!-- figures -->', '<!-- end of figures -->'];
  const before = readFileSync(file, 'utf8');
  const [head, rest] = before.split(marks[0]);
  writeFileSync(file, `${head}${marks[0]}\n\n${text}\n\n${marks[1]}${rest.split(marks[1])[1]}`);
}
