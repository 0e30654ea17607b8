import type { Server } from 'node:http';
import type { Browser, Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { burst } from '../support/burst.ts';
import { bundled, launchStrictChromium, servePages } from '../support/front-end.ts';

const program = `
  import { integer, page, text } from '@pallmist/address';
  import { followLinks, live } from '@pallmist/browser';
  import { bindLink, sendEvents } from '@pallmist/browser/dom';
  const plants = page('{?q,page}', { q: text({ step: false }), page: integer({ min: 0, default: 1 }) });
  const side = page('{?open}', { open: text() });
  const state = live(plants);
  Object.assign(window, { state, plants, live, side });
  state.subscribe(({ page }) => (document.title = String(page)));
  followLinks(state);
  sendEvents(state, document.body);
  const bound = document.querySelector('#bound');
  if (bound !== null) bindLink(state, bound, ({ page }) => (page < 50 || page > 60 ? { page: page + 1 } : { page: -1 }));
`;
const html = `<a id="in" href="?page=5">five</a> <a id="top" href="#top">top</a> <a id="away" href="/away">away</a>
  <a id="tab" href="?page=6" target="_blank">new</a> <a id="bound">next</a>`;

interface Tools {
  state: {
    set(changes: object, options?: object): unknown[];
    values: { page: number; q?: string };
    subscribe(listener: () => void): () => void;
  };
  live(page: unknown): Tools['state'];
  plants: unknown;
  side: unknown;
}
type Told = Window & Tools & { events: unknown[] };

let browser: Browser;
let server: Server;
let base: string;
let page: Page;
beforeAll(async () => {
  browser = await launchStrictChromium();
  const script = await bundled(program);
  const framed = `<iframe sandbox="allow-scripts" src="/in/x?page=2" id="apart"></iframe><iframe id="document" sandbox="allow-scripts"></iframe>`;
  ({ base, server } = await servePages({
    in: { html, script },
    away: { html: '<p>away', script: '' },
    frames: {
      html: framed,
      script: `document.querySelector('#document').srcdoc = '<p>hi<script type="module">' + ${JSON.stringify(script)} + '<' + '/script>'`,
    },
  }));
});
afterAll(async () => {
  await browser.close();
  server.close();
});
beforeEach(async () => {
  page = await browser.newPage();
  await page.goto(`${base}/in/here?utm=1#mark`);
});
afterEach(() => page.close());

/** What the page shows, and what its address says. */
const both = async (of: { evaluate: Page['evaluate'] } = page) =>
  of.evaluate(() => [(window as unknown as Told).state.values.page, location.search + location.hash] as const);

describe('under a thousand changes a second', () => {
  it('the last state is in the address soon after, Back works, and a reload keeps it', async () => {
    const last = await page.evaluate(burst, 3000);
    expect(last).toBeGreaterThan(500);
    await page.waitForFunction((end) => location.search === `?page=${String(end)}&utm=1`, last, { timeout: 1000 });
    expect(await both()).toEqual([last, `?page=${String(last)}&utm=1#mark`]);
    await page.goBack();
    const [shown, address] = await both();
    expect([shown < last, address]).toEqual([true, `?page=${String(shown)}&utm=1#mark`]);
    await page.goForward();
    await page.reload();
    expect((await both())[0]).toBe(last);
  });

  it('a reload right after the last change has it too', async () => {
    const last = await page.evaluate(burst, 500);
    await Promise.all([
      page.waitForEvent('load'),
      page.evaluate((next) => {
        (window as unknown as Told).state.set({ page: next });
        location.reload();
      }, last + 1),
    ]);
    expect((await both())[0]).toBe(last + 1);
  });

  it('so does the browser’s own reload button; opened again by a link, the page is what the link says', async () => {
    const last = await page.evaluate(burst, 500);
    await page.evaluate((next) => void (window as unknown as Told).state.set({ page: next }), last + 1);
    const old = page.url();
    await page.reload();
    await page.waitForFunction((end) => location.search.includes(`page=${String(end)}`), last + 1);
    expect((await both())[0]).toBe(last + 1);
    await page.goto(old);
    expect(page.url()).toBe(old);
  });

  it('Back right after it leads to what the address says', async () => {
    await page.evaluate(burst, 500);
    await page.evaluate(() => {
      (window as unknown as Told).state.set({ page: 9999 });
      history.back();
    });
    await page.waitForFunction(() => !location.search.includes('9999'));
    const [shown, address] = await both();
    expect(address).toBe(shown === 1 ? '?utm=1#mark' : `?page=${String(shown)}&utm=1#mark`);
  });

  it('changes that Chromium drops, since another program used up its limit, are written later', async () => {
    await page.evaluate(() => {
      for (let i = 0; i < 300; i++) history.replaceState(null, '', `?utm=${String(i)}#mark`);
      (window as unknown as Told).state.set({ page: 3 });
    });
    await page.waitForFunction(() => location.search.startsWith('?page=3'), undefined, { timeout: 30_000 });
    expect((await both())[0]).toBe(3);
  });
});

it('steps of the program, of links, of hash links and of others are gone through in their order', async () => {
  await page.evaluate(() => void (window as unknown as Told).state.set({ page: 2 }));
  await page.waitForFunction(() => location.search.includes('page=2'));
  await page.click('#in');
  await page.waitForFunction(() => location.search === '?page=5');
  await page.click('#top');
  await page.waitForFunction(() => location.hash === '#top');
  await page.evaluate(() => {
    history.pushState({ theirs: 1 }, '', '?page=8#x');
  });
  expect(await both()).toEqual([8, '?page=8#x']);
  const seen: unknown[] = [];
  for (let i = 0; i < 4; i++) {
    await page.goBack();
    seen.push(await both());
  }
  expect(seen).toEqual([
    [5, '?page=5#top'],
    [5, '?page=5'],
    [2, '?page=2&utm=1#mark'],
    [1, '?utm=1#mark'],
  ]);
  await page.goForward();
  await expect.poll(() => both()).toEqual([2, '?page=2&utm=1#mark']);
});

it('a link in a shadow tree changes the page in place, and a hash link right after changes keeps them', async () => {
  const shown = await page.evaluate(() => {
    const { state } = window as unknown as Told;
    const host = document.body.appendChild(document.createElement('div'));
    const root = host.attachShadow({ mode: 'open' });
    root.innerHTML = '<p><a href="?page=7"><b>seven</b></a>';
    root.querySelector('b')?.click();
    const inPlace = state.values.page;
    for (let number = 20; number <= 40; number++) state.set({ page: number });
    document.querySelector<HTMLElement>('#top')?.click();
    return [inPlace, state.values.page, location.search + location.hash];
  });
  expect(shown).toEqual([7, 40, '?page=40#top']);
  expect(await both()).toEqual([40, '?page=40#top']);
});

it('a bound link to what the page refuses leads nowhere, until it leads somewhere again', async () => {
  const attributes = () =>
    page.evaluate(() =>
      ['href', 'aria-disabled', 'aria-current'].map((name) => document.querySelector('#bound')?.getAttribute(name) ?? null),
    );
  expect(await attributes()).toEqual(['/in/here?page=2&utm=1#mark', null, null]);
  await page.evaluate(() => void (window as unknown as Told).state.set({ page: 50 }));
  expect(await attributes()).toEqual([null, 'true', null]);
  await page.evaluate(() => void (window as unknown as Told).state.set({ page: 49 }));
  expect(await attributes()).toEqual(['/in/here?page=50&utm=1#mark', null, null]);
});

it('a link to elsewhere, and one for a new tab, stay with the browser', async () => {
  const [opened] = await Promise.all([page.waitForEvent('popup'), page.click('#tab')]);
  await opened.waitForFunction(() => document.title !== '');
  expect([new URL(opened.url()).search, (await both())[0]]).toEqual(['?page=6', 1]);
  await page.click('#away');
  await page.waitForURL('**/away');
});

it('comes back right from the back-forward cache, and writes before the page is left', async () => {
  await page.evaluate(() => {
    (window as unknown as { mark: boolean }).mark = true;
    (window as unknown as Told).state.set({ page: 4 });
    location.assign('/away');
  });
  await page.waitForFunction(() => location.pathname === '/away');
  await page.evaluate(() => {
    history.back();
  });
  await page.waitForFunction(() => 'state' in window);
  expect(await page.evaluate(() => 'mark' in window)).toBe(true);
  expect(await both()).toEqual([4, '?page=4&utm=1#mark']);
  await page.evaluate(() => void (window as unknown as Told).state.set({ page: 5 }));
  await page.waitForFunction(() => location.search.startsWith('?page=5'));
});

it('in a sandboxed frame, and in a document without an address, Back and Forward work as well', async () => {
  await page.goto(`${base}/frames`);
  for (const [index, begins] of [
    [1, 2],
    [2, 1],
  ] as const) {
    const frame = page.frames()[index];
    if (frame === undefined) throw new Error('no frame');
    await frame.waitForFunction(() => 'state' in window);
    expect((await both(frame))[0]).toBe(begins);
    for (const number of [7, 8]) {
      await frame.evaluate((next) => void (window as unknown as Told).state.set({ page: next }), number);
      await page.waitForTimeout(250);
    }
    await page.evaluate(() => {
      history.back();
    });
    await frame.waitForFunction(() => (window as unknown as Told).state.values.page === 7);
  }
});

it('two instances agree, a throwing listener stops nobody, and events tell what changed', async () => {
  const told = await page.evaluate(() => {
    const { state, live, plants } = window as unknown as Told;
    const other = live(plants);
    const events: unknown[] = [];
    document.body.addEventListener('valueschange', (event) =>
      events.push((event as CustomEvent<{ changed: string[]; cause: string }>).detail.changed),
    );
    window.addEventListener('error', (event) => {
      events.push(event.message);
      event.preventDefault();
    });
    state.subscribe(() => {
      throw new Error('not today');
    });
    other.set({ q: 'moss', page: 2 });
    return new Promise<unknown[]>((resolve) => setTimeout(() => resolve([...events, state.values.q, location.search]), 50));
  });
  expect(told).toEqual([['q', 'page'], 'Uncaught Error: not today', 'moss', '?q=moss&page=2&utm=1']);
});

it('a value set is painted in the next frame', async () => {
  const frames = await page.evaluate(async () => {
    const { state } = window as unknown as Told;
    await new Promise(requestAnimationFrame);
    state.set({ page: 12 });
    await new Promise(requestAnimationFrame);
    return document.title;
  });
  expect(frames).toBe('12');
});
