import { readFileSync } from 'node:fs';
import { chromium, type Browser, type LaunchOptions, type Page } from 'playwright-core';

const options = JSON.parse(readFileSync(new URL('../../scripts/chromium.json', import.meta.url), 'utf8')) as LaunchOptions;

/** Debian's Chromium, headless, which asks nothing of the network. */
export async function launchChromium(): Promise<Browser> {
  const executablePath = process.env['PALLMIST_CHROMIUM'];
  return patiently(await chromium.launch({ ...options, ...(executablePath === undefined ? {} : { executablePath }) }));
}

/** Milliseconds that a test waits for what has to happen: a machine that is shared can be ten times slower than a quiet one. */
const patience = 240_000;

/** Lets everything that a browser is asked for take the time that it takes. */
export function patiently(browser: Browser): Browser {
  browser.on('context', (context) => {
    context.setDefaultTimeout(patience);
  });
  return browser;
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

/** Waits until the browser has taken the page over; where it does not, the error says what was there instead. */
export async function untilHydrated(page: Page): Promise<void> {
  try {
    await page.waitForFunction(() => document.documentElement.dataset['hydrated'] === 'true', undefined, { timeout: 120_000 });
  } catch (error) {
    const found = await page.evaluate(() => ({
      address: location.href,
      title: document.title,
      text: document.body.innerText.slice(0, 300),
      files: performance.getEntriesByType('resource').map((entry) => {
        const { name, responseStatus, duration } = entry as PerformanceResourceTiming;
        return `${String(responseStatus)} ${String(Math.round(duration))} ms ${name}`;
      }),
    }));
    throw new Error(`The page was not hydrated: ${JSON.stringify(found, undefined, 2)}`, { cause: error });
  }
}
