import type { Page, Route } from 'playwright-core';
import { parse } from 'yaml';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { axeProblems, rulesOfTheLook } from '../support/axe.ts';
import { goTo, goToPage, openGarden, shownPage, untilSaved } from '../support/console.ts';
import { gardenFile, type TestService } from '../support/garden-service.ts';
import { Visitor } from '../support/visitor.ts';

let garden: Awaited<ReturnType<typeof openGarden>>;
let service: TestService;
let page: Page;
beforeAll(async () => {
  garden = await openGarden();
  ({ service, page } = garden);
});
afterAll(() => garden.stop());

const draftSource = async () => ((await (await service.owner('GET', '/apps/quillmoor/draft')).json()) as { source: string }).source;
const address = () => page.getByRole('textbox', { name: 'Address', exact: true }).first();

it('opens by the one-time link, which leaves no trace in the address', async () => {
  expect(page.url()).toBe(`${service.base}/~/console/`);
  expect(await axeProblems(page)).toEqual([]);
  const stranger = await (await garden.browser.newContext()).newPage();
  await stranger.goto(service.consoleLink);
  await stranger.getByText('This link has been used').waitFor();
  await stranger.getByRole('heading', { name: 'Sign in to the console' }).waitFor();
  await stranger.context().close();
});

it('shows the draft beside its address: each follows the other', async () => {
  await page.getByRole('link', { name: 'Quillmoor Glasshouses' }).click();
  await goToPage(page, 'specimen');
  await shownPage(page).getByRole('heading', { name: 'Needle foxtail' }).waitFor();
  expect(await address().inputValue()).toBe('/garden/specimens/QM-0412');
  await page.getByRole('button', { name: 'Click selects' }).click();
  await shownPage(page).getByRole('link', { name: 'Care log' }).click();
  await expect.poll(() => address().inputValue()).toBe('/garden/specimens/QM-0412?tab=care');
  await address().fill('/garden/specimens/QM-0412?tab=Nots&x=1');
  await page.getByRole('button', { name: 'Read as' }).click();
  expect(await page.getByRole('region', { name: 'How the address is read' }).innerText()).toContain('“Tab” cannot be “Nots”');
  await page.getByRole('button', { name: 'Go', exact: true }).click();
  await shownPage(page).getByText('“Tab” cannot be “Nots”').waitFor();
  await address().fill('/garden/houses/palm');
  await page.getByRole('button', { name: 'Go', exact: true }).click();
  await shownPage(page).getByRole('heading', { name: 'Palm House', exact: true }).waitFor();
  await page.getByRole('heading', { name: 'Page “house”' }).waitFor();
  await page.getByRole('button', { name: 'Back', exact: true }).click();
  await page.getByRole('heading', { name: 'Page “specimen”' }).waitFor();
  await expect.poll(() => address().inputValue()).toContain('/garden/specimens/QM-0412');
  await page.getByRole('button', { name: 'Forward', exact: true }).click();
  await page.getByRole('heading', { name: 'Page “house”' }).waitFor();
});

it('selects in the page and in the outline alike, and draws a change at once with what was open', async () => {
  await goToPage(page, 'specimen');
  await page.getByRole('button', { name: 'Click selects' }).click();
  await shownPage(page)
    .getByRole('tablist')
    .or(shownPage(page).getByRole('navigation', { name: /Parts of/ }))
    .first()
    .waitFor();
  await shownPage(page).getByText('Accession number').click();
  await page.getByRole('heading', { name: 'Details details' }).waitFor();
  expect(await page.locator('[data-at][aria-current]').innerText()).toContain('details');
  await page.locator('[data-at]', { hasText: /^heading/ }).click();
  await page.getByLabel('Text', { exact: true }).fill('{record.specimen.name} of {record.specimen.house.name}');
  await shownPage(page).getByRole('heading', { name: 'Needle foxtail of Thorn House' }).waitFor();
  await untilSaved(page);
  await page.keyboard.press('Control+z');
  await shownPage(page).getByRole('heading', { name: 'Needle foxtail', exact: true }).waitFor();
});

