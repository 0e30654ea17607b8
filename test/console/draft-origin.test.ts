// The page of a draft in the console: what runs in it can do nothing for the builder, and the console follows it all the same.
import { afterAll, beforeAll, expect, it } from 'vitest';
import { goToPage, openGarden, shownPage } from '../support/console.ts';

let opened: Awaited<ReturnType<typeof openGarden>>;
beforeAll(async () => {
  opened = await openGarden();
  await opened.page.goto(`${opened.service.base}/~/console/quillmoor?page=specimens`);
  await shownPage(opened.page).getByRole('heading', { name: 'Specimens' }).waitFor();
});
afterAll(() => opened.stop());

it('is of another origin, whose scripts reach neither the console nor what it may do', async () => {
  const { page, service } = opened;
  const frame = page.frames().find((one) => one.url().startsWith(`${service.drafts}/~/draft/quillmoor/`));
  const before = await service.owner('GET', '/apps/quillmoor/draft').then((answer) => answer.text());
  const tried = await frame?.evaluate(async (base) => {
    const attempt = async (what: () => unknown) => {
      try {
        return String(await what());
      } catch (error) {
        return `refused: ${(error as Error).name}`;
      }
    };
    const api = `${base}/~/api/v1/apps/quillmoor`;
    const json = { 'content-type': 'application/json' };
    const text = (answer: Response) => answer.text();
    return {
      read: await attempt(() => fetch(`${api}/draft`, { credentials: 'include' }).then(text)),
      opaque: await attempt(() => fetch(`${api}/draft`, { credentials: 'include', mode: 'no-cors' }).then(text)),
      publish: await attempt(() => fetch(`${api}/publish`, { method: 'POST', body: '{}', credentials: 'include', mode: 'no-cors' })),
      put: await attempt(() => fetch(`${api}/draft`, { method: 'PUT', body: '{"source":""}', headers: json, credentials: 'include' })),
      beside: await attempt(() => fetch('/~/api/v1/apps').then((answer) => answer.status)),
      parent: await attempt(() => window.parent.document.title),
      storage: await attempt(() => window.parent.localStorage.length),
      cookies: document.cookie,
    };
  }, service.base);
  expect(tried).toMatchObject({ beside: '404', parent: 'refused: SecurityError', storage: 'refused: SecurityError' });
  for (const what of ['read', 'opaque', 'publish', 'put'] as const) expect([what, tried?.[what]]).toEqual([what, 'refused: TypeError']);
  expect(tried?.cookies).not.toMatch(/owner|look/);
  expect(await service.owner('GET', '/apps/quillmoor/draft').then((answer) => answer.text())).toBe(before);
});

it('is not listened to when it is another page that speaks', async () => {
  const { page } = opened;
  const before = page.url();
  await page.evaluate(() => {
    window.postMessage({ pallmist: 'address', address: '/~/draft/quillmoor/houses', cause: 'link' }, '*');
    window.postMessage({ pallmist: 'picked', place: 'content/9' }, '*');
  });
  await page.waitForTimeout(100);
  expect(page.url()).toBe(before);
});

it('without JavaScript, the console follows its links and forms too', async () => {
  const { page } = opened;
  await page.getByRole('button', { name: 'Click selects' }).click();
  await page.getByLabel('JavaScript').uncheck();
  await shownPage(page).getByRole('link', { name: 'Glasshouses', exact: true }).first().click();
  await expect.poll(() => page.url()).toContain('page=houses');
  await shownPage(page).getByRole('heading', { name: 'Glasshouses' }).waitFor();
  await page.getByLabel('JavaScript').check();
  await goToPage(page, 'specimens');
  await shownPage(page).getByRole('heading', { name: 'Specimens' }).waitFor();
});

it.each([0, 40, 120, 300])('shows what was asked for last, %i ms after another document was asked for', async (pause) => {
  const { page, service } = opened;
  await page.goto(`${service.base}/~/console/quillmoor?page=notes`);
  await shownPage(page).getByRole('heading', { name: 'Field notes' }).waitFor();
  await page.reload();
  await page.getByLabel('Title', { exact: true }).waitFor();
  await page.waitForTimeout(pause);
  await goToPage(page, 'workspace');
  await page.getByText('This address leads on to /garden/sign-in').waitFor();
  expect(page.url()).toContain('page=workspace');
});
