import { readFileSync } from 'node:fs';
import { chromium, type Browser, type LaunchOptions, type Page } from 'playwright-core';

const options = JSON.parse(readFileSync(new URL('../../scripts/chromium.json', import.meta.url), 'utf8')) as LaunchOptions;

/** Debian's Chromium, headless, which asks nothing of the network. */
export function launchChromium(): Promise<Browser> {
  const executablePath = process.env['PALLMIST_CHROMIUM'];
  return chromium.launch({ ...options, ...(executablePath === undefined ? {} : { executablePath }) });
}

/** Fails the test when the page reports an error or its policy stops something. */
export function watchErrors(page: Page): string[] {
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(error.message));
  page.on('console', (message) => {
    if (message.type() === 'error' && !message.text().includes('status of 4')) errors.push(message.text());
  });
  return errors;
}

/** Waits until the browser has taken the page over. */
export async function untilHydrated(page: Page): Promise<void> {
  await page.waitForFunction(() => document.documentElement.dataset['hydrated'] === 'true');
}
