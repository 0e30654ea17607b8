import type { Browser, BrowserContext, Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { launchChromium, untilHydrated, watchErrors } from '../support/chromium.ts';
import { keeper, startGarden, type TestService, testDay } from '../support/garden-service.ts';

let service: TestService;
let browser: Browser;
let context: BrowserContext;
let page: Page;
let errors: string[];
beforeAll(async () => {
  [service, browser] = await Promise.all([startGarden(), launchChromium()]);
});
afterAll(async () => {
  await browser.close();
  await service.stop();
});
afterEach(async () => {
  expect(errors).toEqual([]);
  await context.close();
});

const address = () => page.url().slice(service.base.length);
const untilAddress = (wanted: string) => page.waitForURL(service.base + wanted);

async function signIn() {
  await page.goto(`${service.base}/garden/sign-in`);
  await page.getByLabel("Keeper's name").fill(keeper.login);
  await page.getByLabel('Password').fill(keeper.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL(/care-rounds/);
}

/** How the service reads an address, which is the same however it came about. */
async function values(): Promise<Record<string, unknown>> {
  const answer = await fetch(`${service.base}/~/api/v1/apps/quillmoor/read`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ address: address() }),
  });
  return ((await answer.json()) as { values: Record<string, unknown> }).values;
}

describe.each([true, false])('components, with JavaScript: %s', (javaScript) => {
  beforeEach(async () => {
    context = await browser.newContext({ viewport: { width: 1280, height: 800 }, javaScriptEnabled: javaScript });
    page = await context.newPage();
    errors = watchErrors(page);
  });
  const open = async (path: string) => {
    await page.goto(`${service.base}/garden${path}`);
    if (javaScript) await untilHydrated(page);
  };
  const apply = async (name: string) => {
    if (!javaScript) await page.locator('form', { hasText: name }).getByRole('button', { name: 'Apply' }).click();
  };

  it('a radio group, a range and a page size each keep the others', async () => {
    await open('/specimens?q=e');
    await page.getByRole('radio', { name: 'Poorly' }).focus();
    await page.keyboard.press('Space');
    await apply('Health');
    await page.waitForURL(/health=poorly/);
    await page.getByLabel('from').fill('2001-01-01');
    await page.getByLabel('to', { exact: true }).fill('2020-12-31');
    await page.getByLabel('to', { exact: true }).blur();
    await apply('Planted');
    await page.waitForURL(/planted=/);
    await page.getByLabel('On a page').selectOption('10');
    await apply('On a page');
    await page.waitForURL(/size=10/);
    expect(await values()).toMatchObject({ q: 'e', health: 'poorly', planted: { from: '2001-01-01', to: '2020-12-31' }, size: 10 });
    await page.waitForFunction(() => document.querySelectorAll('tbody tr').length === 10);
  });

  it('rows are chosen, stay chosen on other pages of the list, and are sent on', async () => {
    await open('/specimens?house=palm&size=10');
    const boxes = page.getByRole('checkbox', { name: /^Choose/ });
    await boxes.nth(0).check();
    if (!javaScript) await page.getByRole('button', { name: 'Keep what is chosen' }).click();
    await page.waitForURL(/picked=/);
    await page.getByRole('link', { name: 'Page 2' }).click();
    await page.waitForURL(/page=2/);
    await page.waitForFunction(() => !document.querySelector('table.busy') && !document.querySelector('tbody input:checked'));
    await boxes.nth(3).check();
    if (!javaScript) await page.getByRole('button', { name: 'Keep what is chosen' }).click();
    await page.getByText('2 chosen').waitFor();
    await page.getByRole('link', { name: 'Print their labels' }).click();
    await page.waitForURL(/\/labels\?picked=/);
    expect(await page.locator('tbody tr').count()).toBe(2);
  });

  it('a dialog opens from a row by keyboard, stands in the address, and closing takes it out', async () => {
    await open('/specimens/QM-0412?tab=notes');
    await page.getByRole('link', { name: 'First bud' }).focus();
    await page.keyboard.press('Enter');
    await untilAddress('/garden/specimens/QM-0412?tab=notes&note=N-0441');
    await page.getByRole('dialog', { name: 'First bud' }).waitFor();
    await page.reload();
    if (javaScript) await untilHydrated(page);
    await page.getByRole('dialog', { name: 'First bud' }).waitFor();
    if (javaScript) await page.keyboard.press('Escape');
    else await page.getByRole('link', { name: 'Close' }).click();
    await untilAddress('/garden/specimens/QM-0412?tab=notes');
    expect(await page.getByRole('dialog').count()).toBe(0);
    await page.goBack();
    await page.getByRole('dialog', { name: 'First bud' }).waitFor();
  });

  it('a form says what is wrong beside the box, keeps the rest, and saves', async () => {
    await signIn();
    await open('/care-rounds?day=2026-11-18&add=true');
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Specimen').fill('QM-9999');
    await dialog.getByLabel('Remark').fill(`Written ${javaScript ? 'with' : 'without'} <i>JavaScript</i>`);
    await dialog.getByRole('button', { name: 'Write it down' }).click();
    await dialog.getByText('There is no such record.').waitFor();
    expect(await dialog.getByLabel('Specimen').getAttribute('aria-invalid')).toBe('true');
    expect(await dialog.getByLabel('Remark').inputValue()).toContain('<i>JavaScript</i>');
    errors.length = 0; // the browser notes the status 422
    await dialog.getByLabel('Specimen').fill('QM-0412');
    await dialog.getByRole('button', { name: 'Write it down' }).click();
    await untilAddress(`/garden/care-rounds?day=${testDay}`);
    await page.getByRole('cell', { name: `Written ${javaScript ? 'with' : 'without'} <i>JavaScript</i>` }).waitFor();
  });

  it('a photograph is kept while what is wrong with the form is put right, and shown with what it belongs to', async () => {
    const dot = Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==', 'base64');
    await open('/specimens/QM-0413?write=true');
    const box = page.getByLabel('Photograph');
    await box.setInputFiles({ name: 'Blüte #1 100%.png', mimeType: 'image/png', buffer: dot });
    await page.getByLabel('Heading').fill(' ');
    await page.getByRole('button', { name: 'Keep the note' }).click();
    await page.getByText('This cannot be empty.').waitFor();
    await page.getByRole('link', { name: 'Blüte #1 100%.png' }).waitFor();
    await expect.poll(() => box.inputValue()).toBe('');
    await page.getByLabel('Heading').fill(`With a picture ${String(javaScript)}`);
    await page.getByRole('button', { name: 'Keep the note' }).click();
    await page.getByRole('link', { name: `With a picture ${String(javaScript)}` }).click();
    const picture = page.getByRole('img', { name: 'The photograph that belongs to' });
    await picture.waitFor();
    expect(await picture.getAttribute('src')).toMatch(/^\/garden\/~files\/[\w-]{22}\/Bl%C3%BCte%20%231%20100%25\.png$/);
    if (javaScript) await expect.poll(() => picture.evaluate((image) => (image as HTMLImageElement).naturalWidth)).toBe(1);
  });

  it('a row is edited in its place', async () => {
    await signIn();
    await open('/care-rounds?day=2026-11-11');
    await page.getByRole('link', { name: /^Edit Needle foxtail/ }).click();
    await page.waitForURL(/entry=C-03202/);
    // The row opens when its record has come.
    if (javaScript) await page.waitForFunction(() => document.activeElement?.getAttribute('name') === 'task');
    await page.getByLabel('Remark (may stay empty)').fill('Edited in place');
    await page.getByRole('button', { name: 'Save' }).click();
    await untilAddress('/garden/care-rounds?day=2026-11-11');
    await page.getByRole('cell', { name: 'Edited in place' }).waitFor();
  });

  it('one drills from a climate to its house to a specimen, and back the same way', async () => {
    await open('/climates');
    await page.getByRole('link', { name: 'Dry thorn' }).click();
    await untilAddress('/garden/climates/C');
    await page.getByRole('link', { name: 'Thorn House' }).click();
    await untilAddress('/garden/houses/thorn');
    await page.getByRole('link', { name: 'Page 2' }).click();
    await untilAddress('/garden/houses/thorn?page=2');
    await page.waitForFunction(() => !document.querySelector('table.busy'));
    await page.locator('tbody a').first().click();
    await page.getByRole('link', { name: 'Back to the house' }).click();
    await untilAddress('/garden/houses/thorn?page=2');
  });

  it('a language stays when one moves on, and the page says its words', async () => {
    await open('/labels/QM-0412');
    await page.getByRole('link', { name: 'Deutsch' }).click();
    await untilAddress('/garden/labels/QM-0412?lang=de');
    await page.getByText('Bitte nur mit den Augen ansehen.').waitFor();
    expect(await page.locator('html').getAttribute('lang')).toBe('de');
    await page.locator('tbody a').first().click();
    await page.waitForURL(/\?lang=de$/);
    await page.getByText('Schilder der Nachbarn').first().waitFor();
  });

  it('views of the workspace are switched by the path', async () => {
    await signIn();
    await open('/workspace');
    await page.getByRole('link', { name: 'In need of care' }).click();
    await untilAddress('/garden/workspace/poorly');
    expect(await page.title()).toContain('In need of care · Workspace');
    expect(await page.getByRole('link', { name: 'In need of care' }).getAttribute('aria-current')).toBe('page');
    await page.getByRole('table', { name: 'In need of care' }).waitFor();
  });

  it('a question on the first page leads to the list, in the one written form', async () => {
    await open('');
    await page.getByLabel('Search').fill('sundew & co');
    await page.getByRole('button', { name: 'Find' }).click();
    await page.waitForURL(/specimens\?q=sundew/);
    expect(await values()).toMatchObject({ q: 'sundew & co' });
    expect((await values())['house']).toBeUndefined();
    if (javaScript) expect(address()).toBe('/garden/specimens?q=sundew%20%26%20co');
  });

  it('a view gets a short address, which leads to it in another browser until it is withdrawn', async () => {
    await open('/specimens?q=fern&picked=QM-0487');
    await page.getByRole('button', { name: 'As a short address' }).click();
    let short: string;
    if (javaScript) {
      const link = page.getByRole('link', { name: '/garden/~s/' });
      short = (await link.textContent()) ?? '';
      expect(address()).toBe('/garden/specimens?q=fern&picked=QM-0487');
      await page.goto(new URL((await link.getAttribute('href')) ?? '', service.base).href);
    } else short = page.url().replace('/about', '');
    await page.getByRole('img', { name: 'QR code' }).waitFor();
    const elsewhere = await browser.newPage();
    await elsewhere.goto(short);
    expect(elsewhere.url()).toBe(`${service.base}/garden/specimens?q=fern`);
    await page.getByRole('button', { name: 'Withdraw it' }).click();
    await page.getByText('no longer works').waitFor();
    await elsewhere.goto(short);
    await elsewhere.getByText('This short address does not work').waitFor();
    await elsewhere.close();
  });

  it('several boxes feed one list', async () => {
    await open('/notes');
    await page.getByText('Type a word, and the notes about it stand here.').waitFor();
    await page.getByLabel(/Numbers.*, 1$/).fill('N-0001');
    await page.getByLabel(/Numbers.*, 1$/).blur();
    await apply('Numbers');
    await page.waitForURL(/numbers=N-0001/);
    await page.getByLabel(/Numbers.*, 2$/).fill('N-0003');
    await page.getByLabel(/Numbers.*, 2$/).blur();
    await apply('Numbers');
    await page.waitForURL(/numbers=.*N-0003/);
    await page.getByRole('cell', { name: 'N-0003' }).waitFor();
    expect((await values())['numbers']).toEqual(['N-0001', 'N-0003']);
  });
});

