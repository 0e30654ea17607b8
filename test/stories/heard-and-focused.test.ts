// What visitors hear and where their keys go after a change: with a screen reader and without a pointer.
import type { Page } from 'playwright-core';
import { describe, expect, it } from 'vitest';
import { axeProblems } from '../support/axe.ts';
import { littleApp } from '../support/little-app.ts';
import { littleStory } from '../support/little-story.ts';

const source = littleApp({
  more: 'choices: { kind: { fern: Fern, palm: Palm, moss: Moss, aloe: Aloe } }',
  collections: '  things: { keyField: code, fields: { code: { type: text }, kind: { type: choice, of: kind } } }',
  pages: `  home:
    title: Things
    address: /{?q,kinds,kind,open,page}
    parameters:
      q: { type: text, blank: absent, resets: [page], label: Name }
      kinds: { type: list, items: { type: choice, of: kind }, minItems: 1, maxItems: 2, label: Kinds }
      kind: { type: choice, of: kind, label: Kind }
      open: { type: boolean, default: false, once: false, label: Open }
      page: { type: integer, default: 1 }
    reads: { found: { from: things, where: [{ field: code, contains: '{param.q}' }, { field: kind, equals: '{param.kind}' }], size: 5, page: '{param.page}' } }
    content:
      - { show: heading, level: 1, text: Things }
      - { show: search, bind: q, label: Find }
      - { show: checkboxes, bind: kinds, label: Kinds }
      - { show: filters, label: What is shown, boxes: [kind], submit: Apply, clear: Clear }
      - { show: text, text: '{total.found} things' }
      - { show: table, rows: found, label: Things, columns: [{ field: code, label: Code }] }
      - { show: pager, rows: found, bind: page }
      - { show: link, text: Look closer, to: { page: home, values: { open: true } } }
      - { show: dialog, bind: open, label: Closer, content: [{ show: text, text: Here it is. }] }
      - { show: lead-on, when: 'param.?q.orValue("") == "gone"', to: { page: gone } }
  solo:
    title: Solo
    address: /solo{?q}
    parameters: { q: { type: text, blank: absent, label: Name } }
    reads: { found: { from: things, where: [{ field: code, contains: '{param.q}' }], size: 5 } }
    content:
      - { show: heading, level: 1, text: Solo }
      - { show: search, bind: q, label: Find }
      - { show: table, rows: found, label: Things, columns: [{ field: code, label: Code }] }
      - { show: lead-on, when: total.found == 1, to: { page: gone } }
  gone:
    title: Gone
    address: /gone
    content: [{ show: heading, level: 1, text: Gone }, { show: link, text: Back to the things, to: { page: home } }]
`,
});

const { open, until, service } = littleStory(source);
let page: Page;
const focused = () =>
  page.evaluate(() => {
    const element = document.activeElement;
    return element === null || element === document.body
      ? 'body'
      : (element.getAttribute('aria-label') ?? element.id) || element.textContent.trim();
  });
/** Everything that a screen reader was told since the page opened. */
async function listen(): Promise<() => Promise<string[]>> {
  await page.evaluate(() => {
    const heard: string[] = [];
    Object.assign(window, { heard });
    new MutationObserver((changes) => {
      for (const { target } of changes) {
        const region = (target instanceof Element ? target : target.parentElement)?.closest('[role="status"], [aria-live]');
        const text = region?.textContent.trim();
        if (text) heard.push(text);
      }
    }).observe(document.body, { subtree: true, childList: true, characterData: true });
  });
  return () => page.evaluate(() => (window as unknown as { heard: string[] }).heard);
}
async function things(): Promise<void> {
  for (const [index, kind] of ['fern', 'fern', 'palm', 'moss', 'fern', 'palm', 'aloe'].entries())
    await service().owner('POST', '/apps/little/collections/things/records', { record: { code: `T-${String(index)}`, kind } });
}

describe('what is heard', () => {
  it('a search, a filter and another page of the list say what was found, or that something has changed', async () => {
    await things();
    page = await open('/little');
    const heard = await listen();
    await page.getByLabel('Find').fill('T-1');
    await expect.poll(heard).toContain('1 found');
    await page.getByLabel('Find').fill('T-2');
    await expect.poll(heard).toContain('Updated');
    await page.getByLabel('Find').fill('T-3');
    await expect.poll(async () => (await heard()).filter((text) => text === 'Updated').length).toBeGreaterThan(1);
    await page.getByLabel('Find').fill('nothing like it');
    await expect.poll(heard).toContain('0 found');
    await page.getByLabel('Find').fill('');
    await expect.poll(heard).toContain('7 found');
    await page.getByRole('link', { name: 'Next' }).click();
    await until('/little?page=2');
    await expect.poll(async () => (await heard()).at(-1)).toBe('Updated');
    expect(await axeProblems(page)).toEqual([]);
  });
});

