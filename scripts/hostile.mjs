// A million random, mutated and hostile texts: npm run hostile [-- COUNT]. Reading must not throw, must be stable, and
// must take a time linear in the text; 2,000 patterns must match in linear time. The tests make a short run of the same.
import { readFileSync } from 'node:fs';
import { checkAppFile, readAddress, writeAddress } from '../packages/app/dist/index.js';
import { linearPattern, linearSearch } from '../packages/app/dist/patterns/linear-pattern.js';

const count = Number(process.argv[2] ?? 1_000_000);
const { compiled: app } = checkAppFile(readFileSync(new URL('../demo/quillmoor/app.yaml', import.meta.url), 'utf8'));
const seeds = [
  '/garden/specimens?q=f%C3%A9rn&house=palm&health=poorly&sort=-height,name&page=3',
  '/garden/specimens/QM-0412?tab=care',
  '/garden/houses/palm?sort=name&page=2#top',
  '/garden/care-rounds?day=2026-11-18&task=water',
  'https://garden.example/garden/sign-in?~wanted=%2Fgarden&~why=sign-in-needed',
];
const pieces = [
  '%',
  '%2',
  '%2F',
  '%00',
  '%ff',
  '%E2%82',
  '+',
  '&',
  '=',
  '?',
  '#',
  '/',
  '//',
  '\\',
  '..',
  '%2e%2e',
  '.',
  ',',
  '-',
  '~',
  '\u0000',
  '\t',
  ' ',
  'é',
  '\ud800',
  '🌿',
  '𝟙',
  '9'.repeat(30),
  'javascript:',
  '__proto__',
  'constructor',
  '[]',
  '{}',
  '<script>',
  "'",
  '"',
];
let state = 20261123;
const random = (bound) => {
  state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
  return Math.floor((state / 2 ** 32) * bound);
};
const pick = (list) => list[random(list.length)];
function hostileText() {
  let text = pick(seeds);
  for (let changes = 1 + random(6); changes > 0; changes--) {
    const at = random(text.length + 1);
    const kind = random(4);
    if (kind === 0) text = text.slice(0, at) + pick(pieces) + text.slice(at);
    else if (kind === 1) text = text.slice(0, at) + text.slice(at + 1 + random(8));
    else if (kind === 2) text = text.slice(0, at) + String.fromCharCode(random(random(2) ? 128 : 65536)) + text.slice(at + 1);
    else text += pick(seeds).slice(random(30));
  }
  return text;
}

const outcomes = {};
const started = performance.now();
for (let i = 0; i < count; i++) {
  const text = hostileText();
  const reading = readAddress(app, text);
  outcomes[reading.status] = (outcomes[reading.status] ?? 0) + 1;
  if (reading.status === 'found') {
    const { address } = writeAddress(app, reading.page, reading.values);
    if (JSON.stringify(readAddress(app, address).values) !== JSON.stringify(reading.values))
      throw new Error(`not stable: ${JSON.stringify(text)}`);
  }
  if (process.stderr.isTTY && i % 50_000 === 0) process.stderr.write(`\r${String(i)} of ${String(count)}`);
}
console.log(`${String(count)} texts in ${((performance.now() - started) / 1000).toFixed(1)} s:`, outcomes);

// Twice the text, about twice the time, whatever it is made of.
const time = (text) => {
  let best = Infinity;
  for (let i = 0; i < 15; i++) {
    const start = performance.now();
    readAddress(app, text);
    best = Math.min(best, performance.now() - start);
  }
  return best;
};
for (const piece of [
  'a',
  '&',
  'a&',
  'a=1&',
  'q=1&',
  '=',
  '%',
  '%41',
  '+',
  '/',
  'page=&',
  'sort=name,',
  ',',
  '%2C',
  '.',
  '/.',
  '?',
  '#',
  'é',
]) {
  const fill = (length) => '/garden/specimens?' + piece.repeat(Math.floor(length / piece.length));
  const [half, whole] = [time(fill(30_000)), time(fill(60_000))];
  const growth = whole / half;
  console.log(
    `${JSON.stringify(piece).padEnd(14)} 30,000: ${half.toFixed(3)} ms  60,000: ${whole.toFixed(3)} ms  times ${growth.toFixed(2)}`,
  );
  if (growth > 3.2 && whole > 2) throw new Error(`more than linear: ${piece}`);
}

// Patterns as an app file may hold them, made to lead a matcher astray, on texts of 8 KB that nearly fit: none takes 50 ms.
const atoms = ['a', 'b', 'aa', 'ab', '[ab]', '[^b]', '.', '\\w', 'a?', '\\p{L}', '(?:a|a)', '(?:a|ab)', '(?:a|aa)'];
const quantifiers = ['', '', '*', '+', '?', '*?', '+?', '{2}', '{0,9}', '{10}', '{26}', '{1,}'];
function hostilePattern(depth) {
  const kind = depth === 0 ? 0 : random(4);
  if (kind === 0) return pick(atoms);
  if (kind === 1) return `(?:${hostilePattern(depth - 1)})${pick(quantifiers)}`;
  if (kind === 2) return `(?:${hostilePattern(depth - 1)}|${hostilePattern(depth - 1)})${pick(quantifiers)}`;
  return hostilePattern(depth - 1) + hostilePattern(depth - 1);
}
const nearly = ['a', 'ab', 'aab', 'aé', 'a b'].flatMap((piece) =>
  ['', '!', 'b', '\n'].map((end) => piece.repeat(Math.floor(8192 / piece.length)) + end),
);
const patterns = ['(a+)+', '(?:a|a){26}b', '(?:a+){10}b', '(a*)*b', '.*a.*a.*a.*a.*b', '(a?){500}a{500}'];
while (patterns.length < 2000) patterns.push(`${hostilePattern(4)}${pick(['', 'b', '$', '!'])}`);
let [slowest, refused] = [{ took: 0 }, 0];
for (const pattern of patterns) {
  for (const compile of [linearPattern, linearSearch]) {
    let matcher;
    try {
      matcher = compile(pattern);
    } catch {
      refused++;
      continue;
    }
    for (const text of nearly) {
      const begun = performance.now();
      matcher.test(text);
      const took = performance.now() - begun;
      if (took > slowest.took) slowest = { took, pattern, text: text.slice(0, 3) + '…' + text.slice(-1) };
    }
  }
}
console.log(
  `${patterns.length} patterns on ${nearly.length} texts of 8 KB each: the slowest took ${slowest.took.toFixed(1)} ms (${JSON.stringify(slowest.pattern)}), ${refused} were refused`,
);
if (slowest.took > 50) throw new Error(`a pattern took ${slowest.took.toFixed(0)} ms: ${slowest.pattern}`);