it('says in words whom a condition hides something from, as rows and as an expression that is completed', async () => {
  await page.locator('[data-at]', { hasText: /^heading/ }).click();
  await page.getByRole('button', { name: 'Add a condition' }).click();
  await page.getByText(/^Visitors see it only if/).waitFor();
  await page.getByRole('button', { name: 'As an expression' }).click();
  const box = page.getByRole('combobox', { name: 'CEL expression' });
  await box.press('Control+a');
  await page.keyboard.type('"keeper" in person.ro');
  await page.getByRole('option', { name: /person\.roles/ }).waitFor();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await page.getByText('is signed in and has the role “keeper”. Pallmist does not send it to anyone else.').waitFor();
  await shownPage(page).getByRole('heading', { name: 'Needle foxtail', exact: true }).waitFor({ state: 'detached' });
  // One step or two, by how quickly they came.
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Find' }).focus();
  await page.keyboard.press('Control+z');
  await shownPage(page).getByRole('heading', { name: 'Needle foxtail', exact: true }).waitFor();
  await page.getByRole('button', { name: 'As rows' }).click();
});

it('makes a block of a component, changes it where it stands once, and takes it apart', async () => {
  const outlined = (text: RegExp) => page.locator('[data-at]', { hasText: text }).first();
  await outlined(/^details/).click();
  await page.getByRole('button', { name: 'Make a block of it' }).click();
  await page.getByRole('heading', { name: 'Block block' }).waitFor();
  await untilSaved(page);
  await shownPage(page).getByText('Accession number').waitFor();
  // What the block brings selects the block.
  await outlined(/^heading/).click();
  await shownPage(page).getByText('Accession number').click();
  await page.getByRole('heading', { name: 'Block block' }).waitFor();
  expect(await axeProblems(page)).toEqual([]);
  // The outline shows what stands in the block, and the properties of that say where a change shows.
  await outlined(/^details/).click();
  await page.getByRole('heading', { name: 'Details details' }).waitFor();
  await page.getByText(/^It is part of the block “\w+”\. A change shows on the page\s+specimen\.$/).waitFor();
  await outlined(/^block/).click();
  await page.getByRole('button', { name: 'Take apart' }).click();
  await untilSaved(page);
  await outlined(/^details/).waitFor();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await untilSaved(page);
  expect(parse(await draftSource())).toEqual(parse(gardenFile));
});

it('edits a list: one condition of several, reversed, through a reference, and a figure of it', async () => {
  await page.goto(`${service.base}/~/console/quillmoor?page=zone&rows=inside`);
  const any = page.getByRole('group', { name: /^And at least one of this/ });
  await any.getByRole('button', { name: 'Add a condition' }).click();
  await any.getByLabel('Field').selectOption('house.name');
  await any.getByLabel('Test').selectOption('contains');
  await any.getByLabel('Value', { exact: true }).fill('Thorn');
  await any.getByLabel('Reverse this condition').check();
  const figures = page.getByRole('group', { name: /^Figures of the whole list/ });
  await figures.getByRole('button', { name: 'Add a figure' }).click();
  await figures.getByLabel('Figure', { exact: true }).selectOption('largest');
  await figures.getByLabel('Of the field').selectOption('height');
  await figures.getByLabel('Name').fill('tallest');
  await figures.getByLabel('Name').press('Enter');
  await untilSaved(page);
  expect(await axeProblems(page)).toEqual([]);
  const rows = (parse(await draftSource()) as { pages: { zone: { rows: object } } }).pages.zone.rows;
  expect(rows).toMatchObject({
    inside: { whereAny: [{ field: 'house.name', contains: 'Thorn', not: true }], figures: { tallest: { largest: 'height' } } },
  });
  await any.getByRole('button', { name: 'Remove' }).click();
  await page.getByRole('button', { name: 'Remove tallest' }).click();
  await untilSaved(page);
  expect(parse(await draftSource())).toEqual(parse(gardenFile));
  await goToPage(page, 'specimen');
});

