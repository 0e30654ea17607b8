// What a visitor has typed or chosen in a form and not sent stays, whatever else changes on the page: every kind of box, each
// with links, controls, Back, data that arrive, and a form that was refused before.
import type { Page } from 'playwright-core';
import { beforeAll, describe, expect, it } from 'vitest';
import { littleApp } from '../support/little-app.ts';
import { littleStory } from '../support/little-story.ts';

/** Every kind of box: its field, how a visitor uses it, and what it then holds. */
const boxes = [
  { field: 'name', declared: '{ type: text }', typed: 'Fern & moss', was: 'Alder' },
  { field: 'body', declared: '{ type: text }', form: '{ field: body, lines: 4 }', typed: 'two\nlines', was: 'wet' },
  { field: 'mail', declared: '{ type: text, autocomplete: email }', typed: 'odo@moor.example', was: 'a@moor.example' },
  { field: 'count', declared: '{ type: integer }', typed: '7', was: '3' },
  { field: 'height', declared: '{ type: number }', typed: '2.5', was: '1.5' },
  { field: 'seen', declared: '{ type: date }', typed: '2026-03-04', was: '2026-01-02' },
  { field: 'tone', declared: '{ type: choice, of: tones }', typed: 'warm', was: 'cold' },
  { field: 'bed', declared: '{ type: record, of: beds }', typed: 'b2', was: 'b1' },
  { field: 'loan', declared: '{ type: boolean }', typed: 'true', was: 'false' },
] as const;

const fields = boxes.map((box) => ('form' in box ? box.form : box.field)).join(', ');
const source = littleApp({
  more: 'choices: { tones: { cold: Cold, warm: Warm }, tabs: { one: One, two: Two } }',
  collections: `
  beds: { keyField: code, fields: { code: { type: text } } }
  plants:
    keyField: code
    fields:
      code: { type: text, serial: 'p0' }
${boxes.map(({ field, declared }) => `      ${field}: ${declared}`).join('\n')}
      must: { type: text, required: true }`,
  pages: `
  home:
    title: Home
    address: /{?plant,tab,q,tone,page}
    parameters:
      plant: { type: record, of: plants, default: p1, label: Plant }
      tab: { type: choice, of: tabs, default: one, label: Tab }
      q: { type: text, blank: absent, label: Look for }
      tone: { type: choice, of: tones, label: Only }
      page: { type: integer, default: 1, min: 1 }
    rows:
      found: { from: beds, where: [{ field: code, contains: '{param.q}' }], page: '{param.page}', size: 1 }
    content:
      - { show: tabs, bind: tab, label: Parts, panes: { one: [{ show: text, text: First }], two: [{ show: text, text: Second }] } }
      - { show: search, bind: q, label: Look for }
      - { show: select, bind: tone, label: Only }
      - { show: list, rows: found, label: Beds, text: '{row.code}' }
      - { show: pager, rows: found, bind: page }
      - { show: link, text: The other plant, to: { page: home, values: { plant: p2 } } }
      - { show: form, name: new, label: New plant, action: create, collection: plants, fields: [${fields}, must], submit: Make it }
      - { show: form, name: old, label: This plant, action: change, bind: plant, fields: [${fields}, must], submit: Keep it }
`,
});

const { at, open, service, until } = littleStory(source);
let page: Page;

beforeAll(async () => {
  const put = async (collection: string, record: object) => {
    const answer = await service().owner('POST', `/apps/little/collections/${collection}/records`, { record });
    expect(answer.status, await answer.text()).toBe(200);
  };
  for (const code of ['b1', 'b2', 'b3']) await put('beds', { code });
  const typedAs = (field: string, was: string) => (field === 'loan' ? false : ['count', 'height'].includes(field) ? Number(was) : was);
  const values = Object.fromEntries(boxes.map(({ field, was }) => [field, typedAs(field, was)]));
  for (const code of ['p1', 'p2']) await put('plants', { code, ...values, must: code });
});

const boxOf = (form: string, field: string) => page.getByRole('form', { name: form }).locator(`[name="${field}"]`);

async function fill(form: string): Promise<void> {
  for (const { field, typed } of boxes) {
    const box = boxOf(form, field);
    if (field === 'loan') await box.check();
    else if (field === 'tone' || field === 'bed') await box.selectOption(typed);
    else await box.fill(typed);
  }
}

