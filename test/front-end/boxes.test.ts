import type { Server } from 'node:http';
import type { Browser, BrowserContext, Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, beforeEach, expect, it } from 'vitest';
import { bundled, launchStrictChromium, servePages } from '../support/front-end.ts';

// One box of each kind that HTML has, none of them in a form.
const program = `
  import { boolean, choice, colour, date, datetime, integer, list, number, page, range, text } from '@pallmist/address';
  import { live } from '@pallmist/browser';
  import { bindField } from '@pallmist/browser/dom';
  const bed = page('{?name,rows,width,sown,seen,meeting,shade,wet,soil,zones*,light,height,note}', {
    name: text(), rows: integer({ min: 1, max: 9 }), width: number(), sown: date(),
    seen: datetime(), meeting: datetime({ timeZone: 'Asia/Tokyo' }), shade: colour(), wet: boolean(),
    soil: choice(['loam', 'clay']), zones: list(choice(['arid', 'mist', 'dry'])), light: choice(['sun', 'shade']),
    height: range(integer()), note: text(),
  });
  const state = live(bed);
  for (const box of document.querySelectorAll('[name]')) bindField(state, box);
  window.state = state;
`;
const html = `
  <input name="name"><input name="rows" type="range" min="1" max="9"><input name="width" type="number" step="any">
  <input name="sown" type="date"><input name="seen" type="datetime-local"><input name="meeting" type="datetime-local">
  <input name="shade" type="color"><input name="wet" type="checkbox">
  <input name="soil" type="radio" value="loam"><input name="soil" type="radio" value="clay">
  <input name="zones" type="checkbox" value="arid"><input name="zones" type="checkbox" value="mist">
  <select name="light"><option value="">any</option><option>sun</option><option>shade</option></select>
  <input name="height" type="number" id="low"><input name="height" type="number" id="high">
  <textarea name="note"></textarea>`;

let browser: Browser;
let context: BrowserContext;
let server: Server;
let base: string;
let page: Page;
beforeAll(async () => {
  browser = await launchStrictChromium();
  ({ base, server } = await servePages({ bed: { html, script: await bundled(program) } }));
});
afterAll(async () => {
  await browser.close();
  server.close();
});
beforeEach(async () => {
  context = await browser.newContext({ timezoneId: 'America/New_York' });
  page = await context.newPage();
});
afterEach(() => context.close());

const shown = () =>
  page.evaluate(() =>
    [...document.querySelectorAll<HTMLInputElement>('[name]')].map((box) =>
      box.type === 'checkbox' || box.type === 'radio' ? box.checked : box.value,
    ),
  );
const address = (search: string) => page.waitForFunction((wanted) => decodeURIComponent(location.search) === wanted, search);

it('boxes of every kind show the values of the address', async () => {
  await page.goto(
    `${base}/bed?name=Moss&rows=4&width=1.5&sown=2026-03-21&seen=2026-03-21T15:30:00Z&meeting=2026-03-21T01:00:00Z&shade=3a7d44&wet=true` +
      '&soil=clay&zones=mist&light=shade&height=2..7&note=a%0Ab',
  );
  await page.waitForFunction(() => 'state' in window);
  expect(await shown()).toEqual([
    ...['Moss', '4', '1.5', '2026-03-21', '2026-03-21T11:30', '2026-03-21T10:00', '#3a7d44', true],
    ...[false, true, false, true, 'shade', '2', '7', 'a\nb'],
  ]);
});

it('what is entered in a box of any kind is in the address', async () => {
  await page.goto(`${base}/bed`);
  await page.waitForFunction(() => 'state' in window);
  const steps: [enter: () => Promise<unknown>, query: string][] = [
    [() => page.fill('[name=seen]', '2026-07-01T08:05'), 'seen=2026-07-01T12:05:00Z'],
    [() => page.fill('[name=meeting]', '2026-07-01T08:05'), 'meeting=2026-06-30T23:05:00Z'],
    [() => page.fill('[name=shade]', '#aa00ff'), 'shade=aa00ff'],
    [() => page.check('[value=loam]'), 'soil=loam'],
    [() => page.check('[value=arid]'), 'zones=arid'],
    [() => page.check('[value=mist]'), 'zones=arid&zones=mist'],
    [() => page.uncheck('[value=arid]'), 'zones=mist'],
    [() => page.fill('#low', '3'), 'height=3..'],
    [() => page.fill('#high', '5'), 'height=3..5'],
    [() => page.fill('[name=rows]', '6'), 'rows=6'],
  ];
  const parts = new Map<string, string>();
  for (const [enter, query] of steps) {
    await enter();
    parts.set(query.split('=')[0] ?? '', query);
    const declared = ['rows', 'seen', 'meeting', 'shade', 'soil', 'zones', 'height'];
    await address(`?${declared.flatMap((name) => parts.get(name) ?? []).join('&')}`);
  }
  const before = await shown();
  await page.reload();
  await page.waitForFunction(() => 'state' in window);
  expect(await shown()).toEqual(before);
});
