import type { Page } from 'playwright-core';
import { describe, expect, it } from 'vitest';
import { axeProblems } from '../support/axe.ts';
import { untilHydrated } from '../support/chromium.ts';
import { littleApp } from '../support/little-app.ts';
import { littleStory } from '../support/little-story.ts';

const source = littleApp({
  more: 'timeZone: Europe/London',
  collections: `  plants:
    keyField: code
    fields:
      code: { type: text, required: true, unique: true }
      name: { type: text }
      height: { type: integer }`,
  pages: `  home:
    title: Home
    address: /{?note,at,shade,plan,alive,tone,draw}
    parameters:
      note: { type: text, maxLength: 2000, blank: absent, label: Note }
      at: { type: datetime, label: Watered at }
      shade: { type: colour, default: '#224466', label: Shade }
      plan: { type: packed, label: Plan, schema: { type: object, additionalProperties: { type: integer } } }
      alive: { type: boolean, label: Alive }
      tone: { type: text, label: Tone }
      draw: { type: packed, label: Picture, schema: { type: array, items: { type: string } } }
    content:
      - { show: heading, level: '{has(param.note) ? 2 : 1}', text: Boxes }
      - { show: notice, text: Look, tone: '{param.?tone.orValue("plain")}' }
      - { show: input, bind: note, label: Note, lines: '{size(param.?note.orValue("")) > 20 ? 6 : 3}' }
      - { show: input, bind: at, label: Watered at }
      - { show: input, bind: shade, label: Shade }
      - { show: input, bind: plan, label: Plan }
      - { show: select, bind: alive, label: Alive }
      - { show: drawing, bind: draw, label: Picture, columns: 4, rows: 3, colours: { paper: '#ffffff', ink: '#113355', leaf: '#338855' } }
  plants:
    title: Plants
    address: /plants{?edit,name,sort,page}
    parameters:
      name: { type: text, blank: absent, label: Like }
      edit: { type: record, of: plants, label: Edited }
      sort: { type: sort, of: plants, fields: [name, height], default: name }
      page: { type: integer, default: 1, min: 1 }
    rows: { all: { from: plants, sort: '{param.sort}', page: '{param.page}', size: 3 } }
    content:
      - { show: heading, level: 1, text: Plants }
      - { show: input, bind: name, label: Like }
      - show: table
        rows: all
        label: Plants
        columns: [{ field: name }, { field: height }]
        bind: { sort: sort }
        edit: { bind: edit, name: change, fields: [name, height], done: '{saved.name} is up to date.' }
      - { show: pager, rows: all, bind: page }
      - { show: link, text: Elsewhere, to: { page: home } }
`,
});

const { at, open: openPath, service, until } = littleStory(source);
let page: Page;
const open = async (path: string, javaScriptEnabled: boolean) => {
  page = await openPath(path, javaScriptEnabled);
};

describe.each([true, false])('boxes, with JavaScript: %s', (javaScriptEnabled) => {
  /** Leaves the box, or presses the button of its form. */
  const apply = async (label: string) => {
    const box = page.getByLabel(label);
    if (javaScriptEnabled) await box.blur();
    else await box.locator('xpath=ancestor::form').getByRole('button', { name: 'Apply' }).click();
  };

  it('keeps line breaks, moments by the clocks of the app, colours, JSON and three answers', async () => {
    await open('/little', javaScriptEnabled);
    await page.getByLabel('Note').fill('wet\nand mild');
    await apply('Note');
    await until('/little?note=wet\nand mild');
    await page.getByLabel('Watered at').fill('2026-07-01T10:30');
    await apply('Watered at');
    await until('/little?note=wet\nand mild&at=2026-07-01T09:30:00Z');
    expect(await page.getByLabel('Watered at').inputValue()).toBe('2026-07-01T10:30');
    await page.getByLabel('Shade').fill('#aa3300');
    await apply('Shade');
    await until('/little?note=wet\nand mild&at=2026-07-01T09:30:00Z&shade=aa3300');
    await page.getByLabel('Alive').selectOption('false');
    if (!javaScriptEnabled) await apply('Alive');
    await until('/little?note=wet\nand mild&at=2026-07-01T09:30:00Z&shade=aa3300&alive=false');
    expect(await page.getByLabel('Note').inputValue()).toBe('wet\nand mild');
    await page.getByLabel('Plan').fill('{ "fern": 3 }');
    await apply('Plan');
    await expect.poll(at).toMatch(/&plan=1[\w-]+&alive=false$/);
    await expect.poll(() => page.getByLabel('Plan').inputValue()).toBe('{\n  "fern": 3\n}');
  });

  it('settles tone, level and lines by expressions; what is no tone is plain', async () => {
    await open('/little?tone=warning&note=a%20note%20that%20is%20rather%20long', javaScriptEnabled);
    expect(await page.locator('h2', { hasText: 'Boxes' }).count()).toBe(1);
    expect(await page.getByLabel('Note').getAttribute('rows')).toBe('6');
    const warning = await page.getByText('Look', { exact: true }).getAttribute('class');
    await page.goto(`${service().base}/little?tone=loud`);
    expect(await page.locator('h1', { hasText: 'Boxes' }).count()).toBe(1);
    expect(await page.getByText('Look', { exact: true }).getAttribute('class')).not.toBe(warning);
  });
});