async function held(form: string): Promise<Record<string, string>> {
  const found: Record<string, string> = {};
  for (const { field } of boxes) {
    const box = boxOf(form, field);
    found[field] = field === 'loan' ? String(await box.isChecked()) : await box.inputValue();
  }
  return found;
}
const typed = Object.fromEntries(boxes.map(({ field, typed: text }) => [field, text]));
const kept = Object.fromEntries(boxes.map(({ field, was }) => [field, was]));

/** What happens on the page beside the forms. */
const disturbances: [string, () => Promise<void>][] = [
  ['a tab is opened', async () => {
    await page.getByRole('link', { name: 'Two' }).click();
    await expect.poll(at).toContain('tab=two');
  }],
  ['a search narrows a list', async () => {
    await page.getByLabel('Look for').fill('b3');
    await expect.poll(() => page.getByText('b3', { exact: true }).count()).toBeGreaterThan(0);
  }],
  ['a filter is chosen', async () => {
    await page.getByLabel('Only').selectOption('warm');
    await expect.poll(at).toContain('tone=warm');
  }],
  ['a list is turned to its next page', async () => {
    await page.getByRole('link', { name: 'Next' }).click();
    await expect.poll(at).toContain('page=2');
    await page.getByText('b2', { exact: true }).first().waitFor({ state: 'attached' });
  }],
]; // prettier-ignore

/** Those that can follow each other: a narrowed list has no next page. */
const inARow = disturbances.filter(([name]) => !name.includes('search'));

describe.each(['New plant', 'This plant'])('what is typed into the form “%s”', (form) => {
  it.each(disturbances)('stays when %s', async (_, disturb) => {
    page = await open('/little');
    await fill(form);
    await disturb();
    expect(await held(form)).toEqual(typed);
  });

  it('stays when Back and Forward change the page around it', async () => {
    page = await open('/little');
    await page.getByRole('link', { name: 'Two' }).click();
    await expect.poll(at).toContain('tab=two');
    await fill(form);
    // To leave what is typed is asked about, and staying keeps it.
    page.once('dialog', (dialog) => void dialog.dismiss());
    await page.evaluate(() => history.back());
    await expect.poll(at).toContain('tab=two');
    expect(await held(form)).toEqual(typed);
  });

  it('stays where the form was refused, and the rest of the page goes on', async () => {
    page = await open('/little');
    await fill(form);
    await boxOf(form, 'must').evaluate((box: HTMLInputElement) => {
      box.required = false;
      box.value = '';
    });
    await page.getByRole('form', { name: form }).getByRole('button').click();
    await page.locator('[aria-invalid="true"]').first().waitFor();
    for (const [, disturb] of inARow) {
      await disturb();
      expect(await held(form)).toEqual(typed);
    }
  });

  it('is that of the form as it was, where nothing was typed', async () => {
    page = await open('/little');
    const before = await held(form);
    for (const [, disturb] of inARow) await disturb();
    expect(await held(form)).toEqual(before);
  });
});

it('what is typed for one record does not go to another', async () => {
  page = await open('/little');
  await boxOf('This plant', 'name').fill('Typed for p1');
  page.once('dialog', (dialog) => void dialog.accept());
  await page.getByRole('link', { name: 'The other plant' }).click();
  await until('/little?plant=p2');
  await expect.poll(() => held('This plant')).toEqual(kept);
});

it('a record that another person changed meanwhile is not overwritten by what is typed: the conflict is told', async () => {
  page = await open('/little');
  await boxOf('This plant', 'name').fill('Mine');
  const put = await service().owner('PATCH', '/apps/little/collections/plants/records/p1', { record: { body: 'Theirs' } });
  expect(put.status).toBe(200);
  await page.getByLabel('Look for').fill('b');
  await expect.poll(at).toContain('q=b');
  await page.waitForLoadState('networkidle');
  await page.getByRole('form', { name: 'This plant' }).getByRole('button').click();
  await page.getByRole('form', { name: 'This plant' }).getByRole('alert').waitFor();
  expect(await boxOf('This plant', 'name').inputValue()).toBe('Mine');
});

it('a form that was saved can be changed and saved again: one’s own change is no conflict', async () => {
  page = await open('/little?plant=p2');
  for (const name of ['Once', 'Twice']) {
    await boxOf('This plant', 'name').fill(name);
    await page.getByRole('form', { name: 'This plant' }).getByRole('button').click();
    await page.getByRole('status').filter({ hasText: 'Saved.' }).waitFor();
    await expect.poll(() => boxOf('This plant', 'name').inputValue()).toBe(name);
    await expect
      .poll(async () => (await (await service().owner('GET', '/apps/little/collections/plants/records/p2')).text()).includes(name))
      .toBe(true);
  }
});
