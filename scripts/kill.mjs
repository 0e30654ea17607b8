// Kills the service in the middle of its work and looks at what is left: npm run kill [-- COUNT].
// Each round writes records, uploads files, sends mails, imports, pushes and publishes, all at once, until SIGKILL comes at a
// random moment. After the next start, everything that was acknowledged has to be there, and nothing may be half done.
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Libsql from 'libsql';
import { PallmistClient } from '../packages/api/dist/index.js';

const rounds = Number(process.argv[2] ?? 100);
const main = new URL('../packages/cli/dist/main.js', import.meta.url).pathname;
const data = mkdtempSync(join(tmpdir(), 'pallmist-kill-'));
const faults = [];
const pause = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));
/** No two requests come from one network, so that no limit stands in the way. */
const network = () => `10.${Math.floor(Math.random() * 250)}.${Math.floor(Math.random() * 250)}.${Math.floor(Math.random() * 250)}`;

function start(command) {
  const env = { ...process.env, PALLMIST_PORT: '0', PALLMIST_DATA: data, PALLMIST_LOG: 'error', PALLMIST_TRUST_PROXY: '1' };
  const child = spawn(process.execPath, [main, command], { env });
  return new Promise((resolve, reject) => {
    let said = '';
    const listen = (chunk) => {
      said += chunk.toString();
      const base = /ready at (http:\S+)/.exec(said)?.[1];
      if (base !== undefined) resolve({ child, base, ended: new Promise((done) => child.once('exit', done)) });
    };
    child.stdout.on('data', listen);
    child.stderr.on('data', listen);
    child.once('exit', (status) => reject(new Error(`The service ended with ${status}: ${said}`)));
  });
}

/** The app that is pushed: its title and every record name the number of the push. */
const appFile = (number) => `
pallmist: 1
app: pushed
title: Push ${number}
mount: /pushed
collections:
  beds: { keyField: code, fields: { code: { type: text }, push: { type: integer } } }
  plants: { keyField: code, fields: { code: { type: text }, bed: { type: record, of: beds }, push: { type: integer } } }
pages:
  home: { title: Push ${number}, address: /, content: [{ show: heading, text: Push ${number} }] }
`;
const bedsOf = (number) => `code,push\n${Array.from({ length: 40 }, (_, bed) => `B${bed},${number}`).join('\n')}\n`;
const plantsOf = (number) =>
  `code,bed,push\n${Array.from({ length: 200 }, (_, plant) => `P${plant},B${plant % 40},${number}`).join('\n')}\n`;
const content = async function* (text) {
  yield new TextEncoder().encode(text);
};

/** A number as letters, as keys of houses are made of. */
const lettersOf = (number) => `house-${[...String(number)].map((digit) => 'abcdefghij'[Number(digit)]).join('')}`;

const acknowledged = { notes: new Map(), adoptions: new Set(), push: 0, edition: 0, imported: new Set() };
let attempt = 0;

async function send(base, path, fields, file) {
  const body = file === undefined ? new URLSearchParams(fields) : new FormData();
  if (file !== undefined) {
    for (const [name, value] of Object.entries(fields)) body.append(name, value);
    body.append('~file.photo', file);
  }
  const answer = await fetch(base + path, { method: 'POST', body, redirect: 'manual', headers: { 'x-forwarded-for': network() } });
  await answer.arrayBuffer();
  if (answer.status === 303) return true;
  faults.push(`${path}: ${answer.status}`);
  return false;
}

const png = Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==', 'base64');

/** What is done over and over until the service is killed. */
const work = [
  async ({ base }) => {
    const heading = `Note ${++attempt}`;
    const file = new File([png, Buffer.from(String(attempt))], `${attempt}.png`, { type: 'image/png' });
    const fields = { '~form': 'write-note', heading, body: 'As it was', day: '2026-11-18' };
    if (await send(base, '/garden/specimens/QM-0412?tab=notes&write=true', fields, file)) acknowledged.notes.set(heading, attempt);
  },
  async ({ base }) => {
    const mail = `adopter-${++attempt}@moor.example`;
    if (await send(base, '/garden/specimens/QM-0412?adopt=true', { '~form': 'adopt', name: 'Adopter', mail }))
      acknowledged.adoptions.add(mail);
    // A form sends a few hundred mails an hour and not more.
    await pause(400);
  },
  async ({ client }) => {
    const number = ++attempt;
    await client.pushWithRecords('pushed', { source: appFile(number), replace: true }, [
      { field: 'records.plants', name: 'plants.csv', type: 'text/csv', content: content(plantsOf(number)) },
      { field: 'records.beds', name: 'beds.csv', type: 'text/csv', content: content(bedsOf(number)) },
    ]);
    acknowledged.push = number;
    await client.call('publish', { app: 'pushed' }, {});
    acknowledged.edition = number;
  },
  async ({ client }) => {
    const code = lettersOf(++attempt);
    const file = { content: content(`code,name\n${code},Imported\n${code}-b,Imported\n`) };
    await client.importRecords('quillmoor', 'houses', file, { format: 'csv', mode: 'update', replace: true });
    acknowledged.imported.add(code);
  },
];