it('renames a parameter with its old addresses, finds a wrong default, publishes and brings an edition back', async () => {
  await page.getByRole('button', { name: 'query parameter tab' }).click();
  await page.getByLabel('Name', { exact: true }).fill('view');
  await page.getByLabel('Name', { exact: true }).press('Enter');
  await page.getByRole('heading', { name: 'Query parameter “view”' }).waitFor();
  await page.getByLabel('Default').selectOption('notes');
  await untilSaved(page);
  expect(await draftSource()).toContain('# Quillmoor Glasshouses: an invented botanic garden');
  expect(Object.keys(parse(await draftSource()) as object)).toEqual(Object.keys(parse(gardenFile) as object));

  await page.getByRole('link', { name: 'Publish' }).click();
  await page.getByText('“tab” of “specimen” is named “view”; the old name still works.').waitFor();
  await page.getByRole('listitem').filter({ hasText: 'now means “notes”' }).getByLabel('I intend this change').check();
  await page.getByLabel('Note').fill('Notes first');
  await page.getByRole('button', { name: 'Publish' }).click();
  await page.getByText('Edition 2 is served.').waitFor();
  const visitor = new Visitor(service.base);
  expect(await visitor.text('/garden/specimens/QM-0412')).toContain('Field notes on Needle foxtail');
  expect(await visitor.text('/garden/specimens/QM-0412?tab=care')).toContain('Care log of Needle foxtail');
  expect(await visitor.text('/garden')).toContain('?view=care');

  await page.getByRole('link', { name: 'Edition 1', exact: true }).click();
  await page.getByRole('heading', { name: 'Since edition 1, the draft' }).waitFor();
  await page.getByRole('button', { name: 'Bring this edition back into the draft' }).click();
  await page.getByText('The draft is the same as this edition.').waitFor();
  await untilSaved(page);
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByText(/is named “view”/).waitFor();
  await goTo(page, 'Log');
  await page.getByText('Brought back edition 1').first().waitFor();
  await page.getByText('Published edition 2: Notes first').waitFor();
});

it('lets two builders change different places at once, and asks about the same place', async () => {
  const { revision } = (await (await service.owner('GET', '/apps/quillmoor/draft')).json()) as { revision: number };
  await goTo(page, 'Settings');
  await page.getByLabel('Title', { exact: true }).waitFor();
  const change = (path: string, value: string, seen: number) =>
    service.owner('POST', '/apps/quillmoor/draft/changes', {
      revision: seen,
      patch: [{ op: 'replace', path, value }],
      what: `Changed ${path}`,
    });
  await change('/pages/notes/title', 'All field notes', revision);
  await page.getByText('The owner: Changed /pages/notes/title').waitFor();
  await goTo(page, 'Pages');
  await goToPage(page, 'notes');
  expect(await page.getByLabel('Title', { exact: true }).inputValue()).toBe('All field notes');

  // Held up on its way while another builder is quicker at the same place.
  const quicker = async (route: Route) => {
    const now = (await (await service.owner('GET', '/apps/quillmoor/draft')).json()) as { revision: number };
    await change('/pages/notes/title', 'Theirs', now.revision);
    await route.continue();
  };
  await page.route('**/draft/changes', quicker, { times: 1 });
  await page.getByLabel('Title', { exact: true }).fill('Mine');
  const dialog = page.getByRole('dialog', { name: 'The same place was changed twice' });
  await dialog.waitFor();
  expect(await dialog.innerText()).toContain('Changed /pages/notes/title');
  await dialog.getByRole('button', { name: 'Put mine on top' }).click();
  await untilSaved(page);
  await expect.poll(draftSource).toMatch(/notes:\n\s+title: Mine/);
});

it('keeps what is typed over a lost connection and a reload', async () => {
  await page.route('**/draft/changes', (route) => route.abort());
  await page.getByLabel('Title', { exact: true }).fill('Typed while offline');
  await page.getByText(/not connected, 1 change waits here/).waitFor();
  page.once('dialog', (dialog) => void dialog.accept());
  await page.unroute('**/draft/changes');
  await page.reload();
  await expect.poll(() => page.getByLabel('Title', { exact: true }).inputValue()).toBe('Typed while offline');
  await untilSaved(page);
  await expect.poll(draftSource).toContain('Typed while offline');
});

