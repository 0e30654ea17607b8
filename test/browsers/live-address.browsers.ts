import type { Server } from 'node:http';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { burst } from '../support/burst.ts';
import { bundled, servePages } from '../support/front-end.ts';
import { until, type DrivenBrowser } from './driven-browser.ts';
import { startFirefox } from './firefox.ts';
import { startWebKit } from './webkit.ts';

const program = `
  import { integer, page, text } from '@pallmist/address';
  import { followLinks, live } from '@pallmist/browser';
  const plants = page('{?q,page}', { q: text({ step: false }), page: integer({ default: 1 }) });
  const state = live(plants);
  Object.assign(window, { state });
  state.subscribe(({ page }) => (document.title = String(page)));
  followLinks(state);
`;
const html = '<a id="in" href="?page=5">five</a> <a id="top" href="#top">top</a>';

interface Shown extends Window {
  state: { set(changes: object): unknown; values: { page: number; q?: string } };
}

let base: string;
let server: Server;
beforeAll(async () => {
  ({ base, server } = await servePages({ in: { html, script: await bundled(program) }, away: { html: '<p>away', script: '' } }));
});
afterAll(() => server.close());

describe.each([
  ['Firefox', startFirefox],
  ['WebKit', startWebKit],
])('live state in %s', (_, start) => {
  let browser: DrivenBrowser;
  beforeAll(async () => {
    browser = await start();
  });
  afterAll(() => browser.close());
  /** A page of its own for each test: the limits of a browser are counted for each document. */
  let count = 0;
  beforeEach(async () => {
    await browser.open(`${base}/in/${String(++count)}?utm=1#mark`);
    await until(browser, () => 'state' in window);
  });
  afterEach(() => browser.open('about:blank'));

  const both = () => browser.run(() => [(window as unknown as Shown).state.values.page, location.search + location.hash] as const);
  it('a thousand changes a second end in the address; Back, Forward and reload are right', async () => {
    const last = await browser.run(burst, 3000);
    expect(last).toBeGreaterThan(300);
    await until(browser, (end: number) => location.search === `?page=${String(end)}&utm=1`, last, 1500);
    expect(await both()).toEqual([last, `?page=${String(last)}&utm=1#mark`]);
    await browser.back();
    await until(browser, (end: number) => !location.search.includes(String(end)), last);
    const [shown, address] = await both();
    expect([shown < last, address]).toEqual([true, `?page=${String(shown)}&utm=1#mark`]);
    await browser.forward();
    await until(browser, (end: number) => location.search.includes(String(end)), last);
    await browser.reload();
    await until(browser, () => 'state' in window);
    expect((await both())[0]).toBe(last);
  });

  it('Back right after a burst leads to what the address says', async () => {
    await browser.run(burst, 500);
    await browser.run(() => {
      (window as unknown as Shown).state.set({ page: 9999 });
      history.back();
    });
    await until(browser, () => !location.search.includes('9999'));
    const [shown, address] = await both();
    expect(address).toBe(shown === 1 ? '?utm=1#mark' : `?page=${String(shown)}&utm=1#mark`);
  });

  it('a reload that the program asks for right after the last change has it too', async () => {
    const last = await browser.run(burst, 500);
    await browser.run((next: number) => {
      Object.assign(window, { before: true });
      (window as unknown as Shown).state.set({ page: next });
      setTimeout(() => {
        location.reload();
      });
    }, last + 1);
    await until(browser, () => !('before' in window) && 'state' in window);
    expect((await both())[0]).toBe(last + 1);
  });

  it('steps of the program, of links, of hash links and of others are gone through in their order', async () => {
    await browser.run(() => void (window as unknown as Shown).state.set({ page: 2 }));
    await until(browser, () => location.search.includes('page=2'));
    await browser.run(() => {
      document.querySelector<HTMLElement>('#in')?.click();
    });
    await until(browser, () => location.search === '?page=5');
    await browser.run(() => {
      document.querySelector<HTMLElement>('#top')?.click();
    });
    await until(browser, () => location.hash === '#top');
    await browser.run(() => {
      history.pushState({ theirs: 1 }, '', '?page=8#x');
    });
    expect(await both()).toEqual([8, '?page=8#x']);
    for (const wanted of ['?page=5#top', '?page=5', '?page=2&utm=1#mark', '?utm=1#mark']) {
      await browser.back();
      await until(browser, (place: string) => location.search + location.hash === place, wanted);
      expect((await both())[0]).toBe(Number(/page=(\d)/.exec(wanted)?.[1] ?? 1));
    }
  });
});
