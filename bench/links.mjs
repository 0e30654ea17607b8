// What links that last cost: comparing editions, following old addresses, counting visits, reading the addresses of a file.
import {
  addressesIn,
  audit,
  compareDraft,
  compileApp,
  FormerPages,
  promisedPages,
  readAddress,
  SealBook,
} from '../packages/app/dist/index.js';
import { Ledger } from '../packages/service/dist/ledger/ledger.js';
import { appOf } from './core.mjs';
import { compareRounds, once } from './measure.mjs';

const many = 1000;
const contentless = (app) => ({
  ...app,
  title: 'Bench',
  pages: Object.fromEntries(Object.entries(app.pages).map(([name, page]) => [name, { title: name, content: [], ...page }])),
});
const first = contentless(appOf(many));

/** The app with another limit of one parameter on some pages. */
function changed(app, from, count, limit) {
  const pages = { ...app.pages };
  for (let index = from; index < from + count; index++) {
    const name = `page${String(index % many)}`;
    const page = pages[name];
    const [parameter] = Object.keys(page.parameters).slice(-1);
    const declared = page.parameters[parameter];
    const limited = declared.type === 'text' ? { ...declared, maxLength: limit } : { ...declared, max: limit };
    pages[name] = { ...page, parameters: { ...page.parameters, [parameter]: limited } };
  }
  return { ...app, pages };
}

function editions(count) {
  const all = [{ number: 1, definition: first }];
  for (let number = 2; number <= count; number++)
    all.push({ number, definition: changed(all.at(-1).definition, number * 10, 10, 900 + number) });
  return all;
}

const draftOf = (definition) => ({ definition, compiled: compileApp(definition).app });
/** Versions that nothing is known of yet. */
const fresh = (versions) => versions.map((version) => ({ ...version }));

export function benchLinks() {
  const all = editions(100);
  const versions = promisedPages(all);
  const last = draftOf(all.at(-1).definition);
  const edited = draftOf(changed(last.definition, 77, 1, 7));
  const different = draftOf(changed(last.definition, 0, many, 5));
  compareDraft(edited, versions);
  const comparison = {
    versions: versions.length,
    first: once(() => compareDraft(last, fresh(versions)), 5),
    different: once(() => compareDraft(different, fresh(versions)), 3),
    edit: once(() => compareDraft(edited, versions), 9),
  };

  const former = new FormerPages(versions, new Set());
  const moved = contentless(appOf(many));
  for (const page of Object.values(moved.pages)) page.address = `/moved${page.address}`;
  const today = { ...draftOf(moved), seals: new SealBook() };
  const old = Array.from({ length: 1000 }, (_, index) => `/garden/s${String(index)}/some-id?tab=care`).filter(
    (_, index) => index % 10 !== 0,
  );
  const followed = old.filter((address) => typeof former.find(address, today) === 'object').length;
  let next = 0;
  const follow = once(() => old.forEach((address) => former.find(address, today)), 5) / old.length;

  const page = last.compiled.pages.get('page10');
  const addresses = Array.from(
    { length: 64 },
    (_, index) => `/garden/s10/houses/palm/specimens/QM-0412?q=fern+${String(index)}&health=poorly&alive=false&page=${String(index + 2)}`,
  );
  const readings = addresses.map((address) => readAddress(last.compiled, address));
  const store = {
    add: () => Promise.resolve(),
    list: () => Promise.resolve([]),
    tried: () => Promise.resolve([]),
    compact: () => Promise.resolve(),
  };
  const ledger = new Ledger(store, { ledger: true }, { error: console.error }, Date.now);
  const request = {
    method: 'GET',
    headers: { host: 'garden.example', 'user-agent': 'Mozilla/5.0 (X11; Linux x86_64) Gecko/20100101 Firefox/140.0' },
  };
  const counting = compareRounds(
    () => ledger.count('bench', page, readings[next++ & 63], request),
    () => readAddress(last.compiled, addresses[next++ & 63]),
  );

  const lines = Array.from({ length: 200_000 }, (_, index) => {
    const at = String(index % 1000);
    const path =
      index % 10 === 0 ? `/s${at}/houses/palm/specimens/QM-0412?page=${String((index % 900) + 1)}` : `/s${at}/id-${String(index)}?tab=care`;
    return `10.0.0.1 - - [26/Nov/2026:10:00:00 +0000] "GET /garden${path} HTTP/1.1" 200 5120 "-" "Mozilla/5.0"`;
  });
  const auditing = once(() => {
    for (const line of lines) for (const { address } of addressesIn(line)) audit(address, last.definition, last.compiled, former);
  }, 3);
  return { comparison, followed, of: old.length, follow, counting, auditing };
}

if (process.argv[1] === new URL(import.meta.url).pathname) console.log(benchLinks());
