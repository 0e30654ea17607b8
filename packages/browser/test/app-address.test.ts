import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { compileApp } from '@pallmist/address/declare';
import { LiveAddress } from '@pallmist/browser/app';
import { windowAt } from '@pallmist/browser';

const { app } = compileApp({
  app: 'live',
  mount: '/g',
  pages: {
    list: {
      address: '/list{?q,page,note}',
      parameters: {
        q: { type: 'text', step: false, resets: ['page'] },
        page: { type: 'integer', default: 1, min: 1 },
        note: { type: 'boolean', once: true },
      },
    },
    other: { address: '/other' },
  },
});

let window: ReturnType<typeof windowAt>;
let live: LiveAddress;
let told: string[];
const here = () => window.location.pathname + window.location.search + window.location.hash;
function begin(address: string) {
  window = windowAt(address);
  live = new LiveAddress(app, window);
  told = [];
  live.subscribe((reading, cause) => told.push(`${cause} ${JSON.stringify(reading.values)}`));
}
beforeEach(() => {
  vi.useFakeTimers();
  begin('/g/list?page=3');
});
afterEach(() => void vi.useRealTimers());

describe('a change', () => {
  it('is told first and written after; what is no step stays in its entry', () => {
    for (const q of ['f', 'fe', 'fern']) live.change({ q });
    expect(told.at(-1)).toBe('change {"q":"fern","page":1}');
    expect(here()).toBe('/g/list?page=3');
    vi.advanceTimersByTime(0);
    expect(here()).toBe('/g/list?q=fern');
    live.change({ page: 2 });
    vi.advanceTimersByTime(0);
    window.go(-1);
    expect([here(), live.reading.values, told.at(-1)]).toEqual(['/g/list?q=fern', { q: 'fern', page: 1 }, 'history {"q":"fern","page":1}']);
  });

  it('that is refused changes nothing and says why', () => {
    expect(live.change({ page: 0 })?.written.problems[0]?.code).toBe('too-small');
    expect([live.reading.values, told]).toEqual([{ page: 3 }, []]);
  });

  it('to what is there already is none', () => {
    expect([live.change({ page: 3 })?.entry, told]).toEqual(['none', []]);
  });
});

it('what acts once holds here, and leaves the address', () => {
  begin('/g/list?page=2&note=true#top');
  expect(live.reading.values).toEqual({ page: 2, note: true });
  vi.advanceTimersByTime(0);
  expect(here()).toBe('/g/list?page=2#top');
  live.change({ page: 3 });
  expect(live.reading.values).toEqual({ page: 3 });
});

it('goes to other pages of this site alone, and is silent once closed', () => {
  live.open('https://elsewhere.example/g/other');
  expect(live.reading.page).toBe('list');
  live.open('/g/other');
  expect(live.reading.page).toBe('other');
  live.close();
  expect(here()).toBe('/g/other');
  window.go(-1);
  expect(live.reading.page).toBe('other');
});
