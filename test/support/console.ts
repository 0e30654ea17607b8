import type { Browser, BrowserContext, Page } from 'playwright-core';
import { launchChromium, watchErrors } from './chromium.ts';
import { startGarden, type TestService } from './garden-service.ts';

/** A builder at the console of a service. */
export interface Builder {
  browser: Browser;
  context: BrowserContext;
  page: Page;
  errors: string[];
}

/** Opens the console by the owner’s one-time link. */
export async function openConsole(service: TestService, options: Parameters<Browser['newContext']>[0] = {}): Promise<Builder> {
  const browser = await launchChromium();
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, ...options });
  const page = await context.newPage();
  const errors = watchErrors(page);
  if (process.env['FAST']) page.setDefaultTimeout(6000);
  await page.goto(service.consoleLink);
  await page.getByRole('heading', { name: 'Apps' }).waitFor();
  return { browser, context, page, errors };
}

/** The garden with the console opened beside it. */
export async function openGarden(): Promise<Builder & { service: TestService; stop: () => Promise<void> }> {
  const service = await startGarden();
  const builder = await openConsole(service);
  const stop = async () => {
    await builder.browser.close();
    await service.stop();
  };
  return { ...builder, service, stop };
}

/** Waits until everything is on the service’s disk. */
export const untilSaved = (page: Page) => page.getByRole('status').getByText('saved', { exact: true }).waitFor();

/** The draft’s page in its frame. */
export const shownPage = (page: Page) => page.frameLocator('iframe');

/** Opens a page of the app by its name. */
export const goToPage = (page: Page, name: string) =>
  page
    .getByRole('navigation', { name: 'Pages' })
    .getByRole('link')
    .filter({ has: page.locator('code', { hasText: new RegExp(`^${name}$`) }) })
    .click();

/** Opens another screen of the app. */
export const goTo = (page: Page, screen: string) =>
  page.getByRole('navigation', { name: 'Parts of the app' }).getByRole('link', { name: screen, exact: true }).click();
