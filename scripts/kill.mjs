// Kills the service in the middle of its work and looks at what is left: npm run kill [-- COUNT].
// Each round does all kinds of work at once: forms with files and mails, imports, pushes, editions, records by the HTTP
// interface and renames of them, changes of a draft as the console makes them, short addresses, keys and webhooks. SIGKILL comes at
// a random moment. After the next start, everything that was acknowledged has to be there, and nothing may be half done; and each
// kind of work has to have been done often enough.
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Libsql from 'libsql';
import { SMTPServer } from 'smtp-server';
import { PallmistClient } from '../packages/api/dist/index.js';

const rounds = Number(process.argv[2] ?? 100);
const main = new URL('../packages/cli/dist/main.js', import.meta.url).pathname;
const data = mkdtempSync(join(tmpdir(), 'pallmist-kill-'));
const faults = [];
const pause = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));
/** No two requests come from one network, so that no limit stands in the way. */
const network = () => `10.${Math.floor(Math.random() * 250)}.${Math.floor(Math.random() * 250)}.${Math.floor(Math.random() * 250)}`;

/** Message-IDs of the mails that arrived, by recipient. */
const arrived = new Map();
const mailServer = new SMTPServer({
  authOptional: true,
  disabledCommands: ['STARTTLS'],
  onData(stream, session, done) {
    const chunks = [];
    stream.on('data', (chunk) => chunks.push(chunk));
    stream.on('end', () => {
      const id = /^Message-ID: (\S+)/im.exec(Buffer.concat(chunks).toString())?.[1];
      for (const { address } of session.envelope.rcptTo) arrived.set(address, (arrived.get(address) ?? new Set()).add(id));
      done();
    });
  },
});
// A service that is killed leaves its connection.
mailServer.on('error', () => undefined);
await new Promise((resolve) => mailServer.listen(0, '127.0.0.1', resolve));
const smtpUrl = `smtp://127.0.0.1:${mailServer.server.address().port}`;

function start(command) {
  const settings = {
    PALLMIST_PORT: '0',
    PALLMIST_DATA: data,
    PALLMIST_LOG: 'error',
    PALLMIST_TRUST_PROXY: '1',
    PALLMIST_SMTP_URL: smtpUrl,
  };
  const env = { ...process.env, ...settings };
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

const acknowledged = {
  notes: new Map(),
  adoptions: new Set(),
  push: 0,
  edition: 0,
  imported: new Set(),
  /** Names of records that were added and changed by the HTTP interface, by key. */
  records: new Map(),
  draft: 0,
  short: new Map(),
  keys: 0,
  webhook: 0,
};
/** How often each kind of work was acknowledged. */
const count = {
  notes: 0,
  adoptions: 0,
  pushes: 0,
  editions: 0,
  imports: 0,
  added: 0,
  renamed: 0,
  'draft changes': 0,
  'short addresses': 0,
  keys: 0,
  webhooks: 0,
};
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
    if (await send(base, '/garden/specimens/QM-0412?tab=notes&write=true', fields, file)) {
      acknowledged.notes.set(heading, attempt);
      count.notes++;
    }
  },
  async ({ base }) => {
    const mail = `adopter-${++attempt}@moor.example`;
    if (await send(base, '/garden/specimens/QM-0412?adopt=true', { '~form': 'adopt', name: 'Adopter', mail })) {
      acknowledged.adoptions.add(mail);
      count.adoptions++;
    }
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
    count.pushes++;
    await client.call('publish', { app: 'pushed' }, {});
    acknowledged.edition = number;
    count.editions++;
  },
  async ({ client }) => {
    const code = lettersOf(++attempt);
    const file = { content: content(`code,name\n${code},Imported\n${code}-b,Imported\n`) };
    await client.importRecords('quillmoor', 'houses', file, { format: 'csv', mode: 'update', replace: true });
    acknowledged.imported.add(code);
    count.imports++;
  },
  async ({ client }) => {
    const key = `${lettersOf(++attempt)}-api`;
    const at = { app: 'quillmoor', collection: 'houses' };
    await client.call('addRecord', at, { record: { code: key, name: 'Added' } });
    acknowledged.records.set(key, ['Added', 'Renamed']);
    count.added++;
    await client.call('changeRecord', { ...at, key }, { record: { name: 'Renamed' } });
    acknowledged.records.set(key, ['Renamed']);
    count.renamed++;
    await pause(20);
  },
  async ({ client }) => {
    const { revision } = await client.call('getDraft', { app: 'quillmoor' });
    const number = ++attempt;
    const patch = [{ op: 'replace', path: '/title', value: `Garden ${number}` }];
    const { outcome } = await client.call('changeDraft', { app: 'quillmoor' }, { revision, patch, what: `Title ${number}` });
    if (outcome !== 'changed') return;
    acknowledged.draft = number;
    count['draft changes']++;
  },
  async ({ client }) => {
    const address = `/garden/specimens?q=${lettersOf(++attempt)}`;
    const { shortAddresses } = await client.call('makeShort', { app: 'quillmoor' }, { address });
    const made = shortAddresses.find((one) => one.address === address);
    acknowledged.short.set(new URL(made.short).pathname, address);
    count['short addresses']++;
    await pause(50);
  },
  async ({ client }) => {
    await client.call('rotateKeys', {});
    acknowledged.keys++;
    count.keys++;
    await pause(400);
  },
  async ({ client }) => {
    const number = ++attempt;
    const { webhooks } = await client.call('listWebhooks', { app: 'quillmoor' });
    const url = `http://127.0.0.1:9/${number}`;
    if (webhooks.length === 0) await client.call('makeWebhook', { app: 'quillmoor' }, { url, events: ['record.removed'] });
    else await client.call('changeWebhook', { app: 'quillmoor', id: webhooks[0].id }, { url });
    acknowledged.webhook = number;
    count.webhooks++;
    await pause(50);
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
  const names = new Map((await exported(client, 'quillmoor', 'houses')).map(({ code, name }) => [code, name]));
  for (const [key, allowed] of acknowledged.records)
    claim(allowed.includes(names.get(key)), `${key} is “${names.get(key)}” instead of ${allowed.join(' or ')}`);
  if (acknowledged.draft > 0) {
    const { source } = await client.call('getDraft', { app: 'quillmoor' });
    const title = Number(/^title: Garden (\d+)/m.exec(source)?.[1]);
    claim(title >= acknowledged.draft, `change ${acknowledged.draft} of the draft is lost: its title has ${title}`);
  }
  for (const [path, address] of [...acknowledged.short].slice(-20)) {
    const answer = await fetch(base + path, { redirect: 'manual', headers: { 'x-forwarded-for': network() } });
    claim(answer.headers.get('location') === address, `the short address ${path} leads to ${answer.headers.get('location')}`);
  }
  const { keys } = await client.call('listKeys', {});
  claim(keys.length >= acknowledged.keys, `${acknowledged.keys} keys were made, and there are ${keys.length}`);
  if (acknowledged.webhook > 0) {
    const { webhooks } = await client.call('listWebhooks', { app: 'quillmoor' });
    const number = Number(/(\d+)$/.exec(webhooks[0]?.url ?? '')?.[1]);
    claim(webhooks.length === 1 && number >= acknowledged.webhook, `the webhook is lost: ${webhooks.map(({ url }) => url).join(', ')}`);
  }
  for (const [recipient, ids] of arrived) claim(ids.size === 1, `the mail to ${recipient} came as ${[...ids].join(' and ')}`);
  const ready = await fetch(`${base}/~/ready`);
  claim(ready.status === 200, `readiness: ${ready.status}`);
}

