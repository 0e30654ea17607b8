import { afterAll, beforeAll, expect, it } from 'vitest';
import { goTo, goToPage, openConsole, shownPage, untilSaved, type Builder } from '../support/console.ts';
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

const kinds = ['Spade', 'Rake', 'Hoe', 'Shears', 'Sieve'];
const places = ['Shed', 'Barn', 'House'];
const lines = Array.from({ length: 60 }, (_, index) =>
  [
    `T-${String(100 + index)}`,
    `${kinds[index % 5] ?? ''} ${String(index + 1)}`,
    places[index % 3] ?? '',
    String(index * 1.5),
    '2024-03-01',
  ].join(','),
);
// Line 12 has a weight that is none.
const csv = [
  'Tool no,Name,Where kept,Weight (kg),Bought',
  ...lines.map((line, index) => (index === 10 ? line.replace(/,15,/, ',heavy,') : line)),
].join('\n');

it('makes a list that can be searched and shared of a file, and says which row does not fit', async () => {
  const { page } = builder;
  await page.getByRole('link', { name: 'New app' }).first().click();
  await page.getByRole('link', { name: /From a file of data/ }).click();
  await page.setInputFiles('input[type=file]', { name: 'garden_tools.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  await page.getByText('60 rows, 5 fields.').waitFor();
  expect(await page.getByLabel('Type of Weight (kg)').inputValue()).toBe('number');
  expect(await page.getByLabel('Type of Where kept').inputValue()).toBe('choice');
  expect(await page.getByRole('radio', { name: 'Tool no', exact: true }).isChecked()).toBe(true);
  const bad = page.getByRole('region', { name: 'Rows that do not fit' });
  expect(await bad.innerText()).toMatch(/Line 12[^]*It is not a number/);
  await bad.getByLabel('Weight (kg)').fill('15');
  await bad.getByLabel('Weight (kg)').press('Tab');
  await page.getByText('All rows fit.').waitFor();
  await page.getByRole('button', { name: 'Make the app' }).click();
  await page.getByRole('heading', { name: 'Garden tools', level: 1 }).waitFor();
  await shownPage(page).getByText('60 found').waitFor();
  await page.getByText('no problems').waitFor();
});

it('shapes the record page: a tab, and a gate that asks for sign-in', async () => {
  const { page } = builder;
  await goToPage(page, 'garden-tool');
  // The first row is the sample by which the page is seen at once.
  await shownPage(page).getByRole('heading', { name: 'Spade 1' }).waitFor();
  await page.getByRole('button', { name: 'path parameter gardenTool' }).click();
  await page.getByLabel('Sample').fill('T-104');
  await page.getByLabel('Sample').press('Tab');
  await shownPage(page).getByRole('heading', { name: 'Sieve 5' }).waitFor();

  // Tabs, bound to a parameter and a choices list that are declared on the way.
  await page.getByRole('button', { name: 'Add a component', exact: true }).click();
  await page.getByRole('button', { name: /^Tabs/ }).click();
  await page.getByRole('heading', { name: 'Tabs tabs' }).waitFor();
  await page.getByRole('button', { name: 'Declare one' }).click();
  await page.getByRole('button', { name: /^Go to / }).waitFor();
  await untilSaved(page);

  await goTo(page, 'People');
  await page.getByRole('button', { name: 'Add sign-in, with its page' }).click();
  await page.getByLabel('Login name').fill('odo');
  await page.getByLabel('Name', { exact: true }).fill('Odo Marl');
  await page.getByLabel('Password', { exact: true }).fill('compost-and-quill');
  await page.getByRole('button', { name: 'Save' }).click();
  await page.getByText('Odo Marl can sign in as odo.').waitFor();
  await goTo(page, 'Pages');
  await goToPage(page, 'change-garden-tool');
  await page.getByLabel('Who can open it').selectOption('signed-in');
  await untilSaved(page);
});

it('publishes, and visitors find, filter, open and share', async () => {
  const { page } = builder;
  await page.getByRole('link', { name: 'Publish' }).click();
  await page
    .getByText(/is the address of/)
    .first()
    .waitFor();
  await page.getByRole('button', { name: 'Publish' }).click();
  await page.getByText('Edition 1 is served.').waitFor();
  const visitor = new Visitor(service.base);
  expect(await visitor.text('/garden-tools?q=rake&whereKept=barn')).toContain('Rake 2');
  expect(await visitor.text('/garden-tools?q=rake&whereKept=barn')).not.toContain('Rake 7');
  const record = await visitor.text('/garden-tools/garden-tools/T-104?part=second');
  expect(record).toContain('Sieve 5');
  const changed = await visitor.get('/garden-tools/garden-tools/T-104/change');
  expect(changed.headers.get('location')).toContain('/garden-tools/sign-in?');
  expect(builder.errors).toEqual([]);
});