it('shows the page as another person, in other colours, without JavaScript, and with wrong values', async () => {
  await goToPage(page, 'workspace');
  await page.getByText('This address leads on to /garden/sign-in').waitFor();
  await page.getByLabel('As', { exact: true }).selectOption('ansa');
  await shownPage(page).getByRole('heading', { name: 'Workspace of Ansa Wetherel' }).waitFor();
  await page.getByLabel('As', { exact: true }).selectOption('');
  await page.getByText('This address leads on to /garden/sign-in').waitFor();
  await goToPage(page, 'specimens');
  await page.getByLabel('JavaScript').uncheck();
  await shownPage(page).getByRole('heading', { name: 'Specimens' }).waitFor();
  await page.getByLabel('JavaScript').check();
  await page.getByLabel('Name of the new sample set').fill('wrong value');
  await page.getByRole('button', { name: 'Add a set' }).click();
  const set = page.getByRole('listitem').filter({ hasText: 'wrong value' });
  await set.getByLabel('health', { exact: true }).fill('Dead');
  await set.getByLabel('health', { exact: true }).press('Tab');
  await shownPage(page)
    .getByText(/cannot be “Dead”/)
    .waitFor();
  await untilSaved(page);
});

it('offers the first record where a page needs one and has no sample', async () => {
  await goToPage(page, 'zone');
  await shownPage(page).getByRole('heading', { name: 'Dry thorn' }).waitFor();
  const { revision } = (await (await service.owner('GET', '/apps/quillmoor/draft')).json()) as { revision: number };
  await service.owner('PATCH', '/apps/quillmoor/draft', {
    revision,
    patch: [{ op: 'remove', path: '/pages/zone/parameters/zone/sample' }],
  });
  const missing = page.getByRole('group', { name: 'Samples that are missing' });
  await missing.getByText('The page needs a value for a parameter before it can be shown.').waitFor();
  expect(await axeProblems(page)).toEqual([]);
  await missing.getByRole('button', { name: /^Use / }).click();
  await shownPage(page)
    .getByRole('heading', { name: /specimens live in this climate/ })
    .waitFor();
  await untilSaved(page);
  await expect.poll(draftSource).toMatch(/zone: \{ type: record, of: zones, by: letter, label: Climate zone, sample: [A-Z] \}/);
});

it('changes records in place, as a spreadsheet would, and says what is refused', async () => {
  await goTo(page, 'Data');
  await page.getByRole('link', { name: 'zones', exact: true }).click();
  const cell = page.getByLabel('Coldest (°C) of salt-marsh');
  const coldest = await cell.inputValue();
  await cell.fill('cold');
  await cell.press('Tab');
  await page
    .getByText(/not a whole number|integer/i)
    .first()
    .waitFor();
  await cell.fill('3');
  await cell.press('Tab');
  await page.getByText('Saved.').waitFor();
  await page.getByRole('button', { name: 'Undo this change of the records' }).click();
  await page.getByText('Undone.').waitFor();
  await expect.poll(() => cell.inputValue()).toBe(coldest);
  await cell.fill('3');
  await cell.press('Tab');
  await page.getByText('Saved.').waitFor();
  const fresh = page.getByLabel('code of a new record');
  await fresh.focus();
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/plain', 'bog\tBog\twet\t20\t2\tX\ntundra\tTundra\tdry\t9\t-20\tY');
    document.activeElement?.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  });
  await page.getByText('Pasted 2 rows.').waitFor();
  await page.getByRole('button', { name: 'Remove bog' }).click();
  await page.getByText('Removed bog.').waitFor();
  await page.getByRole('button', { name: 'Tell visitors that it is gone' }).click();
  await page.getByLabel('Message for visitors who follow a link to it').fill('The bog was drained.');
  expect(await axeProblems(page)).toEqual([]);
  await page.getByRole('button', { name: 'Declare it as gone' }).click();
  await untilSaved(page);
  // The zone page names a climate by its letter.
  expect(await draftSource()).toContain('goneValues: { X: { reason: The bog was drained. } }');
  await page.getByLabel('code of a new record').fill('marsh');
  await page.getByLabel('Name of a new record').fill('Marsh');
  await page.getByLabel('Door of a new record').fill('X');
  await page.getByRole('button', { name: 'Add the record' }).click();
  await page.getByText('“X” named a record that is gone. Choose another value.').waitFor();
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await page.getByText('bog is back.').waitFor();
  expect(await draftSource()).not.toContain('goneValues');
});

