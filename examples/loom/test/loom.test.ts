import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { Browser, Page } from 'playwright-core';
import { build, preview, type PreviewServer } from 'vite';
import { afterAll, afterEach, beforeAll, beforeEach, expect, it } from 'vitest';
import { read } from '@pallmist/address';
import { axeProblems } from '../../../test/support/axe.ts';
import { watchErrors } from '../../../test/support/chromium.ts';
import { launchStrictChromium } from '../../../test/support/front-end.ts';
import { isDraft, longestFloat } from '../src/draft.ts';
import { loomPart } from '../src/pages.ts';
import { patterns } from '../src/patterns.ts';

const configFile = fileURLToPath(new URL('../vite.config.ts', import.meta.url));
let server: PreviewServer;
let base: string;
let browser: Browser;
let page: Page;
let errors: string[];
beforeAll(async () => {
  await build({ configFile, logLevel: 'silent' });
  server = await preview({ configFile, logLevel: 'silent', preview: { port: 0, host: '127.0.0.1' } });
  base = server.resolvedUrls?.local[0] ?? '';
  browser = await launchStrictChromium();
});
afterAll(async () => {
  await browser.close();
  await server.close();
});
beforeEach(async () => {
  page = await browser.newPage();
  errors = watchErrors(page);
  await page.goto(base);
});
afterEach(async () => {
  await page.close();
  expect(errors).toEqual([]);
});

const draftIn = () => {
  const { values } = read(loomPart, page.url());
  return values.draft;
};
const cellOf = async (id: string, column: number, row: number) => {
  const box = await page.locator(`#${id} canvas`).boundingBox();
  if (box === null) throw new Error(id);
  return [box.x + column * 24 + 12, box.y + row * 24 + 12] as const;
};

it('a stroke over several threads is in the address, and Back undoes it whole', async () => {
  const before = draftIn();
  await page.mouse.move(...(await cellOf('threading', 0, 0)));
  await page.mouse.down();
  for (let thread = 1; thread < 8; thread++) {
    await page.mouse.move(...(await cellOf('threading', thread, 0)));
    await page.waitForTimeout(150);
  }
  await page.mouse.up();
  await page.waitForFunction(() => location.search.startsWith('?draft=1'));
  await expect.poll(() => draftIn()?.threading.slice(0, 9)).toEqual([3, 3, 3, 3, 3, 3, 3, 3, 0]);
  await page.reload();
  expect(await page.locator('#facts').innerText()).toMatch(/longest float goes over \d/);
  await page.goBack();
  expect(draftIn()).toEqual(before);
  expect(new URL(page.url()).search).toBe('');
});

it('every grid is painted by keys as well, in the chosen colour', async () => {
  await page.check('[aria-label=Woad]');
  await page.focus('#warp canvas');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Space');
  await expect.poll(() => draftIn()?.warp.slice(0, 3)).toEqual([0, 5, 0]);
  await page.focus('#tie-up canvas');
  await page.keyboard.press('Enter');
  await expect.poll(() => draftIn()?.tieUp[0]).toEqual([0, 1, 3]);
});

it('the gallery is opened, searched and filtered by the address; a pattern from it is one step', async () => {
  await page.click('#open-gallery');
  await page.waitForFunction(() => location.search === '?gallery=true');
  await page.check('[value="8"]');
  await page.waitForFunction(() => location.search === '?gallery=true&shafts=8');
  expect(await page.locator('#patterns').innerText()).toBe('Eight-shaft point');
  await page.reload();
  await page.click('#patterns a');
  await expect.poll(() => draftIn()?.shafts).toBe(8);
  expect(await page.isVisible('#gallery')).toBe(false);
  await page.goBack();
  expect([draftIn()?.shafts, await page.isVisible('#gallery')]).toEqual([4, true]);
  await page.keyboard.press('Escape');
  await page.waitForFunction(() => !location.search.includes('gallery'));
});

it('an address that is no draft shows the first one, and breaks nothing', async () => {
  await page.goto(`${base}?draft=1zzzz&colour=99`);
  expect(await page.locator('#facts').innerText()).toContain('4 shafts');
});

it('passes axe-core, with the gallery closed and open', async () => {
  expect(await axeProblems(page)).toEqual([]);
  await page.click('#open-gallery');
  expect(await axeProblems(page)).toEqual([]);
});

it('every pattern of the gallery is a draft, and a weave that holds', () => {
  for (const [name, draft] of Object.entries(patterns)) {
    expect(isDraft(JSON.parse(JSON.stringify(draft))), name).toBe(true);
    expect(longestFloat(draft), name).toBeLessThanOrEqual(7);
  }
  expect(isDraft({ ...patterns['Plain weave'], warp: [99] })).toBe(false);
  expect(readFileSync(fileURLToPath(new URL('../README.md', import.meta.url)), 'utf8')).toContain('npm start');
});
