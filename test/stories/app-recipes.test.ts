import { readFileSync } from 'node:fs';
import type { Browser, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { checkAppFile } from '../../packages/app/src/index.ts';
import { launchChromium, untilHydrated, watchErrors } from '../support/chromium.ts';
import { startTestService, type TestService } from '../support/garden-service.ts';
import { publishApp } from '../support/little-app.ts';

const guide = readFileSync(new URL('../../docs/app-recipes.md', import.meta.url), 'utf8');
const recipes = guide
  .split(/^## /m)
  .slice(1)
  .map((section) => ({
    title: section.split('\n', 1)[0] ?? '',
    source: /```yaml\n([^]*?)```/.exec(section)?.[1] ?? '',
    addresses: [...(/^Try: (.*)$/m.exec(section)?.[1] ?? '').matchAll(/`([^`]+)`/g)].map(([, address = '']) => address),
  }));

let browser: Browser;
let service: TestService;
/** One with JavaScript, one without. */
const visitors: { page: Page; errors: string[]; javaScriptEnabled: boolean }[] = [];
beforeAll(async () => {
  [service, browser] = await Promise.all([startTestService(), launchChromium()]);
  for (const javaScriptEnabled of [true, false]) {
    const page = await (await browser.newContext({ javaScriptEnabled })).newPage();
    visitors.push({ page, errors: watchErrors(page), javaScriptEnabled });
  }
});
afterAll(async () => {
  await browser.close();
  await service.stop();
});

/** What a visitor sees first, and the one written form of the address. */
const seen = async (page: Page) => ({
  heading: await page.locator('h1').first().innerText(),
  address: await page
    .locator('link[rel=canonical]')
    .getAttribute('href')
    .catch(() => null),
});

describe.each(recipes)('$title', ({ source, addresses }) => {
  beforeAll(async () => {
    await publishApp(service, 'recipe', source);
    if (!source.includes('  seeds:')) return;
    for (const [code, name] of [
      ['S-1', 'Runner bean'],
      ['S-2', 'Marigold'],
    ])
      await service.owner('POST', '/apps/recipe/records/seeds', { code, name });
  });

  it('passes the check without a warning, and reads the same with and without JavaScript', async () => {
    expect(checkAppFile(source).problems).toEqual([]);
    expect(addresses.length).toBeGreaterThan(0);
    for (const address of addresses) {
      const found = [];
      for (const { page, errors, javaScriptEnabled } of visitors) {
        // Each address is the first of a visit.
        await page.context().clearCookies();
        const response = await page.goto(service.base + address);
        expect([address, response?.status()]).toEqual([address, 200]);
        if (javaScriptEnabled) await untilHydrated(page);
        found.push(await seen(page));
        expect(errors).toEqual([]);
      }
      expect(found[1]).toEqual(found[0]);
    }
  });
});