describe('where the keys go', () => {
  it('Apply and Clear of a filter form leave the focus in the form', async () => {
    page = await open('/little');
    await page.getByRole('form', { name: 'What is shown' }).getByLabel('Kind').selectOption('palm');
    await page.getByRole('button', { name: 'Apply' }).focus();
    await page.keyboard.press('Enter');
    await until('/little?kind=palm');
    await expect.poll(() => page.locator('tbody tr').count()).toBe(2);
    expect(await focused()).toBe('Apply');
    await page.getByRole('link', { name: 'Clear' }).focus();
    await page.keyboard.press('Enter');
    await until('/little');
    await expect.poll(() => page.locator('tbody tr').count()).toBe(5);
    expect(await focused()).not.toBe('body');
  });

  it.each(['Escape', 'Close'])('a dialog that is closed by %s gives the focus back to what opened it', async (way) => {
    page = await open('/little');
    const opener = page.getByRole('link', { name: 'Look closer' });
    await opener.focus();
    await page.keyboard.press('Enter');
    await until('/little?open=true');
    await page.getByRole('dialog').waitFor();
    expect(await page.evaluate(() => document.activeElement?.closest('dialog') !== null)).toBe(true);
    if (way === 'Escape') await page.keyboard.press('Escape');
    else await page.getByRole('dialog').getByRole('link', { name: 'Close' }).press('Enter');
    await until('/little');
    await expect.poll(focused).toBe('Look closer');
  });

  it.each(['Escape', 'Close', 'Back'])(
    'a dialog that stood open at arrival gives it to the content when it is closed by %s',
    async (way) => {
      page = await open('/little');
      await page.goto(`${service().base}/little?open=true`);
      await page.getByRole('dialog').waitFor();
      await page.waitForFunction(() => document.documentElement.dataset['hydrated'] === 'true');
      if (way === 'Back') {
        await page.getByRole('dialog').getByRole('link', { name: 'Close' }).press('Enter');
        await until('/little');
        await page.goBack();
        await page.getByRole('dialog').waitFor();
        await page.goForward();
      } else if (way === 'Escape') await page.keyboard.press('Escape');
      else await page.getByRole('dialog').getByRole('link', { name: 'Close' }).press('Enter');
      await until('/little');
      await page.getByRole('dialog').waitFor({ state: 'detached' });
      await expect.poll(focused).not.toBe('body');
    },
  );
});

describe('checkboxes with limits', () => {
  const boxes = ['Fern', 'Palm', 'Moss', 'Aloe'];
  const state = async () => {
    const found = [];
    for (const name of boxes) {
      const box = page.getByRole('group', { name: 'Kinds' }).getByLabel(name);
      found.push(`${(await box.isChecked()) ? 'x' : '-'}${(await box.isDisabled()) ? '!' : ''}`);
    }
    return found.join(' ');
  };
  const box = (name: string) => page.getByRole('group', { name: 'Kinds' }).getByLabel(name);

  it('take no more than the most, keep the last of the least, and say so', async () => {
    page = await open('/little');
    await box('Fern').check();
    await until('/little?kinds=fern');
    await box('Moss').check();
    await until('/little?kinds=fern,moss');
    await expect.poll(state).toBe('x -! x -!');
    expect(await page.getByRole('group', { name: 'Kinds' }).textContent()).toContain('Choose 2 at most.');
    expect(await axeProblems(page)).toEqual([]);
    await box('Fern').uncheck();
    await until('/little?kinds=moss');
    await expect.poll(state).toBe('- - x -');
  });

  it('say at arrival what is chosen already', async () => {
    page = await open('/little?kinds=palm,aloe');
    expect(await state()).toBe('-! x -! x');
    page = await open('/little?kinds=palm,aloe', false);
    expect(await state()).toBe('- x - x');
  });
});

describe.each([true, false])('a page that leads on under a condition, with JavaScript: %s', (javaScriptEnabled) => {
  // A condition on the address, and one that only the service can settle.
  it.each([
    ['/little', '/little?q=gone', 'gone'],
    ['/little/solo', '/little/solo?q=T-3', 'T-3'],
  ])('%s leads on when a search makes it hold, at arrival, and by a link', async (path, arrival, typed) => {
    page = await open(path, javaScriptEnabled);
    await page.getByLabel('Find').fill(typed);
    await page.getByLabel('Find').press('Enter');
    await until('/little/gone');
    await page.getByRole('heading', { name: 'Gone' }).waitFor();
    await page.goto(service().base + arrival);
    await until('/little/gone');
    // Back passes the page that only leads on.
    await page.getByRole('link', { name: 'Back to the things' }).click();
    await until('/little');
  });
});
