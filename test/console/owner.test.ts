import type { Page } from 'playwright-core';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { axeProblems } from '../support/axe.ts';
import { goTo, openGarden } from '../support/console.ts';
import { type TestService } from '../support/garden-service.ts';

let garden: Awaited<ReturnType<typeof openGarden>>;
let service: TestService;
let page: Page;
beforeAll(async () => {
  garden = await openGarden();
  ({ service, page } = garden);
});
afterAll(() => garden.stop());

const asProgram = (token: string, path: string, method = 'GET') =>
  fetch(`${service.base}/~/api/v1${path}`, { method, headers: { authorization: `Bearer ${token}` } }).then(({ status }) => status);
const shownOnce = async (): Promise<string> =>
  (
    await page
      .getByRole('status')
      .getByText(/shown once/)
      .locator('code')
      .innerText()
  ).trim();

it('makes a token that may do what was chosen, renews and ends it', async () => {
  await page.getByRole('link', { name: 'Keys and sessions' }).click();
  const form = page.getByRole('form', { name: 'Make a token' });
  await form.getByLabel('What it is for').fill('Nightly export');
  await form.getByLabel('For', { exact: true }).selectOption('quillmoor');
  await form.getByLabel('Ends after, in days').fill('30');
  await form.getByLabel('records:read').check();
  await form.getByRole('button', { name: 'Make the token' }).click();
  const token = await shownOnce();
  expect(await axeProblems(page)).toEqual([]);
  expect(await asProgram(token, '/apps/quillmoor/records/zones')).toBe(200);
  expect(await asProgram(token, '/apps/quillmoor/draft')).toBe(403);
  await page.getByRole('cell', { name: '2026-12-19' }).waitFor();
  await page.getByRole('button', { name: 'Renew Nightly export' }).click();
  await expect.poll(shownOnce).not.toBe(token);
  expect(await asProgram(token, '/apps/quillmoor/records/zones')).toBe(401);
  await page.getByRole('button', { name: 'End Nightly export' }).click();
  await page.getByRole('button', { name: 'End Nightly export' }).waitFor({ state: 'detached' });
});

it('makes a webhook, shows what was sent, and removes it', async () => {
  await page.getByRole('link', { name: 'Apps' }).click();
  await page.getByRole('link', { name: 'Quillmoor Glasshouses' }).click();
  await goTo(page, 'Mails');
  await page.getByRole('link', { name: 'Webhooks' }).click();
  const form = page.getByRole('form', { name: 'Make a webhook' });
  await form.getByLabel('Address of the program').fill('http://127.0.0.1:9/hook');
  await form.getByLabel('A form has removed a record').uncheck();
  await form.getByRole('button', { name: 'Make the webhook' }).click();
  expect((await shownOnce()).length).toBeGreaterThan(20);
  await page.getByRole('cell', { name: 'record.created, record.changed' }).waitFor();
  await page.getByRole('button', { name: 'What was sent to http://127.0.0.1:9/hook' }).click();
  await page.getByText('No deliveries yet.').waitFor();
  expect(await axeProblems(page)).toEqual([]);
  await form.getByLabel('Address of the program').fill('ftp://nowhere');
  await form.getByRole('button', { name: 'Make the webhook' }).click();
  await page.getByRole('alert').waitFor();
  await page.getByRole('button', { name: 'Remove http://127.0.0.1:9/hook' }).click();
  await page.getByRole('button', { name: 'Remove http://127.0.0.1:9/hook' }).waitFor({ state: 'detached' });
  expect(garden.errors).toEqual([]);
});
