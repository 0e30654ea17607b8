import type { Browser, Page } from 'playwright-core';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { checkAppFile } from '../../packages/app/src/index.ts';
import { launchChromium, untilHydrated } from '../support/chromium.ts';
import { gardenFile, keeper, startGarden, type TestService } from '../support/garden-service.ts';

let service: TestService;
let browser: Browser;
let page: Page;
let ran: string[];
beforeAll(async () => {
  [service, browser] = await Promise.all([startGarden(), launchChromium()]);
  const context = await browser.newContext();
  await context.request.post(`${service.base}/garden/sign-in`, { form: { '~name': keeper.login, '~password': keeper.password } });
  page = await context.newPage();
  ran = [];
  await page.exposeFunction('intruder', (from: string) => ran.push(from));
  page.on('dialog', (dialog) => {
    ran.push(dialog.message());
    void dialog.dismiss();
  });
});
afterAll(async () => {
  await browser.close();
  await service.stop();
});

const hostile = [
  '<script>intruder("script")</script>',
  '"><img src=x onerror=intruder("img")>',
  '\' autofocus onfocus=\'intruder("focus")',
  '</script></title><svg onload=intruder("svg")>',
  'javascript:intruder("scheme")',
  '{{constructor.constructor("intruder(1)")()}}{intruder("cel")}',
];

const { definition } = checkAppFile(gardenFile);
const pages = Object.entries(definition?.pages ?? {});

it.each(pages.map(([name, { address, parameters }]) => [name, address, Object.keys({ ...parameters, lang: {}, via: {} })] as const))(
  'nothing that stands in the address of “%s” runs, whatever its parameters',
  async (_, template, names) => {
    for (const text of hostile) {
      const encoded = encodeURIComponent(text);
      const path = template
        .replace(/\{\?.*\}/, '')
        .replace(/\{\/(\w+)\}/, `/${encoded}`)
        .replace(/\{(\w+)\}/, (_whole, name: string) => ({ specimen: 'QM-0412', house: 'palm', zone: 'C' })[name] ?? encoded);
      const query = names.map((name) => `${name}=${encoded}`).join('&');
      const answer = await page.goto(`${service.base}/garden${path === '/' ? '' : path}?${query}#${encoded}`);
      expect(answer?.status(), `${template} ${text}`).toBeLessThan(500);
      if (answer?.ok() === true) await untilHydrated(page);
    }
    expect(ran).toEqual([]);
  },
);

it('nothing that a visitor has written into a record runs', async () => {
  for (const [index, text] of hostile.entries()) {
    await page.goto(`${service.base}/garden/specimens/QM-000${String(index + 1)}?tab=notes&write=true`);
    await untilHydrated(page);
    await page.getByLabel('Heading').fill(text);
    await page.getByLabel(/What was seen/).fill(text);
    await page.getByRole('button', { name: 'Keep the note' }).click();
    await page.getByText(/Thank you: note/).waitFor();
    await page.getByRole('link', { name: text, exact: true }).click();
    await page.getByRole('dialog', { name: text, exact: true }).waitFor();
    await page.reload();
    await page.getByRole('dialog', { name: text, exact: true }).waitFor();
  }
  expect(ran).toEqual([]);
});
