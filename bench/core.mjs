// How finding, reading and writing grow with the number of pages of an app.
import { checkAppFile, compileApp, readAddress, writeAddress } from '../packages/app/dist/index.js';
import { compareRounds, once } from './measure.mjs';

const definition = {
  app: 'bench',
  mount: '/garden',
  choices: { health: { thriving: 'Thriving', steady: 'Steady', poorly: 'Poorly', resting: 'Resting' } },
  collections: {
    specimens: {
      keyField: 'code',
      fields: { code: { type: 'text', pattern: 'QM-[0-9]{4}' }, name: { type: 'text' }, height: { type: 'number' } },
    },
  },
  pages: {
    specimen: {
      address: '/houses/{house}/specimens/{specimen}{?q,health,alive,since,height,page}',
      parameters: {
        house: { type: 'text', maxLength: 40 },
        specimen: { type: 'record', of: 'specimens' },
        q: { type: 'text', maxLength: 80 },
        health: { type: 'choice', of: 'health', default: 'steady' },
        alive: { type: 'boolean', default: true },
        since: { type: 'date' },
        height: { type: 'number', min: 0 },
        page: { type: 'integer', min: 1, max: 1000, default: 1 },
      },
    },
  },
};
const { app } = compileApp(definition);
/** As addresses come off the network: characters in a row, not a rope of pieces that were put together. */
const received = (text) => Buffer.from(text).toString('latin1');
const addresses = Array.from({ length: 64 }, (_, index) => {
  const n = String(index);
  return received(
    `/garden/houses/palm${n}/specimens/QM-${n.padStart(4, '0')}?q=fern+${n}&health=poorly&alive=false&since=2026-0${String((index % 9) + 1)}-11&height=${n}.5&page=${String(index + 2)}`,
  );
});

const values = addresses.map((address) => readAddress(app, address).values);

const each = (work) => {
  let next = 0;
  return () => work(next++ & 63);
};

/** An app of so many pages, a tenth of them with eight parameters. */
export function appOf(pages) {
  const made = { ...definition, pages: {} };
  for (let index = 0; index < pages; index++) {
    const page = definition.pages.specimen;
    made.pages[`page${String(index)}`] =
      index % 10 === 0
        ? { ...page, address: `/s${String(index)}${page.address}` }
        : { address: `/s${String(index)}/{id}{?tab}`, parameters: { id: { type: 'text' }, tab: { type: 'text' } } };
  }
  return made;
}

/** The app file of such an app, with content that reads, binds and links. */
function fileOf(pages) {
  const lines = [
    'pallmist: 1',
    'app: bench',
    'title: Bench',
    'mount: /bench',
    'choices: { tab: { a: A, b: B } }',
    'collections: { things: { keyField: code, fields: { code: { type: text }, name: { type: text } } } }',
    'pages:',
    '  home: { title: Home, address: /, content: [{ show: link, text: First, to: { page: p0, values: { thing: x } } }] }',
  ];
  for (let index = 0; index < pages - 1; index++) {
    const next = (index + 1) % (pages - 1);
    lines.push(
      `  p${index}:`,
      `    title: "{record.thing.name} ${index}"`,
      `    address: /p${index}/{thing}{?q,tab,sort,page}`,
      '    parameters:',
      '      thing: { type: record, of: things }',
      '      q: { type: text, resets: [page] }',
      '      tab: { type: choice, of: tab, default: a }',
      '      sort: { type: sort, of: things, default: name }',
      '      page: { type: integer, min: 1, default: 1 }',
      '    rows: { all: { from: things, where: [{ field: name, contains: "{param.q}" }], sort: "{param.sort}", page: "{param.page}" } }',
      '    content:',
      '      - { show: search, bind: q, label: Search }',
      '      - { show: tabs, bind: tab, label: Parts, panes: { a: [{ show: text, text: "{total.all} things" }], b: [] } }',
      `      - { show: table, rows: all, label: Things, bind: { sort: sort }, link: { page: p${next}, values: { thing: "{row.code}" } }, columns: [{ field: name }] }`,
      '      - { show: pager, rows: all, bind: page }',
    );
  }
  return lines.join('\n');
}

export function benchCore() {
  const rows = [];
  const [ten, many] = [10, 10_000].map((pages) => compileApp(appOf(pages)).app);
  const find = (compiled, pages) => {
    const paths = addresses.map((_, index) => received(`/s${String((index * 157) % pages)}/x`));
    return each((index) => compiled.finder.find(paths[index], 0, paths[index].length, []));
  };
  const found = compareRounds(find(many, 10_000), find(ten, 10));
  rows.push([
    'find the page among 10,000 (beside: among 10)',
    `${found.ours} ns`,
    `${found.theirs} ns`,
    (1 / found.ratio).toFixed(2),
    'at most 1.3 times the time',
  ]);

  const growth = [10, 100, 1000, 10_000].map((pages) => {
    const source = appOf(pages);
    const compile = once(() => compileApp(source), 5);
    const { app: compiled } = compileApp(source);
    const parameters = (index) => `/garden/s${String((index * 10) % pages)}${addresses[index].slice('/garden'.length)}`;
    const long = addresses.map((_, index) => received(parameters(index)));
    const pagesOf = long.map((address) => readAddress(compiled, address));
    const reading = compareRounds(
      each((index) => readAddress(compiled, long[index])),
      each((index) => readAddress(app, addresses[index])),
    );
    const writing = compareRounds(
      each((index) => writeAddress(compiled, pagesOf[index].page, pagesOf[index].values)),
      each((index) => writeAddress(app, 'specimen', values[index])),
    );
    const text = pages <= 10_000 ? fileOf(pages) : '';
    const checked = checkAppFile(text);
    const bad = checked.problems.filter(({ severity }) => severity === 'error');
    if (bad.length > 0) throw new Error(JSON.stringify(bad[0]));
    const check = once(() => checkAppFile(text), pages > 1000 ? 1 : 3);
    return [String(pages), `${reading.ours} ns`, `${writing.ours} ns`, `${compile.toFixed(1)} ms`, `${check.toFixed(0)} ms`];
  });
  return { rows, growth };
}
