import type { Browser, BrowserContext, Page } from 'playwright-core';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { axeProblems } from '../support/axe.ts';
import { launchChromium, watchErrors } from '../support/chromium.ts';
import { startGarden, type TestService } from '../support/garden-service.ts';
import { Visitor } from '../support/visitor.ts';

let service: TestService;
let browser: Browser;
let context: BrowserContext;
let page: Page;
let errors: string[];
beforeAll(async () => {
  [service, browser] = await Promise.all([startGarden(), launchChromium()]);
  context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  page = await context.newPage();
  errors = watchErrors(page);
});
afterAll(async () => {
  await browser.close();
  await service.stop();
});

const frame = () => page.frameLocator('iframe');
const reading = () => page.getByRole('region', { name: 'How the address is read' });

it('opens the console by the one-time link, which leaves no trace in the address', async () => {
  await page.goto(service.consoleLink);
  await page.getByRole('link', { name: 'Quillmoor Glasshouses' }).waitFor();
  expect(page.url()).toBe(`${service.base}/~/console/`);
  expect(await axeProblems(page)).toEqual([]);
  const stranger = await (await browser.newContext()).newPage();
  await stranger.goto(service.consoleLink);
  expect(await stranger.locator('main').innerText()).toContain('This link has been used');
  await stranger.context().close();
});

it('sees the app’s pages, and the draft follows the address and the other way round', async () => {
  await page.getByRole('link', { name: 'Quillmoor Glasshouses' }).click();
  await page
    .getByRole('navigation', { name: 'Pages' })
    .getByRole('link', { name: /^specimen\s?\/specimens\/specimen/ })
    .click();
  await frame().getByRole('heading', { name: 'Needle foxtail' }).waitFor();
  expect(await page.getByRole('textbox', { name: 'Address', exact: true }).inputValue()).toBe('/garden/specimens/QM-0412');
  await frame().getByRole('link', { name: 'Care log' }).click();
  await page.waitForFunction(() => document.querySelector<HTMLInputElement>('#address')?.value === '/garden/specimens/QM-0412?tab=care');
  await page.getByRole('textbox', { name: 'Address', exact: true }).fill('/garden/specimens/QM-0412?tab=Nots&x=1');
  expect(await reading().innerText()).toContain('“Tab” cannot be “Nots”');
  await page.keyboard.press('Enter');
  await frame().getByText('“Tab” cannot be “Nots”').waitFor();
  await page.getByRole('textbox', { name: 'Address', exact: true }).fill('/garden/houses/palm');
  await page.getByRole('button', { name: 'Go' }).click();
  await frame().getByRole('heading', { name: 'Palm House', exact: true }).waitFor();
  await page.getByRole('heading', { name: 'Parameters of house' }).waitFor();
});

it('changes a parameter, is shown what is wrong, saves, publishes, and sees it', async () => {
  await page
    .getByRole('navigation', { name: 'Pages' })
    .getByRole('link', { name: /^specimen\s?\/specimens\/specimen/ })
    .click();
  await page.locator('summary', { hasText: 'tab' }).click();
  await page.getByLabel('Default').fill('cover');
  await page.getByLabel('Default').press('Tab');
  await page.getByText('The default "cover" is not a choice that the parameter accepts.').first().waitFor();
  await page.getByRole('button', { name: 'Publish (1 error)' }).click();
  await page.getByText('was not published').waitFor();
  expect(await axeProblems(page)).toEqual([]);

  await page.getByLabel('Default').fill('notes');
  await page.getByLabel('Name').fill('view');
  await page.getByLabel('Name').press('Tab');
  await page.locator('summary', { hasText: 'view' }).waitFor();
  await page.getByRole('button', { name: 'Save draft' }).click();
  await page.getByText(/Saved as draft/).waitFor();
  await frame()
    .getByRole('table', { name: /Field notes/ })
    .waitFor();
  expect(await (await fetch(`${service.base}/garden/specimens/QM-0412`)).text()).toContain('Accession number');
  await page.getByRole('button', { name: 'Publish' }).click();
  await page.getByText('Edition 2 is served at /garden.').waitFor();
  expect(await (await fetch(`${service.base}/garden/specimens/QM-0412`)).text()).toContain('Field notes on Needle foxtail');
  expect(await (await fetch(`${service.base}/garden/specimens/QM-0412?view=care`)).text()).toContain('Care log of Needle foxtail');
  expect(await (await fetch(`${service.base}/garden`)).text()).toContain('?view=care');
});

it('loses nothing when another builder changed the draft meanwhile', async () => {
  const { source } = (await (await service.owner('GET', '/apps/quillmoor/draft')).json()) as { source: string };
  await page.getByLabel('Label').fill('Which view');
  await page.getByLabel('Label').press('Tab');
  await service.owner('PUT', '/apps/quillmoor/draft', { source: source.replace('title: Glasshouses\n', 'title: The glasshouses\n') });
  await page.getByRole('button', { name: 'Save draft' }).click();
  await page.getByText('The draft has changed meanwhile.').waitFor();
  expect(await page.getByLabel('Label').inputValue()).toBe('Which view');
  await page.getByRole('button', { name: 'Take the other draft' }).click();
  await page.getByText('The draft has changed meanwhile.').waitFor({ state: 'detached' });
  expect(await page.getByLabel('Label').inputValue()).toBe('Tab');
});

it('finds the same place again after a reload, and reports no error', async () => {
  const before = page.url();
  await page.reload();
  await page.locator('details[open] summary', { hasText: 'view' }).waitFor();
  expect(page.url()).toBe(before);
  expect(errors).toEqual([]);
});

it('shows the outbox, and who came by what', async () => {
  const member = { '~form': 'join', name: 'Odo', mail: 'odo@moor.example', kind: 'friend' };
  const adopt = { '~form': 'adopt', name: 'Odo', mail: 'odo@moor.example' };
  const visitor = new Visitor(service.base);
  await visitor.text('/garden/membership?via=leaflet-26');
  expect((await visitor.send('/garden/membership', member)).status).toBe(303);
  await visitor.send('/garden/specimens/QM-0412?adopt=true', adopt);
  await new Visitor(service.base).text('/garden?via=leaflet-26');

  await page.goto(`${service.base}/~/console/`);
  await page.getByRole('link', { name: 'Outbox' }).click();
  await page.getByRole('link', { name: 'Needle foxtail is yours to look after' }).click();
  const mail = page.getByRole('article', { name: 'Needle foxtail is yours to look after' });
  expect(await mail.innerText()).toContain(`${service.base}/garden/specimens/QM-0412?`);
  expect(page.url()).toBe(`${service.base}/~/console/outbox/mails?mail=1`);
  await page.reload();
  await mail.waitFor();
  expect(await axeProblems(page)).toEqual([]);

  await page.getByRole('link', { name: 'Apps', exact: true }).click();
  await page.getByRole('link', { name: 'Visits' }).click();
  expect(await page.getByRole('row', { name: /via=leaflet-26/ }).innerText()).toMatch(/\b2\b[^]*\b2\b[^]*\b1\b/);
  expect(await axeProblems(page)).toEqual([]);
  expect(errors).toEqual([]);
});
