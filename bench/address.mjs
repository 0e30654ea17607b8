// The address library against code that a good engineer would write by hand without one, and against `URL` with Zod.
import { bundle, gzipped, using } from './address/bundle.mjs';
import { compareRounds } from './measure.mjs';

/** As addresses come off the network: characters in a row, not a rope of pieces that were put together. */
const received = (text) => Buffer.from(text).toString('latin1');
const sixtyFour = (make) => Array.from({ length: 64 }, (_, index) => received(make(index)));
const day = (index) => `2026-0${String((index % 9) + 1)}-11`;

const cases = [
  {
    what: 'eight simple parameters',
    page: ['easy', 'easy'],
    hand: 'Easy',
    addresses: sixtyFour((n) => {
      const accession = `QM-${String(n).padStart(4, '0')}`;
      return `/garden/houses/palm${n}/specimens/${accession}?q=fern+${n}&health=poorly&alive=false&since=${day(n)}&height=${n}.5&page=${n + 2}`;
    }),
  },
  {
    what: 'filter list, all given',
    page: ['filter-list', 'filterList'],
    hand: 'Filters',
    addresses: sixtyFour((n) => {
      const zones = `arid,mist,${['alpine', 'tropic', 'dry'][n % 3]}`;
      return `/garden/specimens?q=fern+${n}&health=poorly&zones=${zones}&height=${n}..${n * 3 + 1}&since=${day(n)}&alive=false&sort=-height,name&page=${n + 2}`;
    }),
  },
  {
    what: 'filter list, two of eight given',
    page: ['filter-list', 'filterList'],
    hand: 'Filters',
    addresses: sixtyFour((n) => `/garden/specimens?health=${['thriving', 'poorly'][n % 2]}&page=${n + 2}`),
  },
];

const load = (code) => import(`data:text/javascript;base64,${Buffer.from(code).toString('base64')}`);
const each = (work) => {
  let next = 0;
  return () => work(next++ & 63);
};
const sorted = (values) => JSON.stringify(Object.entries(JSON.parse(JSON.stringify(values))).sort());

/** @returns rows for the table of figures, and the sizes of what an application ships */
export async function benchAddress() {
  const byHand = await load(await bundle(`export * from './by-hand.ts'`, false));
  const withZod = await load(await bundle(`export * from './with-zod.ts'`, false));
  const rows = [];
  for (const { what, page, hand, addresses } of cases) {
    const ours = await load(await bundle(using(...page)));
    const [read, write, zod] = [byHand[`read${hand}`], byHand[`write${hand}`], withZod[`read${hand}`]];
    const values = addresses.map((address) => ours.readPage(address));
    const theirs = addresses.map((address) => read(address));
    // All must give the same before their times mean anything.
    for (const [index, address] of addresses.entries()) {
      const expected = sorted(values[index]);
      if (sorted(theirs[index]) !== expected || sorted(zod(address)) !== expected) throw new Error(`not the same: ${address}`);
    }
    const reading = compareRounds(
      each((index) => ours.readPage(addresses[index])),
      each((index) => read(addresses[index])),
    );
    const validating = compareRounds(
      each((index) => ours.readPage(addresses[index])),
      each((index) => zod(addresses[index])),
    );
    const writing = compareRounds(
      each((index) => ours.writePage(values[index])),
      each((index) => write(theirs[index])),
    );
    rows.push([
      what,
      `${reading.ours} ns`,
      reading.ratio.toFixed(2),
      validating.ratio.toFixed(2),
      `${writing.ours} ns`,
      writing.ratio.toFixed(2),
    ]);
  }
  const sizes = await Promise.all(
    [
      ['three', 'three'],
      ['filter-list', 'filterList'],
    ].map(async (page) => gzipped(await bundle(using(...page)))),
  );
  return { rows, sizes };
}
