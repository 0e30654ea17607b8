// What reads and writes cost on large collections, and what visitors notice of an import.
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PallmistClient } from '../packages/api/dist/index.js';
import { openStore } from '../packages/service/dist/store/open-store.js';
import { median } from './measure.mjs';

const collections = {
  plants: {
    keyField: 'code',
    fields: {
      code: { type: 'text', serial: 'P-0000000' },
      name: { type: 'text' },
      label: { type: 'text', unique: true },
      house: { type: 'text' },
      height: { type: 'number' },
      planted: { type: 'date' },
    },
  },
};
const houses = ['palm', 'fern', 'lily', 'thorn', 'orchid', 'alpine', 'mist', 'moor'];
const names = ['Amber', 'Bell', 'Copper', 'Dusk', 'Éclair', 'Feather', 'Glass', 'Hollow', 'Iron', 'Jackdaw'];
const kinds = ['fern', 'lily', 'palm', 'thorn', 'orchid', 'moss', 'sedge'];
const codeOf = (index) => `P-${String(index + 1).padStart(7, '0')}`;
const plant = (index) => ({
  code: codeOf(index),
  name: `${names[index % names.length]} ${kinds[(index * 7) % kinds.length]} ${index % 997}`,
  label: `Label ${index}`,
  house: houses[(index * 13) % houses.length],
  height: (index * 37) % 900,
  ...(index % 20 === 0 ? {} : { planted: new Date(Date.UTC(2000, 0, 1 + (index % 9000))).toISOString().slice(0, 10) }),
});

/** A store with so many plants. */
async function storeOf(count) {
  const folder = mkdtempSync(join(tmpdir(), 'pallmist-records-'));
  const store = await openStore(folder);
  await store.records.prepare('bench', collections);
  const staged = await store.records.stage('bench', collections, 'plants');
  for (let start = 0; start < count; start += 1000)
    await staged.add(Array.from({ length: Math.min(1000, count - start) }, (_, index) => plant(start + index)));
  await store.records.take(staged, false);
  return {
    store,
    async close() {
      await store.close();
      rmSync(folder, { recursive: true });
    },
  };
}

const timed = async (run) => {
  const begun = performance.now();
  await run();
  return performance.now() - begun;
};

/** Milliseconds of each read, by operator. */
export async function benchReads(count = 100_000) {
  const { store, close } = await storeOf(count);
  const read = (where, more = {}) =>
    store.records.read('bench', collections, { from: 'plants', where, sort: [], page: 1, size: 25, nothing: false, ...more });
  const byName = [{ field: 'name', descending: false }];
  const cases = [
    ['one record by its key', () => store.records.byKey('bench', collections, 'plants', codeOf(54_320))],
    ['`equals`', () => read([{ field: 'house', operator: 'equals', value: 'moor' }])],
    ['`contains`, sorted', () => read([{ field: 'name', operator: 'contains', value: 'éclair f' }], { sort: byName })],
    ['`startsWith`', () => read([{ field: 'name', operator: 'startsWith', value: 'Éclair fern 1' }])],
    ['`oneOf`', () => read([{ field: 'code', operator: 'oneOf', value: [codeOf(0), codeOf(49_999), codeOf(99_998)] }])],
    ['`within`', () => read([{ field: 'planted', operator: 'within', value: { from: '2010-01-01', to: '2010-01-31' } }])],
    ['`before`', () => read([{ field: 'height', operator: 'before', value: 3 }])],
    ['`after`', () => read([{ field: 'planted', operator: 'after', value: '2024-08-01' }])],
    ['`empty`', () => read([{ field: 'planted', operator: 'empty', value: true }])],
    ['all, sorted, first page', () => read([], { sort: byName })],
    ['all, sorted, page 2,000', () => read([], { sort: byName, page: 2000 })],
  ];
  const rows = [];
  for (const [name, run] of cases) {
    await run();
    const times = [];
    for (let round = 0; round < 15; round++) times.push(await timed(run));
    rows.push([name, `${median(times).toFixed(2)} ms`]);
  }
  await close();
  return rows;
}