it('renames a field, and its records and old sort orders stay', async () => {
  await page.getByRole('link', { name: 'specimens', exact: true }).click();
  await page.getByRole('button', { name: 'Fields', exact: true }).click();
  await page.getByRole('button', { name: /^name name/ }).click();
  const name = page.locator('.inner').getByLabel('Name', { exact: true });
  await name.fill('plant');
  await name.press('Enter');
  await page.getByRole('button', { name: /^plant plant/ }).waitFor();
  await untilSaved(page);
  await page.getByText('no problems').waitFor();
  await page.getByRole('link', { name: 'Publish' }).click();
  await page.getByRole('button', { name: 'Publish' }).click();
  await page.getByText(/Edition 3 is served/).waitFor();
  expect(await new Visitor(service.base).text('/garden/specimens?sort=-name')).toContain('QM-');
  expect(await new Visitor(service.base).text('/garden/specimens/QM-0412')).toContain('Needle foxtail');
});

it('keeps the app file in step both ways', async () => {
  await goTo(page, 'File');
  const text = page.getByLabel('Text of the app file');
  await text.waitFor();
  await text.click();
  await page.keyboard.press('Control+Home');
  await page.keyboard.type('# Written by hand\n');
  await page.getByRole('button', { name: /^Save/ }).click();
  await page.getByText('Saved.').waitFor();
  expect(await draftSource()).toMatch(/^# Written by hand\n/);
  await goTo(page, 'Settings');
  await page.getByLabel('Title', { exact: true }).fill('Quillmoor Gardens');
  await untilSaved(page);
  expect(await draftSource()).toMatch(/^# Written by hand\n[^]*title: Quillmoor Gardens/);
});

it('passes axe-core on every screen, light and dark, and reports no error', async () => {
  const screens = [
    '',
    '/data?collection=zones',
    '/data?collection=zones&part=fields',
    '/map',
    '/people',
    '/mails',
    '/words',
    '/settings',
    '/short-addresses',
    '/visits',
    '/publish',
    '/problems',
    '/log',
  ];
  const examine = async (screen: string) => {
    for (const colorScheme of ['light', 'dark'] as const) {
      await page.emulateMedia({ colorScheme, reducedMotion: 'reduce' });
      expect(await axeProblems(page, colorScheme === 'dark' ? rulesOfTheLook : undefined), `${screen} ${colorScheme}`).toEqual([]);
    }
    await page.emulateMedia({ colorScheme: 'light' });
  };
  for (const screen of screens) {
    await page.goto(`${service.base}/~/console/quillmoor${screen}`);
    await page.getByRole('heading').nth(1).waitFor();
    await page
      .getByText(/^Opening …$|^Looking …$/)
      .first()
      .waitFor({ state: 'detached' });
    await examine(screen);
  }
  for (const screen of ['', 'new?from=file', 'outbox/mails', 'outbox/team', 'outbox/keys']) {
    await page.goto(`${service.base}/~/console/${screen}`);
    await page.getByRole('heading').first().waitFor();
    await examine(screen);
  }
  expect(garden.errors.filter((error) => !/ERR_FAILED|Blocked script execution/.test(error))).toEqual([]);
});

it('says that a list is empty only after it has loaded', async () => {
  let answer: () => void = () => undefined;
  const held = new Promise<void>((resolve) => (answer = resolve));
  await page.route('**/apps/quillmoor/people', async (route) => {
    await held;
    await route.continue();
  });
  await page.goto(`${service.base}/~/console/quillmoor/people`);
  const people = page.getByRole('region', { name: 'People', exact: true });
  await people.getByText('Loading …').waitFor();
  expect(await people.getByText('Nobody can sign in yet').count()).toBe(0);
  answer();
  await people.getByText('Ansa Wetherel').waitFor();
  await page.unroute('**/apps/quillmoor/people');
});

it('makes a copy of an app with its records, under a name and at a place of its own', async () => {
  await page.goto(`${service.base}/~/console/new?from=copy`);
  await page.getByLabel('Title of the app').fill('Another garden');
  await page.getByLabel('Copy', { exact: true }).selectOption('quillmoor');
  await page.getByRole('button', { name: 'Make the app' }).click();
  await goToPage(page, 'specimens');
  await shownPage(page)
    .getByText('640 found')
    .or(shownPage(page).getByText(/\b640\b/))
    .first()
    .waitFor();
});
