import { readFileSync } from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import ts from 'typescript';
import type { Browser, Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, beforeEach, expect, it } from 'vitest';
import { watchErrors } from '../support/chromium.ts';
import { bundled, launchStrictChromium, servePages } from '../support/front-end.ts';

interface Recipe {
  html: string;
  code: string;
  extension: 'ts' | 'svelte';
}

const guide = readFileSync(new URL('../../docs/recipes.md', import.meta.url), 'utf8');
const block = (section: string, language: string) => new RegExp(`\`\`\`${language}\\n([\\s\\S]*?)\`\`\``).exec(section)?.[1];
/** The recipes of the guide, by heading. */
const recipes = new Map<string, Recipe>(
  guide
    .split(/^## /m)
    .slice(1)
    .map((section) => {
      const [title = ''] = section.split('\n', 1);
      const component = block(section, 'svelte');
      return [
        title,
        {
          html: block(section, 'html') ?? '',
          code: component ?? block(section, 'ts') ?? '',
          extension: component === undefined ? 'ts' : 'svelte',
        },
      ];
    }),
);
const onServer = 'On the server';

let browser: Browser;
let server: Server;
let base: string;
let page: Page;
let errors: string[];
beforeAll(async () => {
  browser = await launchStrictChromium();
  const pages: Record<string, { html: string; script: string }> = {};
  for (const [title, { html, code, extension }] of recipes) {
    if (title !== onServer) pages[title] = { html, script: await bundled(code, extension) };
  }
  ({ base, server } = await servePages(pages));
});
afterAll(async () => {
  await browser.close();
  server.close();
});
beforeEach(async () => {
  page = await browser.newPage();
  errors = watchErrors(page);
});
afterEach(async () => {
  await page.close();
  expect(errors).toEqual([]);
});

const open = (title: string, query = '') => page.goto(`${base}/${encodeURIComponent(title)}${query}`);
const query = () => new URL(page.url()).search + new URL(page.url()).hash;
const text = (selector: string) => page.locator(selector).innerText();
const waitFor = (wanted: string) => page.waitForFunction((end) => location.search + location.hash === end, wanted);

it('Tabs', async () => {
  await open('Tabs', '?tab=Care');
  expect(await text('#shown')).toBe('You see the care tab.');
  await page.click('#overview');
  await waitFor('');
  expect(await page.getAttribute('#overview', 'aria-current')).toBe('true');
  await page.click('#care');
  await waitFor('?tab=care');
  await page.goBack();
  await expect.poll(() => text('#shown')).toBe('You see the overview tab.');
  expect(await page.getAttribute('#care', 'href')).toMatch(/\?tab=care$/);
});

it('Search as you type', async () => {
  await open('Search as you type', '?page=3');
  await page.fill('#q', '');
  await page.locator('#q').pressSequentially('fern', { delay: 20 });
  await waitFor('?q=fern');
  expect(await text('#found')).toBe('Fog fern\nTree fern');
  await page.reload();
  expect([await page.inputValue('#q'), await text('#found')]).toEqual(['fern', 'Fog fern\nTree fern']);
  await page.goBack();
  expect(page.url()).toBe('about:blank');
});

it('Filters with several values', async () => {
  await open('Filters with several values', '?zones=mist');
  expect(await page.isChecked('[value=mist]')).toBe(true);
  await page.check('[value=arid]');
  await page.fill('[name=height] >> nth=1', '90');
  await page.click('text=Apply');
  await waitFor('?zones=arid&zones=mist&height=..90');
  expect(await text('#shown')).toBe('{"zones":["arid","mist"],"height":{"to":90}}');
  await page.fill('[name=height] >> nth=0', 'tall');
  await page.click('text=Apply');
  expect(await page.locator('[name=height] >> nth=0').evaluate((box: HTMLInputElement) => box.validationMessage)).toMatch(/number|range/i);
  expect(query()).toBe('?zones=arid&zones=mist&height=..90');
  await page.click('text=Clear');
  await waitFor('');
  await page.goBack();
  await expect.poll(() => page.inputValue('[name=height] >> nth=1')).toBe('90');
});

it('Sort and paging', async () => {
  await open('Sort and paging');
  await page.click('#next');
  await page.click('#next');
  await waitFor('?page=3');
  await page.click('#tallest');
  await waitFor('?sort=-height');
  expect(await text('#shown')).toBe('Page 1, by height, descending');
  await page.goBack();
  await expect.poll(() => text('#shown')).toBe('Page 3, by name');
});

it('A dialog in the address', async () => {
  await open('A dialog in the address');
  await page.click('#open');
  await waitFor('?open=help');
  await page.goBack();
  await expect.poll(() => page.isVisible('#help')).toBe(false);
  await page.goForward();
  await expect.poll(() => page.isVisible('#help')).toBe(true);
  await page.keyboard.press('Escape');
  await waitFor('');
  expect(await page.isVisible('#help')).toBe(false);
});

it('Editing in place', async () => {
  await open('Editing in place', '?edit=1');
  await page.fill('input', 'Frond removed');
  await page.click('text=Save');
  await waitFor('');
  expect(await text('#notes')).toContain('Frond removed');
});

it('Master and detail', async () => {
  await open('Master and detail', '?q=fern&utm=x');
  await page.click('#QM-0007');
  await waitFor('?q=fern&specimen=QM-0007&utm=x');
  expect(await text('#detail')).toBe('Moss rose fern');
});

it('The steps of a wizard', async () => {
  await open('The steps of a wizard', '?at=thanks');
  await waitFor('');
  await page.fill('#name', 'Ansa');
  await page.click('text=Next');
  await waitFor('?at=thanks&name=Ansa');
  expect(await text('#question')).toBe('Welcome, Ansa.');
  await page.goBack();
  await expect.poll(() => text('#question')).toBe('What is your name?');
});

it('Language', async () => {
  await open('Language');
  expect(await text('#greeting')).toBe('Welcome');
  await page.click('#de');
  await waitFor('?lang=de');
  expect([await text('#greeting'), await page.getAttribute('html', 'lang')]).toEqual(['Willkommen', 'de']);
});

it('Return after sign-in', async () => {
  await open('Return after sign-in');
  const module = await compiled('Return after sign-in');
  const { afterSignIn } = module as { afterSignIn: (address: string) => string };
  const wanted = (address: string) => afterSignIn(`/sign-in?wanted=${encodeURIComponent(address)}`);
  expect(wanted('/specimens/QM-0412?tab=care&evil=1')).toBe('/specimens/QM-0412?tab=care');
  for (const trap of ['https://evil.example/specimens', '//evil.example', 'javascript:alert(1)', '/\\evil.example'])
    expect(wanted(trap)).toBe('/');
});

it('Campaign values', async () => {
  await open('Campaign values', '?via=leaflet-26&x=1#top');
  await waitFor('?x=1#top');
  await page.reload();
  expect(await text('#shown')).toBe('You came by leaflet-26.');
});

it('Large state', async () => {
  await open('Large state');
  const slider = page.locator('#width');
  await slider.evaluate((box: HTMLInputElement) => {
    for (const width of ['9', '12', '17']) {
      box.value = width;
      box.dispatchEvent(new Event('input'));
    }
  });
  expect([await text('#shown'), query()]).toEqual(['fern: 17 m', '']);
  await slider.evaluate((box: HTMLInputElement) => box.dispatchEvent(new Event('change')));
  await page.waitForFunction(() => location.search.startsWith('?plan=1'));
  await page.reload();
  expect(await text('#shown')).toBe('fern: 17 m');
  await page.goBack();
  await expect.poll(() => text('#shown')).toBe('fern: 4 m');
});

it('Sharing part of the state', async () => {
  await open('Sharing part of the state', '?q=fern&panel=map&utm=1#x');
  await page.click('#copy');
  expect(await text('#shared')).toBe(`${base}/Sharing%20part%20of%20the%20state?q=fern`);
});

it('Renamed parameters', async () => {
  await open('Renamed parameters', '?exposure=dark');
  expect(await text('#shown')).toBe('Light: shade');
  await waitFor('?light=shade');
});

it('Beside another program that changes the address', async () => {
  await open('Beside another program that changes the address', '?page=2');
  await page.click('#theirs');
  expect(await text('#shown')).toBe('Page 7, by foreign');
  await page.goBack();
  await expect.poll(() => text('#shown')).toBe('Page 2, by history');
});

it('On the server', async () => {
  const { server: own } = (await compiled(onServer)) as { server: Server };
  await new Promise<void>((resolve) => own.listen(0, '127.0.0.1', resolve));
  const at = `http://127.0.0.1:${String((own.address() as AddressInfo).port)}`;
  expect(await (await fetch(`${at}/plants?q=a%26b&page=2&x=1`)).text()).toBe(
    '<p>Page 2</p><a href="/plants?q=a%26b&amp;page=3&amp;x=1">Next</a>',
  );
  expect((await fetch(`${at}/houses`)).status).toBe(404);
  own.close();
});

it('Svelte', async () => {
  await open('Svelte', '?q=moss&x=1');
  expect(await text('p')).toBe('moss in any light');
  await page.fill('input', 'fern');
  await page.click('a');
  await waitFor('?q=fern&light=shade&x=1');
  expect(await text('p')).toBe('fern in shade');
  await page.goBack();
  expect([await page.inputValue('input'), await text('p')]).toEqual(['fern', 'fern in any light']);
});

it('Other UI libraries', async () => {
  const said: string[] = [];
  page.on('console', (message) => said.push(message.text()));
  await open('Other UI libraries', '?page=4');
  await page.evaluate(() => {
    history.replaceState(null, '', '?page=5');
  });
  await expect.poll(() => said).toEqual(['4', '4', '5', '5']);
});

it('every recipe has a test of its name', () => {
  const tested = [...readFileSync(new URL(import.meta.url), 'utf8').matchAll(/^it\('([^']+)', async/gm)].map(([, name]) => name);
  expect(tested).toEqual([...recipes.keys()]);
});

/** What the code of a recipe exports, run in Node. */
async function compiled(title: string): Promise<unknown> {
  const { outputText } = ts.transpileModule(recipes.get(title)?.code ?? '', {
    compilerOptions: { module: ts.ModuleKind.ESNext, target: ts.ScriptTarget.ES2023 },
  });
  const file = new URL(`./${title.replaceAll(' ', '-')}.tmp.mjs`, import.meta.url);
  const { writeFileSync, rmSync } = await import('node:fs');
  writeFileSync(file, outputText.replace(/^document\.querySelector.*$/m, ''));
  try {
    return await import(file.href);
  } finally {
    rmSync(file);
  }
}