describe('in the browser', () => {
  beforeEach(async () => {
    context = await browser.newContext({
      viewport: { width: 1280, height: 800 },
      permissions: ['clipboard-read', 'clipboard-write'],
      reducedMotion: 'reduce',
    });
    page = await context.newPage();
    errors = watchErrors(page);
  });

  it('the way back restores what had the focus and how far it was scrolled', async () => {
    await page.goto(`${service.base}/garden/specimens?size=50`);
    await untilHydrated(page);
    const row = page.locator('tbody tr').nth(40).getByRole('link').first();
    await row.focus();
    await page.waitForFunction(() => scrollY > 500);
    const [top, href] = await page.evaluate(() => [scrollY, document.activeElement?.getAttribute('href')]);
    await page.keyboard.press('Enter');
    await page.getByRole('link', { name: 'Care log' }).click();
    await page.getByRole('link', { name: 'Field notes' }).click();
    await page.getByRole('link', { name: 'Back to where you came from' }).click();
    await untilAddress('/garden/specimens?size=50');
    await page.waitForFunction((wanted) => Math.abs(scrollY - Number(wanted)) < 3, top);
    expect(await page.evaluate(() => document.activeElement?.getAttribute('href'))).toBe(href);
  });

  it('the share button copies the address without what is nobody else’s', async () => {
    await page.goto(`${service.base}/garden/specimens?q=fern&picked=QM-0412`);
    await untilHydrated(page);
    await page.getByRole('link', { name: 'Share this view' }).click();
    await page.getByText('The address is copied.').waitFor();
    expect(await page.evaluate(() => navigator.clipboard.readText())).toBe(`${service.base}/garden/specimens?q=fern`);
  });

  it('a view that needs no new data asks the service for nothing', async () => {
    await signIn();
    await page.goto(`${service.base}/garden/workspace`);
    await untilHydrated(page);
    const asked: string[] = [];
    page.on('request', (request) => request.url().includes('/garden') && asked.push(request.url()));
    await page.getByRole('link', { name: 'My own care' }).click();
    await page.getByRole('table', { name: 'My own care' }).waitFor();
    await page.waitForTimeout(200);
    expect(asked).toEqual([]);
  });

  it('a page brings no more scripts than it needs, and gets more when one goes on to a page that needs them', async () => {
    const scripts: string[] = [];
    page.on('request', (request) => {
      const name = /assets\/((?:form-|lazy-)?[a-z]+)-[^/]*\.js$/.exec(request.url())?.[1];
      if (name !== undefined) scripts.push(name);
    });
    await page.goto(`${service.base}/garden/climates`);
    await untilHydrated(page);
    expect([...scripts].sort()).toEqual(['shared', 'start']);
    await page.getByRole('navigation', { name: 'Main' }).getByRole('link', { name: 'Membership' }).click();
    await page.getByLabel('Mail address').fill('twice');
    // What is typed would be lost.
    page.once('dialog', (dialog) => void dialog.accept());
    expect(new Set(scripts)).toEqual(new Set(['shared', 'start', 'form-components']));
    await page.getByRole('link', { name: 'Specimens', exact: true }).click();
    await page.getByRole('button', { name: 'As a short address' }).waitFor();
    expect(new Set(scripts)).toEqual(new Set(['shared', 'start', 'form-components', 'lazy-components']));
    await page.goBack();
    await page.getByLabel('Mail address').waitFor();
    // A document that is loaded again names what it needs in its head.
    scripts.length = 0;
    await page.reload();
    await untilHydrated(page);
    expect(new Set(scripts)).toEqual(new Set(['shared', 'start', 'form-components']));
  });

  it('a script that does not come leaves a page that works without it', async () => {
    await page.route(/\/forms-/, (route) => route.abort());
    await page.goto(`${service.base}/garden/climates`);
    await untilHydrated(page);
    await page.getByRole('navigation', { name: 'Main' }).getByRole('link', { name: 'Membership' }).click();
    await page.getByLabel('Name', { exact: true }).fill('Cleo');
    await page.getByLabel('Mail address').fill('cleo@quillmoor.example');
    await page.getByRole('button', { name: 'Join' }).click();
    await page.getByRole('heading', { name: 'Welcome, Cleo' }).waitFor();
    errors.length = 0; // the browser notes the script that did not come
  });

  it('a form whose session has ended leads to sign-in and back, with what was typed', async () => {
    await signIn();
    await page.goto(`${service.base}/garden/care-rounds?add=true`);
    await untilHydrated(page);
    await page.getByRole('dialog').getByLabel('Specimen').fill('QM-0007');
    await page.getByRole('dialog').getByLabel('Remark').fill('Not to be lost');
    await context.clearCookies({ name: 'pallmist_quillmoor_person' });
    await page.getByRole('button', { name: 'Write it down' }).click();
    await page.waitForURL(/sign-in/);
    await page.getByLabel("Keeper's name").fill(keeper.login);
    await page.getByLabel('Password').fill(keeper.password);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await untilAddress('/garden/care-rounds?add=true');
    expect(await page.getByRole('dialog').getByLabel('Remark').inputValue()).toBe('Not to be lost');
    await page.getByRole('button', { name: 'Write it down' }).click();
    await page.getByRole('cell', { name: 'Not to be lost' }).waitFor();
  });

  it('a form that does not get through keeps what was typed, and says so', async () => {
    await page.goto(`${service.base}/garden/specimens/QM-0002?tab=notes&write=true`);
    await untilHydrated(page);
    await page.getByLabel('Heading').fill('Offline');
    await context.setOffline(true);
    await page.getByRole('button', { name: 'Keep the note' }).click();
    await page.getByText('The service did not answer. Nothing is saved yet; what you typed is still here.').waitFor();
    await context.setOffline(false);
    errors.length = 0; // the browser's own report
    expect(await page.getByLabel('Heading').inputValue()).toBe('Offline');
    await page.getByRole('button', { name: 'Keep the note' }).click();
    await page.getByText(/Thank you: note N-\d+ is in the file\./).waitFor();
    expect(address()).toBe('/garden/specimens/QM-0002?tab=notes');
  });

  it('who makes an account is welcomed by a dialog, once', async () => {
    await page.goto(`${service.base}/garden/join`);
    await untilHydrated(page);
    await page.getByLabel('Your name').fill('Wyn Marlow');
    await page.getByLabel('Name to sign in with').fill('wyn');
    await page.getByLabel('Password').fill('bog-and-heather');
    await page.getByRole('button', { name: 'Come in' }).click();
    await untilAddress('/garden');
    await page.getByRole('dialog', { name: 'Good to have you, Wyn Marlow' }).waitFor();
    await untilHydrated(page);
    await page.keyboard.press('Escape');
    await page.getByRole('dialog').waitFor({ state: 'detached' });
    await page.reload();
    expect(await page.getByRole('dialog').count()).toBe(0);
  });

  it('what stands after “#” survives sign-in', async () => {
    await page.goto(`${service.base}/garden/care-rounds?task=feed#content`);
    await untilHydrated(page);
    await page.getByLabel("Keeper's name").fill(keeper.login);
    await page.getByLabel('Password').fill(keeper.password);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await untilAddress('/garden/care-rounds?task=feed#content');
  });

  it('two tabs do not disturb each other', async () => {
    await page.goto(`${service.base}/garden/specimens`);
    await untilHydrated(page);
    const second = await context.newPage();
    await second.goto(`${service.base}/garden/specimens?house=fern`);
    await untilHydrated(second);
    await page.getByRole('searchbox').fill('moss');
    await untilAddress('/garden/specimens?q=moss');
    await second.getByRole('searchbox').fill('lily');
    await second.waitForURL(/q=lily&house=fern/);
    expect(address()).toBe('/garden/specimens?q=moss');
    expect(await page.getByRole('searchbox').inputValue()).toBe('moss');
  });
});
