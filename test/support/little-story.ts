import type { Browser, BrowserContext, Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, expect } from 'vitest';
import { launchChromium, untilHydrated, watchErrors } from './chromium.ts';
import { startTestService, type TestService } from './garden-service.ts';
import { publishApp } from './little-app.ts';

/** A little app in a service of its own, and a visitor in Chromium whose pages report no errors. For the whole test file. */
export function littleStory(source: string) {
  let service: TestService;
  let browser: Browser;
  let context: BrowserContext;
  let page: Page;
  let errors: string[];
  beforeAll(async () => {
    [service, browser] = await Promise.all([startTestService(), launchChromium()]);
    await publishApp(service, 'little', source);
  });
  afterAll(async () => {
    await browser.close();
    await service.stop();
  });
  afterEach(async () => {
    expect(errors).toEqual([]);
    await context.close();
  });
  /** Path, query and fragment of the page, decoded. */
  const at = () => decodeURIComponent(page.url().slice(service.base.length));
  return {
    service: () => service,
    at,
    /** Waits until the page is at a path and loaded, since Chromium takes no command while it changes documents. */
    async until(wanted: string): Promise<void> {
      await expect.poll(at).toBe(wanted);
      await page.waitForLoadState();
    },
    /** Opens a path in a new browser context. */
    async open(path: string, javaScriptEnabled = true): Promise<Page> {
      context = await browser.newContext({ viewport: { width: 1280, height: 800 }, javaScriptEnabled });
      page = await context.newPage();
      errors = watchErrors(page);
      await page.goto(service.base + path);
      if (javaScriptEnabled) await untilHydrated(page);
      return page;
    },
  };
}
