import type { Page } from 'playwright-core';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { axeProblems } from '../support/axe.ts';
import { goTo, openConsole, untilSaved, type Builder } from '../support/console.ts';
import { startGarden, type TestService } from '../support/garden-service.ts';
import { Visitor } from '../support/visitor.ts';

let service: TestService;
let builder: Builder;
let page: Page;
beforeAll(async () => {
  service = await startGarden();
  const { revision } = (await (await service.owner('GET', '/apps/quillmoor/draft')).json()) as { revision: number };
  await service.owner('PATCH', '/apps/quillmoor/draft', {
    revision,
    patch: [
      { op: 'replace', path: '/pages/specimen/parameters/tab/default', value: 'notes' },
      { op: 'replace', path: '/pages/specimens/parameters/sort/default', value: '-planted' },
    ],
  });
  builder = await openConsole(service);
  page = builder.page;
  await page.getByRole('link', { name: 'Quillmoor Glasshouses' }).click();
  await page.getByRole('link', { name: 'Publish' }).click();
});
afterAll(async () => {
  await builder.browser.close();
  await service.stop();
});

const finding = (words: string) => page.getByRole('listitem').filter({ hasText: words });
const publish = () => page.getByRole('button', { name: 'Publish' });

it('shows what earlier addresses would mean, and holds publishing until each is repaired or intended', async () => {
  await finding('without “tab” meant “overview” and now means “notes”').waitFor();
  await finding('without “sort” meant').waitFor();
  expect(await publish().isDisabled()).toBe(true);
  expect(await axeProblems(page)).toEqual([]);

  await page.getByRole('link', { name: /^Publish\s2$/ }).waitFor();
  await finding('without “tab”').getByRole('button', { name: 'Compare both pages' }).click();
  const side = (title: string) => page.frameLocator(`iframe[title="${title}"]`).locator('[aria-current]');
  await side('As published').getByText('Overview').waitFor();
  await side('In the draft').getByText('Field notes').waitFor();
  await page.getByRole('button', { name: 'Close' }).click();

  await finding('without “tab”').getByRole('button', { name: 'Repair' }).click();
  await page.getByRole('link', { name: /^Publish\s1$/ }).waitFor();
  await finding('without “tab”').waitFor({ state: 'detached' });
  await untilSaved(page);
  expect(await publish().isDisabled()).toBe(true);
  await finding('without “sort”').getByLabel('I intend this change').check();
  await finding('without “sort”').getByLabel('Why').fill('The newest plants come first');
  await publish().click();
  await page.getByText('Edition 2 is served.').waitFor();
  await page.getByText('Every address of earlier editions means the same after publishing.').waitFor();
});

it('keeps old addresses, writes new links, and remembers who intended what', async () => {
  const visitor = new Visitor(service.base);
  expect(await visitor.text('/garden/specimens/QM-0412')).toMatch(/aria-current="[a-z]+"[^>]*>\s*Overview/);
  expect(await visitor.text('/garden/specimens')).toMatch(/href="\/garden\/specimens\/QM-\d{4}\?tab=notes"/);
  await page.getByText('The newest plants come first').waitFor();
});

it('tries an old link in each edition, and notes what is printed', async () => {
  await goTo(page, 'Links');
  await page.getByLabel('Address', { exact: true }).fill('/garden/specimens/QM-0412');
  await page.getByRole('button', { name: 'Try it' }).click();
  const told = page.getByRole('region', { name: 'How each edition reads it' });
  await told.getByText('Today it opens the page specimen').waitFor();
  await told.getByRole('row', { name: /Edition 1 specimen specimen=QM-0412, tab=overview/ }).waitFor();
  expect(page.url()).toContain('/links?address=%2Fgarden%2Fspecimens%2FQM-0412');

  await page.getByLabel('Printed address', { exact: true }).fill('/garden/houses/palm');
  await page.getByLabel('Printed on').fill('The board at the gate');
  await page.getByRole('button', { name: 'Note it' }).click();
  await page.getByRole('cell', { name: 'The board at the gate' }).waitFor();
  await page.getByRole('cell', { name: 'The newest plants come first' }).waitFor();
  expect(await axeProblems(page)).toEqual([]);
});

it('compares two editions', async () => {
  await finding('without “sort” meant').waitFor();
  await page.getByLabel('Addresses of edition').selectOption('2');
  await page.getByText('Every address means the same, and looks the same.').waitFor();
  expect(page.url()).toContain('from=2');
});

it('makes an address that visitors keep trying lead to the page that was meant', async () => {
  const follow = () => fetch(`${service.base}/garden/hoses/palm`, { redirect: 'manual' });
  for (let times = 0; times < 5; times++) await follow();
  await page.reload();
  await page.getByRole('heading', { name: 'Printed addresses' }).waitFor();
  expect(await page.getByRole('heading', { name: 'Addresses that do not work' }).count()).toBe(0);
  service.clock.forward(86_400_000);
  await follow();
  await page.reload();
  await page.getByRole('row', { name: '/garden/hoses/palm 6 on 2 days' }).waitFor();
  expect(await axeProblems(page)).toEqual([]);
  await page.getByRole('button', { name: 'Make it a former address: /garden/hoses/palm leads to house' }).click();
  await page.getByRole('row', { name: '/garden/hoses/palm' }).getByText('in the draft').waitFor();
  await untilSaved(page);
  await page.getByRole('link', { name: 'Publish' }).click();
  await publish().click();
  await page.getByText('Edition 3 is served.').waitFor();
  const answer = await follow();
  expect([answer.status, answer.headers.get('location')]).toEqual([301, '/garden/houses/palm']);
});
