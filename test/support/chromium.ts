import { chromium, type Browser, type Page } from 'playwright-core';

/** Debian's Chromium, headless, which asks nothing of the network. */
export function launchChromium(): Promise<Browser> {
  return chromium.launch({
    executablePath: process.env['PALLMIST_CHROMIUM'] ?? '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  });
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
export async function untilTaken(page: Page): Promise<void> {
  await page.waitForFunction(() => document.documentElement.dataset['taken'] === 'true');
}