const doneSoFar = () => Object.values(count).reduce((sum, times) => sum + times, 0);
/** Waits for a random number of acknowledgements, and then a moment: on a slow machine a fixed time would pass before any. */
async function untilMuchIsDone() {
  const wanted = doneSoFar() + 1 + Math.floor(Math.random() * 60);
  const until = performance.now() + 20_000;
  while (doneSoFar() < wanted && performance.now() < until) await pause(5);
  await pause(Math.random() * 50);
}

const least = Math.max(1, Math.floor(rounds / 4));
const isEnough = () => Object.values(count).every((times) => times >= least);
const began = performance.now();
let kills = 0;
let service = await start('demo');
for (let round = 0; ; round++) {
  service.token = readFileSync(join(data, 'api-token'), 'utf8').trim();
  service.client = new PallmistClient({ base: service.base, token: service.token });
  await inspect(service);
  // Goes on until each kind of work was done often enough, but not for ever.
  if (faults.length > 0 || (round >= rounds && (isEnough() || round >= 4 * rounds))) break;
  const busy = work.map((doer) => busily(doer, service));
  await untilMuchIsDone();
  service.child.kill('SIGKILL');
  kills++;
  await Promise.all(busy);
  await service.ended;
  service = await start('serve');
  if (round % 10 === 9)
    console.log(`  ${round + 1} kills: ${acknowledged.notes.size} notes, ${acknowledged.adoptions.size} adoptions, ${attempt} tries`);
}
// Every adoption has its mail in the end.
for (let tries = 0; tries < 600 && [...acknowledged.adoptions].some((mail) => !arrived.has(mail)); tries++) await pause(100);
for (const mail of acknowledged.adoptions) claim(arrived.has(mail), `the mail to ${mail} never came`);
service.child.kill('SIGTERM');
await service.ended;
await new Promise((resolve) => mailServer.close(resolve));
rmSync(data, { recursive: true, force: true });
for (const [kind, times] of Object.entries(count))
  claim(times >= least, `too little was done to say anything of ${kind}: ${times}, and at least ${least} are needed`);
const told = Object.entries(count).map(([kind, times]) => `${times} ${kind}`);
console.log(
  `${kills} kills in ${Math.round((performance.now() - began) / 1000)} s; acknowledged: ${told.join(', ')}; ${arrived.size} mails arrived`,
);
if (faults.length > 0) {
  console.error(`Found:\n  ${[...new Set(faults)].slice(0, 20).join('\n  ')}`);
  process.exitCode = 1;
} else console.log('Nothing acknowledged was lost, and nothing was half done.');
