// Live state against what a good engineer would write by hand for one page with fifty parameters: in Node, without a history to write.
import { bundle, gzipped } from './address/bundle.mjs';
import { compareRounds } from './measure.mjs';

const count = 50;
const names = Array.from({ length: count }, (_, index) => `p${index}`);
const declarations = names.map((name, index) =>
  index % 5 === 0
    ? `${name}: text({ maxLength: 80, step: false })`
    : index % 5 === 1
      ? `${name}: choice(['a', 'b', 'c'], { step: false })`
      : index % 5 === 2
        ? `${name}: boolean({ default: false, step: false })`
        : `${name}: integer({ min: 0, default: 0, step: false })`,
);
const ours = `
  import { boolean, choice, integer, page, text } from '@pallmist/address';
  import { live, windowAt } from '@pallmist/browser';
  const fifty = page('/many{?${names.join(',')}}', { ${declarations.join(', ')} });
  export const begin = (address) => live(fifty, { window: windowAt(address) });`;

/**
 * By hand: one object of values, each parameter with a check and a text of its own; subscribers by name and of all; a new
 * object for each change, as those who listen compare; the address is put together in the next task.
 */
const hand = `
  const inRange = (value) => Number.isInteger(value) && value >= 0;
  const kinds = {
    text: { check: (value) => typeof value === 'string' && value.length <= 80, fallback: undefined },
    choice: { check: (value) => ['a', 'b', 'c'].includes(value), fallback: undefined },
    boolean: { check: (value) => typeof value === 'boolean', fallback: false },
    integer: { check: inRange, fallback: 0 },
  };
  const parameters = Object.fromEntries(${JSON.stringify(names)}.map((name, index) => [name, kinds[['text', 'choice', 'boolean', 'integer', 'integer'][index % 5]]]));
  export function begin(address) {
    let values = Object.fromEntries(Object.entries(parameters).map(([name, { fallback }]) => [name, fallback]));
    const ofOne = new Map();
    const ofAll = new Set();
    let waiting = false;
    let search = '';
    const write = () => {
      waiting = false;
      const query = new URLSearchParams();
      for (const name in parameters) {
        const value = values[name];
        if (value !== undefined && value !== parameters[name].fallback) query.set(name, String(value));
      }
      search = query.toString();
    };
    return {
      get values() { return values; },
      set(changes) {
        const changed = [];
        for (const name in changes) {
          const parameter = parameters[name];
          const value = changes[name] ?? parameter?.fallback;
          if (parameter === undefined || (value !== undefined && !parameter.check(value))) return ['wrong'];
          if (value !== values[name]) changed.push(name);
        }
        if (changed.length === 0) return [];
        values = { ...values, ...changes };
        for (const name of changed) for (const listener of ofOne.get(name) ?? []) try { listener(values[name]); } catch (error) { reportError(error); }
        for (const listener of ofAll) try { listener(values); } catch (error) { reportError(error); }
        if (!waiting) { waiting = true; setTimeout(write); }
        return [];
      },
      subscribe(name, listener) {
        if (typeof name === 'function') ofAll.add(name);
        else ofOne.set(name, (ofOne.get(name) ?? new Set()).add(listener));
      },
    };
  }`;

const load = async (code) => import(`data:text/javascript;base64,${Buffer.from(code).toString('base64')}`);

/** @returns rows of updates a second, and the bytes of a page with its live state */
export async function benchLive() {
  const [mine, theirs] = [await load(await bundle(ours)), await load(await bundle(hand))];
  const rows = [];
  for (const [what, subscribe] of [
    [
      '200 subscribers, four to each parameter',
      (state, told) => names.forEach((name) => [1, 2, 3, 4].forEach(() => state.subscribe(name, told))),
    ],
    [
      '200 subscribers, half of them to all values',
      (state, told) => names.forEach((name) => [1, 2].forEach(() => (state.subscribe(name, told), state.subscribe(told)))),
    ],
  ]) {
    const counted = [0, 0];
    const work = [mine, theirs].map((made, which) => {
      const state = made.begin('/many');
      subscribe(state, () => counted[which]++);
      let number = 0;
      return () => {
        const index = number++ % count;
        const turn = Math.floor(number / count) % 7;
        const value = index % 5 === 0 ? `w${turn}` : index % 5 === 1 ? 'abc'[turn % 3] : index % 5 === 2 ? turn % 2 === 0 : turn;
        if (state.set({ [names[index]]: value }).length > 0) throw new Error(`refused: ${names[index]}`);
      };
    });
    const { ours: time, theirs: byHand, ratio } = compareRounds(work[0], work[1]);
    if (counted[0] === 0 || counted[1] === 0) throw new Error('nobody was told');
    rows.push([what, Math.round(1e9 / time).toLocaleString('en'), Math.round(1e9 / byHand).toLocaleString('en'), ratio.toFixed(2)]);
  }
  const bytes = gzipped(
    await bundle(`import { live } from '@pallmist/browser'; import { three } from './three.ts'; export const state = live(three);`),
  );
  return { rows, bytes };
}
