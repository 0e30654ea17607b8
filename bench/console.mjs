/* global document, requestAnimationFrame, InputEvent */
// What a builder waits for in the console, with an app of 500 pages and 200 parameters.
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { readSettings, startService } from '../packages/service/dist/index.js';
import { chromium } from 'playwright-core';
import { median } from './measure.mjs';

const pageCount = 500;
const edits = 20;

/** An app of 500 pages, each with a search, a tab, a list and links; one of them has 200 parameters. */
export function largeApp() {
  const pages = Array.from({ length: pageCount }, (_, index) => {
    const many = index === 1 ? Array.from({ length: 40 }, (_, number) => `p${number}`) : [];
    return [
      `  page${index}:`,
      `    title: Page ${index}`,
      `    address: ${index === 0 ? '/' : `/page${index}`}{?${['q', 'tab', ...many].join(',')}}`,
      '    parameters:',
      '      q: { type: text, blank: absent }',
      '      tab: { type: choice, of: tabs, default: a }',
      ...many.map((name) => `      ${name}: { type: text, label: Parameter ${name} }`),
      '    rows:',
      '      found: { from: things, where: [{ field: name, contains: "{param.q}" }] }',
      '    content:',
      `      - { show: heading, text: Page ${index} }`,
      '      - { show: search, bind: q, label: Search }',
      '      - { show: text, text: "{total.found} found", when: has(param.q) }',
      `      - { show: tabs, bind: tab, label: Parts, panes: { a: [], b: [] } }`,
      `      - { show: table, rows: found, label: Things, columns: [{ field: name }], link: { page: page${(index + 1) % pageCount}, values: { q: "{row.name}" } } }`,
    ].join('\n');
  });
  return `pallmist: 1\napp: large\ntitle: Large\nmount: /large\nchoices:\n  tabs: { a: A, b: B }\ncollections:\n  things: { keyField: name, fields: { name: { type: text, unique: true } } }\npages:\n${pages.join('\n')}\n`;
}

const percentile = (times, share) => times.toSorted((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * share))];

export async function benchConsole() {
  const data = mkdtempSync(join(tmpdir(), 'pallmist-bench-'));
  const service = await startService({ ...readSettings({}), port: 0, data, log: 'silent' });
  await service.apps.push('large', { source: largeApp() });
  const options = JSON.parse(readFileSync(new URL('../scripts/chromium.json', import.meta.url), 'utf8'));
  const browser = await chromium.launch({ ...options, executablePath: process.env.PALLMIST_CHROMIUM ?? options.executablePath });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(service.consoleLink);
    await page.waitForSelector('h1');
    const loaded = new Set();
    page.on('response', (response) => {
      if (/\/~\/console\/assets\/.*\.js$/.test(response.url())) loaded.add(response.url().split('/').at(-1));
    });
    const paints = [];
    for (let round = 0; round < 5; round++) {
      await page.goto(`${service.base}/~/console/`);
      await page.waitForSelector('h1');
      paints.push(await page.evaluate(() => performance.getEntriesByName('first-contentful-paint')[0].startTime));
    }
    await page.goto(`${service.base}/~/console/large?page=page7&part=content/0`);
    await page.getByLabel('Text', { exact: true }).waitFor();
    await page.frameLocator('iframe').getByRole('heading', { name: 'Page 7' }).waitFor();
    const draft = page.frames().find((frame) => frame.url().includes('/~/draft/'));
    const folder = new URL('../packages/console/dist/assets/', import.meta.url);
    const bytes = readdirSync(folder)
      .filter((name) => loaded.has(name))
      .reduce((sum, name) => sum + gzipSync(readFileSync(new URL(name, folder)), { level: 9 }).length, 0);
    const times = { painted: [], checked: [], drawn: [] };
    for (let edit = 0; edit < edits; edit++) {
      const measured = await page.evaluate(async (number) => {
        const box = document.querySelector('section[aria-label="Properties"] input');
        const wrong = number % 2 === 0;
        const text = `Edit ${number}${wrong ? ' {row.' : ''}`;
        const until = (holds) =>
          new Promise((resolve) => {
            const look = () => (holds() ? resolve(performance.now()) : requestAnimationFrame(look));
            look();
          });
        const began = performance.now();
        box.value = text;
        box.dispatchEvent(new InputEvent('input', { bubbles: true }));
        // In the next frame, laid out: what follows is the browser's own work.
        const painted = await new Promise((resolve) => {
          requestAnimationFrame(() => {
            void document.body.offsetHeight;
            resolve(performance.now());
          });
        });
        const checked = await until(
          () => (document.querySelector('section[aria-label="Properties"] [aria-invalid="true"]') !== null) === wrong,
        );
        return { painted: painted - began, checked: checked - began, began: performance.timeOrigin + began };
      }, edit);
      // The draft is of another origin, so its own frame tells when it is drawn.
      const drawnAt = await draft.evaluate(
        (number) =>
          new Promise((resolve) => {
            const look = () => {
              const drawn = document.querySelector('main h1, main h2')?.textContent.startsWith(`Edit ${number}`);
              if (drawn) resolve(performance.timeOrigin + performance.now());
              else requestAnimationFrame(look);
            };
            look();
          }),
        edit,
      );
      measured.drawn = drawnAt - measured.began;
      delete measured.began;
      for (const [name, time] of Object.entries(measured)) times[name].push(time);
      await page.waitForTimeout(300);
    }
    return {
      firstPaint: median(paints),
      bytes,
      ...Object.fromEntries(Object.entries(times).map(([name, all]) => [name, { median: median(all), most: percentile(all, 0.95) }])),
    };
  } finally {
    await browser.close();
    await service.stop();
    rmSync(data, { recursive: true });
  }
}