/** Works until the connection breaks. */
async function busily(doer, service) {
  for (;;) {
    try {
      await doer(service);
    } catch (error) {
      if (service.child.killed) return;
      faults.push(`${error.message} ${error.cause ?? ''} ${error.cause?.cause ?? ''}`);
      await pause(50);
    }
  }
}

const exported = async (client, app, collection) =>
  JSON.parse(await new Response(await client.exportRecords(app, collection, 'json')).text());
const claim = (holds, sentence) => {
  if (!holds) faults.push(sentence);
};

/** Whether all that was acknowledged is there, and everything is whole. */
async function inspect({ base, client }) {
  const notes = await exported(client, 'quillmoor', 'notes');
  const byHeading = new Map(notes.map((note) => [note.heading, note]));
  for (const [heading] of acknowledged.notes) claim(byHeading.has(heading), `${heading} was acknowledged and is lost`);
  const fresh = notes.filter(({ heading }) => heading.startsWith('Note '));
  claim(fresh.length === new Set(fresh.map(({ heading }) => heading)).size, 'a note is there twice');
  for (const { heading, photo } of fresh.slice(-30)) {
    const answer =
      photo === undefined ? undefined : await fetch(`${base}/garden/~files/${photo.split('/').map(encodeURIComponent).join('/')}`);
    const bytes = Buffer.from((await answer?.arrayBuffer()) ?? []);
    claim(
      bytes.subarray(png.length).toString() === heading.slice('Note '.length),
      `the file of ${heading} is not whole: ${photo} ${answer?.status}, ${bytes.length} bytes`,
    );
  }
  const adoptions = await exported(client, 'quillmoor', 'adoptions');
  const written = new Set(adoptions.map(({ mail }) => mail));
  for (const mail of acknowledged.adoptions) claim(written.has(mail), `the adoption of ${mail} is lost`);
  const database = new Libsql(join(data, 'pallmist.sqlite'));
  const mailed = new Set(
    database
      .prepare("SELECT recipient FROM mail WHERE app = 'quillmoor'")
      .all()
      .map(({ recipient }) => recipient),
  );
  database.close();
  const houses = new Set((await exported(client, 'quillmoor', 'houses')).map(({ code }) => code));
  for (const code of acknowledged.imported) claim(houses.has(code), `the import of ${code} is lost`);
  for (const code of houses) if (/^house-[a-j]+$/.test(code)) claim(houses.has(`${code}-b`), `the import of ${code} is half done`);
  for (const mail of written) claim(mailed.has(mail), `the adoption of ${mail} has no mail`);
  for (const mail of mailed) claim(written.has(mail), `the mail to ${mail} has no adoption`);
  if (acknowledged.push > 0) {
    const { source } = await client.call('getDraft', { app: 'pushed' });
    const number = Number(/title: Push (\d+)/.exec(source)?.[1]);
    claim(number >= acknowledged.push, `push ${acknowledged.push} is lost: the draft is of ${number}`);
    for (const collection of ['beds', 'plants']) {
      const rows = await exported(client, 'pushed', collection);
      claim(rows.length === (collection === 'beds' ? 40 : 200), `${collection} has ${rows.length} records`);
      claim(
        rows.every(({ push }) => push === number),
        `the draft is of push ${number}, ${collection} are of ${[...new Set(rows.map(({ push }) => push))].join(', ')}`,
      );
    }
  }
  if (acknowledged.edition > 0) {
    const served = Number(/Push (\d+)/.exec(await (await fetch(`${base}/pushed`)).text())?.[1]);
    claim(served >= acknowledged.edition, `edition ${acknowledged.edition} is lost: ${served} is served`);
  }
  const ready = await fetch(`${base}/~/ready`);
  claim(ready.status === 200, `readiness: ${ready.status}`);
}

const began = performance.now();
let kills = 0;
let service = await start('demo');
for (let round = 0; round <= rounds; round++) {
  service.token = readFileSync(join(data, 'api-token'), 'utf8').trim();
  service.client = new PallmistClient({ base: service.base, token: service.token });
  await inspect(service);
  if (faults.length > 0 || round === rounds) break;
  const busy = work.map((doer) => busily(doer, service));
  await pause(150 + Math.random() * 900);
  service.child.kill('SIGKILL');
  kills++;
  await Promise.all(busy);
  await service.ended;
  service = await start('serve');
  if (round % 10 === 9)
    console.log(`  ${round + 1} kills: ${acknowledged.notes.size} notes, ${acknowledged.adoptions.size} adoptions, ${attempt} tries`);
}
service.child.kill('SIGTERM');
await service.ended;
rmSync(data, { recursive: true, force: true });
const { notes, adoptions, imported } = acknowledged;
console.log(
  `${kills} kills in ${Math.round((performance.now() - began) / 1000)} s; acknowledged: ${notes.size} notes with files, ${adoptions.size} adoptions with mails, ${imported.size} imports, the last push ${acknowledged.push}, the last edition ${acknowledged.edition}`,
);
if (faults.length > 0) {
  console.error(`Found:\n  ${[...new Set(faults)].slice(0, 20).join('\n  ')}`);
  process.exitCode = 1;
} else console.log('Nothing acknowledged was lost, and nothing was half done.');