/** Milliseconds to create a record with a serial number and a unique field, by the number of records there are, in turns. */
export async function benchCreates(sizes = [1000, 1_000_000]) {
  const stores = [];
  for (const size of sizes) stores.push(await storeOf(size));
  const times = sizes.map(() => []);
  let made = 0;
  for (let round = 0; round < 150; round++) {
    for (const [index, { store }] of stores.entries()) {
      const values = { ...plant(++made), code: undefined, label: `New ${made}` };
      delete values.code;
      const took = await timed(() =>
        store.transaction(({ records }) => records.save('bench', collections, { action: 'create', collection: 'plants', values })),
      );
      if (round >= 20) times[index].push(took);
    }
  }
  for (const { close } of stores) await close();
  const medians = times.map((each) => median(each));
  return { sizes, medians, ratio: median(times.at(-1).map((value, index) => value / times[0][index])) };
}

const appFile = `
pallmist: 1
app: bench
title: Bench
mount: /bench
collections: ${JSON.stringify(collections)}
pages:
  home:
    title: Plants
    address: '/{?q}'
    parameters: { q: { type: text } }
    rows: { found: { from: plants, where: [{ field: house, equals: '{param.q}' }], size: 25 } }
    content: [{ show: table, rows: found, label: Plants, columns: [{ field: code }, { field: name }] }]
`;

/** The service as a process of its own: what it does shall not be measured by what asks it. */
function startProcess(data) {
  const main = new URL('../packages/cli/dist/main.js', import.meta.url).pathname;
  const env = { ...process.env, PALLMIST_PORT: '0', PALLMIST_DATA: data, PALLMIST_LOG: 'error' };
  const child = spawn(process.execPath, [main, 'serve'], { env, stdio: ['ignore', 'pipe', 'inherit'] });
  return new Promise((resolve, reject) => {
    let said = '';
    child.stdout.on('data', (chunk) => {
      said += chunk.toString();
      const base = /ready at (http:\S+)/.exec(said)?.[1];
      if (base === undefined) return;
      const token = readFileSync(join(data, 'api-token'), 'utf8').trim();
      const ended = new Promise((done) => child.once('exit', done));
      resolve({ base, token, stop: () => (child.kill('SIGTERM'), ended) });
    });
    child.once('exit', () => reject(new Error(said)));
  });
}

/** Imports so many rows while a visitor reads pages all the time. */
export async function benchImport(count = 100_000) {
  const data = mkdtempSync(join(tmpdir(), 'pallmist-import-'));
  const { base, token, stop } = await startProcess(data);
  const owner = new PallmistClient({ base, token });
  await owner.call('pushDraft', { app: 'bench' }, { source: appFile });
  await owner.call('publish', { app: 'bench' }, {});
  const line = ({ code, name, label, house, height, planted = '' }) => `${code},${name},${label},${house},${height},${planted}\n`;
  const rows = Array.from({ length: count }, (_, index) => line(plant(index)));
  const pieces = Array.from({ length: Math.ceil(count / 500) }, (_, piece) =>
    Buffer.from(rows.slice(piece * 500, piece * 500 + 500).join('')),
  );
  const content = async function* () {
    yield Buffer.from('code,name,label,house,height,planted\n');
    yield* pieces;
  };
  let done = false;
  const waits = [];
  const visits = (async () => {
    for (let visit = 0; !done; visit++) {
      waits.push(await timed(async () => (await fetch(`${base}/bench?q=${houses[visit % 8]}&x=${visit}`)).text()));
      await new Promise((resolve) => setTimeout(resolve, 5));
    }
  })();
  const took = await timed(() =>
    owner.importRecords('bench', 'plants', { content: content() }, { format: 'csv', mode: 'replace', replace: true }),
  );
  done = true;
  await visits;
  await stop();
  rmSync(data, { recursive: true });
  waits.sort((a, b) => a - b);
  return {
    count,
    seconds: took / 1000,
    visits: waits.length,
    median: median(waits),
    p99: waits[Math.floor(waits.length * 0.99)],
    longest: waits.at(-1),
  };
}
