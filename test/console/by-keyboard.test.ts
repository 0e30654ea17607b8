import { afterAll, beforeAll, expect, it } from 'vitest';
import { openConsole, shownPage, untilSaved, type Builder } from '../support/console.ts';
import { startTestService, type TestService } from '../support/garden-service.ts';
import { Visitor } from '../support/visitor.ts';

let service: TestService;
let builder: Builder;
beforeAll(async () => {
  service = await startTestService();
  builder = await openConsole(service);
});
afterAll(async () => {
  await builder.browser.close();
  await service.stop();
});

/** Presses Tab until what has the focus has this name, as a builder without a pointer would. */
async function tabTo(name: RegExp | string, most = 90): Promise<void> {
  const { page } = builder;
  for (let tries = 0; tries < most; tries++) {
    await page.keyboard.press('Tab');
    const found = await page.evaluate(() => {
      const element = document.activeElement;
      if (element === null) return '';
      const label =
        element instanceof HTMLInputElement || element instanceof HTMLSelectElement ? (element.labels?.[0]?.innerText ?? '') : '';
      return (element.getAttribute('aria-label') ?? (label || (element as HTMLElement).innerText) ?? '').trim().replaceAll(/\s+/g, ' ');
    });
    if (typeof name === 'string' ? found === name : name.test(found)) return;
  }
  throw new Error(`No Tab leads to ${String(name)}.`);
}
/** Chooses in the command search. */
async function find(words: string): Promise<void> {
  const { page } = builder;
  await page.keyboard.press('Control+k');
  await page.getByRole('dialog', { name: 'Find' }).waitFor();
  await page.keyboard.type(words);
  await page.getByRole('dialog').getByRole('option').first().waitFor();
  await page.keyboard.press('Enter');
  await page.getByRole('dialog', { name: 'Find' }).waitFor({ state: 'detached' });
}

it('makes an app of two linked pages from nothing, without a pointer and without a file', async () => {
  const { page } = builder;
  await tabTo('New app');
  await page.keyboard.press('Enter');
  await tabTo(/^From nothing/);
  await page.keyboard.press('Enter');
  await page.getByLabel('Title of the app').waitFor();
  await tabTo('Title of the app');
  await page.keyboard.type('Seed swap');
  await page.keyboard.press('Enter');
  await shownPage(page).getByRole('heading', { name: 'Seed swap' }).waitFor();

  await find('screen data');
  await page.getByRole('button', { name: 'Add a collection' }).waitFor();
  await tabTo('Add a collection');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Seeds');
  await page.keyboard.press('Enter');
  await page.getByLabel('Label of a new field').waitFor();
  await tabTo('Label of a new field');
  await page.keyboard.type('Sown in');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^Sown in/ }).waitFor();
  await untilSaved(page);

  await tabTo(/^Make pages for it$/, 200);
  await page.keyboard.press('Enter');
  await page.getByRole('heading', { name: /^Page “Seeds”/ }).waitFor();
  await shownPage(page).getByText('0 found').waitFor();

  // The first page links to the list: a component, its words, its destination.
  await find('page home');
  await page.getByRole('heading', { name: 'Page “Home”' }).waitFor();
  await tabTo('Add a component');
  await page.keyboard.press('Enter');
  await page.getByRole('dialog', { name: 'Add a component' }).waitFor();
  await page.keyboard.type('leads to a page of the app');
  await page.keyboard.press('Enter');
  await page.getByRole('heading', { name: 'Link link' }).waitFor();
  // From the outline, Enter leads on to the properties.
  await page.waitForFunction(() => document.activeElement?.hasAttribute('data-at'));
  await page.keyboard.press('Enter');
  await page.waitForFunction(() => (document.activeElement as HTMLInputElement | null)?.labels?.[0]?.innerText === 'Text');
  await page.keyboard.press('Control+a');
  await page.keyboard.type('All seeds');
  await tabTo(/^Destination$/);
  await page.keyboard.type('Seeds');
  await shownPage(page).getByRole('link', { name: 'All seeds' }).waitFor();
  await untilSaved(page);
});

it('moves, undoes and adds parameters by keys, and puts the cursor into a new one’s name', async () => {
  const { page } = builder;
  const items = () => page.locator('[data-at]').allInnerTexts();
  const before = await items();
  await page.locator('[data-at]').last().focus();
  await page.keyboard.press('Alt+ArrowUp');
  await page.waitForFunction(() => document.activeElement?.getAttribute('data-at') === 'content/0');
  expect((await items())[0]).toContain('All seeds');
  await page.keyboard.press('Control+z');
  await expect.poll(items).toEqual(before);
  await page.locator('[data-at]').last().focus();
  await page.keyboard.press('Delete');
  await expect.poll(items).toEqual(before.slice(0, -1));
  await page.keyboard.press('Control+z');
  await expect.poll(items).toEqual(before);

  await tabTo('Add a parameter');
  await page.keyboard.press(' ');
  await page.waitForFunction(() => (document.activeElement as HTMLInputElement | null)?.value === 'new');
  await page.keyboard.press('Control+a');
  await page.keyboard.type('season');
  await page.keyboard.press('Enter');
  const piece = page.getByRole('button', { name: 'query parameter season' });
  await piece.waitFor();
  // Over the “?” into the path, and back.
  await piece.focus();
  await page.keyboard.press('Alt+ArrowLeft');
  await page.getByRole('button', { name: 'path parameter season' }).waitFor();
  await page.keyboard.press('Alt+ArrowRight');
  await piece.waitFor();
  await untilSaved(page);
});

it('publishes by keys, and the app is there', async () => {
  const { page } = builder;
  await find('publish what changed');
  await page.getByRole('heading', { name: 'Publish' }).waitFor();
  await tabTo('Publish', 120);
  while (!(await page.evaluate(() => document.activeElement?.tagName === 'BUTTON'))) await tabTo('Publish', 120);
  await page.keyboard.press('Enter');
  await page.getByText('Edition 1 is served.').waitFor();
  expect(await new Visitor(service.base).text('/seed-swap')).toContain('All seeds');
  expect(await new Visitor(service.base).text('/seed-swap/seeds')).toContain('0 found');
  await page.keyboard.press('?');
  await page.getByRole('dialog', { name: 'Keys' }).waitFor();
  await page.keyboard.press('Escape');
  await page.getByRole('dialog', { name: 'Keys' }).waitFor({ state: 'detached' });
  expect(builder.errors).toEqual([]);
});