it('says what is wrong with JSON beside its box, and keeps the address', async () => {
  await open('/little', true);
  await page.getByLabel('Plan').fill('{ "fern": "three" }');
  await page.getByLabel('Plan').blur();
  expect(await page.getByLabel('Plan').evaluate((box: HTMLTextAreaElement) => box.validationMessage)).not.toBe('');
  await until('/little');
});

it('paints with pointer and keys; a stroke is one step, and an empty picture leaves the address', async () => {
  await open('/little', true);
  const grid = page.getByRole('grid', { name: 'Picture' });
  const cell = (column: number, row: number) => grid.getByRole('gridcell', { name: `${String(column)}, ${String(row)}:` });
  const centre = async (column: number, row: number) => {
    const box = await cell(column, row).boundingBox();
    return [(box?.x ?? 0) + 10, (box?.y ?? 0) + 10] as const;
  };
  await page.mouse.move(...(await centre(1, 1)));
  await page.mouse.down();
  await page.mouse.move(...(await centre(2, 1)));
  await page.mouse.move(...(await centre(3, 1)));
  await page.mouse.up();
  await expect.poll(() => cell(3, 1).getAttribute('aria-label')).toContain('Ink');
  await cell(1, 1).focus();
  for (const key of ['ArrowDown', 'ArrowRight', '2', ' ']) await page.keyboard.press(key);
  await expect.poll(() => cell(2, 2).getAttribute('aria-label')).toContain('Leaf');
  await expect.poll(at).toMatch(/draw=1/);
  expect(await axeProblems(page)).toEqual([]);
  const drawn = at();
  await page.goBack();
  await expect.poll(() => cell(2, 2).getAttribute('aria-label')).toContain('Paper');
  expect(await cell(2, 1).getAttribute('aria-label')).toContain('Ink');
  await page.goForward();
  await until(drawn);
  await page.reload();
  await untilHydrated(page);
  expect(await cell(2, 2).getAttribute('aria-label')).toContain('Leaf');
  await page.getByRole('button', { name: 'Clear' }).click();
  await until('/little');
});

describe('a row that is edited in place', () => {
  const fill = async () => {
    for (const [code, name, height] of [
      ['a', 'Alder', 9],
      ['b', 'Birch', 8],
      ['c', 'Cedar', 7],
      ['d', 'Dogwood', 3],
    ])
      await service().owner('POST', '/apps/little/records/plants', { code, name, height });
  };

  it('says that it is saved, replaces the step, and keeps the focus on the row where sorting moves it', async () => {
    await fill();
    await open('/little/plants', true);
    await page.getByRole('link', { name: 'Edit Alder' }).click();
    await page.getByLabel('Name').fill('Bramble');
    await page.getByRole('button', { name: 'Save' }).click();
    await page.getByRole('status').filter({ hasText: 'Bramble is up to date.' }).waitFor();
    await until('/little/plants');
    const focused = () => page.evaluate(() => document.activeElement?.getAttribute('aria-label'));
    await expect.poll(focused).toBe('Edit Bramble (a)');
    await expect.poll(() => page.locator('tbody tr').first().innerText()).toContain('Birch');
    await expect.poll(focused).toBe('Edit Bramble (a)');
    await page.goBack();
    await expect.poll(() => page.getByLabel('Name').count()).toBe(0);
  });

  it('shows a row of another page of the list, and asks before what is typed is lost', async () => {
    await open('/little/plants?edit=d', true);
    expect(await page.getByLabel('Name').inputValue()).toBe('Dogwood');
    expect(await axeProblems(page)).toEqual([]);
    await page.getByLabel('Height').fill('4');
    const asked: string[] = [];
    page.once('dialog', (dialog) => {
      asked.push(dialog.message());
      void dialog.dismiss();
    });
    await page.getByRole('link', { name: 'Elsewhere' }).click();
    expect(asked).toEqual(['What you typed is not saved yet. Leave it all the same?']);
    expect(at()).toBe('/little/plants?edit=d');
    expect(await page.getByLabel('Height').inputValue()).toBe('4');
    page.once('dialog', (dialog) => void dialog.accept());
    await page.getByRole('link', { name: 'Elsewhere' }).click();
    await until('/little');
  });

  it('asks on Back too, and keeps what is typed if the visitor stays', async () => {
    await open('/little/plants', true);
    await page.locator('[data-edits]').first().click();
    await page.getByLabel('Height').fill('7');
    const edited = at();
    const asked: string[] = [];
    page.once('dialog', (dialog) => {
      asked.push(dialog.message());
      void dialog.dismiss();
    });
    await page.evaluate(() => history.back());
    await expect.poll(() => asked.length).toBe(1);
    await until(edited);
    expect(await page.getByLabel('Height').inputValue()).toBe('7');
    page.once('dialog', (dialog) => void dialog.accept());
    await page.evaluate(() => history.back());
    await until('/little/plants');
  });

  it('says it without JavaScript too, once', async () => {
    await open('/little/plants?edit=d', false);
    await page.getByLabel('Height').fill('5');
    await page.getByRole('button', { name: 'Save' }).click();
    await until('/little/plants');
    expect(await page.getByRole('status').innerText()).toBe('Dogwood is up to date.');
    await page.reload();
    expect(await page.getByRole('status').count()).toBe(0);
  });
});
