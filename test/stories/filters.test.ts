import type { Page } from 'playwright-core';
import { describe, expect, it } from 'vitest';
import { axeProblems } from '../support/axe.ts';
import { untilHydrated } from '../support/chromium.ts';
import { littleApp } from '../support/little-app.ts';
import { littleStory } from '../support/little-story.ts';

const source = littleApp({
  more: 'choices: { bed: { north: North bed, south: South bed }, kind: { fern: Fern, palm: Palm, moss: Moss } }',
  pages: `  home:
    title: Home
    address: /
    content:
      - { show: ask, label: Open a bed, page: bed, boxes: [bed, kinds, from], values: { year: '2026' }, submit: Open }
  bed:
    title: Bed
    address: /beds/{bed}{?year,q,kinds,planted,shady,note,page,sort}
    parameters:
      bed: { type: choice, of: bed, label: Bed }
      year: { type: integer, required: true, label: Year }
      q: { type: text, blank: absent, resets: [page], label: Name }
      kinds: { type: list, items: { type: choice, of: kind }, label: Kinds }
      planted: { type: range, of: date, label: Planted }
      shady: { type: boolean, label: In the shade }
      note: { type: text, maxLength: 500, blank: absent, label: Note }
      page: { type: integer, default: 1 }
      sort: { type: integer, default: 0 }
    content:
      - { show: heading, level: 1, text: 'Bed {param.bed}' }
      - { show: filters, label: What grows here, boxes: [bed, year, q, kinds, planted, shady, note], submit: Show, clear: Clear }
      - { show: select, bind: bed, label: Only the bed }
`.replace(', from]', ']'),
});

const { open: openPath, until } = littleStory(source);
let page: Page;

describe.each([true, false])('a filter form, with JavaScript: %s', (javaScriptEnabled) => {
  const open = async (path: string) => {
    page = await openPath(path, javaScriptEnabled);
  };

  it('changes several values at once, in the path too, keeps the rest, and is undone by one Back', async () => {
    await open('/little/beds/north?year=2026&page=3&sort=5');
    if (javaScriptEnabled) expect(await axeProblems(page)).toEqual([]);
    const form = page.getByRole('form', { name: 'What grows here' });
    await form.getByLabel('Bed').selectOption('south');
    await form.getByLabel('Year').fill('2025');
    await form.getByLabel('Name').fill('tree fern & co');
    await form.getByLabel('Fern').check();
    await form.getByLabel('Moss').check();
    await form.getByLabel('from').fill('2020-01-01');
    await form.getByLabel('In the shade').selectOption('false');
    await form.getByLabel('Note').fill('two\nlines');
    await form.getByRole('button', { name: 'Show' }).click();
    const all = '/little/beds/south?year=2025&q=tree fern & co&kinds=fern,moss&planted=2020-01-01..&shady=false&note=two\nlines&sort=5';
    await until(all);
    // What stands in the boxes is what the address says, also after a reload.
    await page.waitForLoadState();
    await page.reload();
    if (javaScriptEnabled) await untilHydrated(page);
    expect(await form.getByLabel('Note').inputValue()).toBe('two\nlines');
    expect(await form.getByLabel('Moss').isChecked()).toBe(true);
    expect(await form.getByLabel('Palm').isChecked()).toBe(false);
    await form.getByLabel('Name').fill('');
    await form.getByRole('button', { name: 'Show' }).click();
    await until(all.replace('q=tree fern & co&', ''));
    await page.goBack();
    await until(all);
    // Without JavaScript, Back shows what was typed last, as browsers do.
    if (javaScriptEnabled) expect(await form.getByLabel('Name').inputValue()).toBe('tree fern & co');
    await form.getByRole('link', { name: 'Clear' }).click();
    await until('/little/beds/south?year=2025&sort=5');
    await expect.poll(() => form.getByLabel('Name').inputValue()).toBe('');
    expect(await form.getByRole('link', { name: 'Clear' }).count()).toBe(0);
  });

  it('a single control of a path parameter changes it and keeps the rest', async () => {
    await open('/little/beds/north?year=2026&q=fern');
    await page.getByLabel('Only the bed').selectOption('south');
    if (!javaScriptEnabled) await page.getByRole('button', { name: 'Apply' }).click();
    await until('/little/beds/south?year=2026&q=fern');
  });

  it('a question leads to a page with what it needs in its path, and lists are boxes to tick', async () => {
    await open('/little');
    const form = page.getByRole('form', { name: 'Open a bed' });
    await form.getByLabel('Bed').selectOption('south');
    await form.getByLabel('Palm').check();
    await form.getByRole('button', { name: 'Open' }).click();
    await until('/little/beds/south?year=2026&kinds=palm');
    expect(await page.getByRole('heading').innerText()).toBe('Bed south');
  });
});
