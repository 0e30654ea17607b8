import type { Browser, BrowserContext, Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { axeProblems, rulesOfTheLook } from '../support/axe.ts';
import { launchChromium, untilHydrated, watchErrors } from '../support/chromium.ts';
import { keeper, startGarden, type TestService } from '../support/garden-service.ts';

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

const address = () => page.url().slice(service.base.length);
const untilAddress = (wanted: string) => page.waitForURL(service.base + wanted);
/** The table of specimens has a box to choose each row before its name. */
const names = () => page.locator('tbody td:nth-child(2)').allInnerTexts();

async function open(javaScriptEnabled: boolean) {
  context = await browser.newContext({ viewport: { width: 1280, height: 800 }, javaScriptEnabled });
  page = await context.newPage();
  errors = watchErrors(page);
}

afterEach(async () => {
  expect(errors).toEqual([]);
  await context.close();
});

describe('a visitor with JavaScript', () => {
  beforeEach(() => open(true));

  it('changes the tab in place; the address follows, and reload, Back and a second tab agree', async () => {
    await page.goto(`${service.base}/garden/specimens?q=needle&house=thorn`);
    await page.getByRole('link', { name: 'Needle foxtail' }).first().click();
    await untilHydrated(page);
    await page.evaluate(() => ((globalThis as { mark?: number }).mark = 1));
    await page.getByRole('link', { name: 'Care log' }).click();
    await untilAddress('/garden/specimens/QM-0412?tab=care');
    expect(await page.getByRole('table').innerText()).toContain('Soil dry to a finger’s depth.');
    expect(await page.evaluate(() => (globalThis as { mark?: number }).mark)).toBe(1);
    const before = await page.locator('main').innerText();
    await page.reload();
    expect(await page.locator('main').innerText()).toBe(before);
    const second = await context.newPage();
    await second.goto(page.url());
    expect(await second.locator('main').innerText()).toBe(before);
    await page.goBack();
    await untilAddress('/garden/specimens?q=needle&house=thorn');
  });

  it('moves between pages without loading the document, and back to the list as it was left', async () => {
    await page.goto(`${service.base}/garden/specimens?house=palm`);
    await untilHydrated(page);
    await page.evaluate(() => ((globalThis as { mark?: number }).mark = 1));
    await page.getByRole('searchbox').fill('e');
    await untilAddress('/garden/specimens?q=e&house=palm');
    await page.waitForFunction(() => !document.querySelector('table.busy'));
    const last = page.locator('tbody tr').last();
    await last.scrollIntoViewIfNeeded();
    const [, name = ''] = await last.locator('td').allInnerTexts();
    const scrolled = await page.evaluate(() => scrollY);
    expect(scrolled).toBeGreaterThan(100);
    await last.getByRole('link').first().click();
    await page.getByRole('heading', { name, level: 1 }).waitFor();
    expect(await page.title()).toContain(name);
    expect(await page.evaluate(() => [scrollY, document.activeElement?.id])).toEqual([0, 'content']);
    await page.getByRole('link', { name: 'Field notes' }).click();
    await page.getByRole('link', { name: 'Glasshouses', exact: true }).click();
    await untilAddress('/garden/houses');
    await page.goBack();
    await page.getByRole('heading', { name, level: 1 }).waitFor();
    expect(address()).toMatch(/\?tab=notes$/);
    await page.goBack();
    await untilAddress('/garden/specimens?q=e&house=palm');
    await last.waitFor();
    await page.waitForFunction((top) => Math.abs(scrollY - top) < 3, scrolled);
    expect(await page.getByRole('searchbox').inputValue()).toBe('e');
    expect(await page.evaluate(() => (globalThis as { mark?: number }).mark)).toBe(1);
    // What the service has to say itself is a document: sign-in, and a record that is gone.
    await page.getByRole('link', { name: 'Care rounds' }).click();
    await page.waitForURL('**/sign-in?*');
  });

  it('searches, filters and sorts; typing is one step of the history', async () => {
    await page.goto(`${service.base}/garden/specimens?page=3`);
    await untilHydrated(page);
    await page.getByRole('combobox', { name: 'Glasshouse' }).selectOption('palm');
    await untilAddress('/garden/specimens?house=palm');
    await page.getByRole('searchbox').pressSequentially('fern', { delay: 30 });
    await untilAddress('/garden/specimens?q=fern&house=palm');
    await page.getByRole('link', { name: 'Height (m)' }).click();
    await untilAddress('/garden/specimens?q=fern&house=palm&sort=height');
    await page.getByRole('link', { name: 'Height (m)' }).click();
    await untilAddress('/garden/specimens?q=fern&house=palm&sort=-height');
    await page.waitForFunction(() => !document.querySelector('table.busy'));
    const heights = (await page.locator('tbody td:nth-child(6)').allInnerTexts()).map(Number);
    expect(heights).toEqual([...heights].sort((a, b) => b - a));
    expect((await names()).every((name) => name.includes('fern'))).toBe(true);
    await page.goBack();
    await untilAddress('/garden/specimens?house=palm');
    await page.waitForFunction(() => document.querySelector<HTMLInputElement>('input[type=search]')?.value === '');
    await page.goBack();
    await untilAddress('/garden/specimens?page=3');
    await page.goForward();
    await page.goForward();
    await untilAddress('/garden/specimens?q=fern&house=palm&sort=-height');
    await page.waitForFunction(() => document.querySelector<HTMLInputElement>('input[type=search]')?.value === 'fern');
  });

  it('is told when the service does not answer, and can try again', async () => {
    await page.goto(`${service.base}/garden/specimens`);
    await untilHydrated(page);
    await page.route('**/specimens?house=fern', (route) => route.abort());
    await page.getByRole('combobox', { name: 'Glasshouse' }).selectOption('fern');
    await page.getByRole('alert').waitFor();
    expect(address()).toBe('/garden/specimens?house=fern');
    await page.unroute('**/specimens?house=fern');
    errors.length = 0; // the browser's own report of the aborted request
    await page.getByRole('button', { name: 'Try again' }).click();
    await page.waitForFunction(() =>
      [...document.querySelectorAll('tbody td:nth-child(4)')].every((cell) => cell.textContent?.trim() === 'Fern House'),
    );
    expect(await page.getByRole('alert').count()).toBe(0);
  });

  it('shows the last answer when answers come late and out of order', async () => {
    await page.goto(`${service.base}/garden/specimens`);
    await untilHydrated(page);
    await page.route('**/specimens?health=poorly', async (route) => {
      await new Promise((resolve) => setTimeout(resolve, 600));
      await route.continue();
    });
    await page.getByRole('radio', { name: 'Poorly' }).check();
    await page.getByRole('radio', { name: 'Resting' }).check();
    await untilAddress('/garden/specimens?health=resting');
    await page.waitForTimeout(900);
    expect(new Set(await page.locator('tbody td:nth-child(7)').allInnerTexts())).toEqual(new Set(['Resting']));
    errors.length = 0;
  });

  it('survives a browser that refuses to change the history', async () => {
    await page.addInitScript(() => {
      const replace = history.replaceState.bind(history);
      let refusals = 2;
      history.replaceState = (...given: Parameters<History['replaceState']>) => {
        if (refusals-- > 0) throw new DOMException('too often', 'SecurityError');
        replace(...given);
      };
    });
    await page.goto(`${service.base}/garden/specimens/QM-0412`);
    await untilHydrated(page);
    await page.getByRole('link', { name: 'Field notes' }).click();
    await page.getByRole('table', { name: 'Field notes on Needle foxtail' }).waitFor();
    expect(address()).toBe('/garden/specimens/QM-0412');
    await untilAddress('/garden/specimens/QM-0412?tab=notes');
  });

  it('runs nothing that stands in an address', async () => {
    let ran = false;
    await page.exposeFunction('intruder', () => (ran = true));
    for (const text of [
      '<script>intruder()</script>',
      '"><img src=x onerror=intruder()>',
      "'-intruder()-'",
      '</script><script>intruder()</script>',
      '{intruder()}',
      '{{constructor}}',
    ]) {
      await page.goto(`${service.base}/garden/specimens?q=${encodeURIComponent(text)}&house=${encodeURIComponent(text)}`);
      await untilHydrated(page);
      expect(await page.getByRole('searchbox').inputValue()).toBe(text);
    }
    expect(ran).toBe(false);
  });
});

describe('a visitor without JavaScript', () => {
  beforeEach(() => open(false));

  it('does the same by links and forms, and gets the same pages', async () => {
    await page.goto(`${service.base}/garden/specimens?sort=-height&page=2`);
    await page.getByRole('searchbox').fill('fern');
    await page.getByRole('button', { name: 'Search' }).click();
    await untilAddress('/garden/specimens?q=fern&sort=-height');
    await page.getByRole('combobox', { name: 'Glasshouse' }).selectOption('palm');
    await page.getByRole('button', { name: 'Apply' }).first().click();
    expect(address()).toBe('/garden/specimens?q=fern&house=palm&sort=-height');
    expect((await names()).every((name) => name.includes('fern'))).toBe(true);
    await page.getByRole('link', { name: 'Name', exact: true }).click();
    await untilAddress('/garden/specimens?q=fern&house=palm');
    await page.goto(`${service.base}/garden/specimens/QM-0412`);
    await page.getByRole('link', { name: 'Care log' }).click();
    await untilAddress('/garden/specimens/QM-0412?tab=care');
    expect(await page.getByRole('table').innerText()).toContain('Repotting');
  });
});

describe.each([true, false])('filters, with JavaScript: %s', (javaScript) => {
  beforeEach(() => open(javaScript));
  const apply = async (name: string) => {
    if (!javaScript) await page.locator('form', { hasText: name }).getByRole('button', { name: 'Apply' }).click();
  };

  it('choose several zones and a day, and keep one another', async () => {
    await page.goto(`${service.base}/garden/specimens?q=e`);
    if (javaScript) await untilHydrated(page);
    await page.getByRole('checkbox', { name: 'Fog desert' }).check();
    await apply('Climate zones');
    await page.waitForURL(/zones=fog-desert/);
    await page.getByRole('checkbox', { name: 'Tea slope' }).check();
    await apply('Climate zones');
    await page.waitForURL(/tea-slope/);
    await page.getByRole('group', { name: 'Planted' }).getByLabel('from').fill('2015-01-01');
    await page.getByRole('group', { name: 'Planted' }).getByLabel('from').blur();
    await apply('Planted');
    await page.waitForURL(/planted=2015-01-01/);
    const reading = await fetch(`${service.base}/~/api/v1/apps/quillmoor/read`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ address: address() }),
    });
    // However a form has written it, it reads the same, and Pallmist writes it in one form.
    expect(await reading.json()).toMatchObject({
      values: { q: 'e', zones: ['fog-desert', 'tea-slope'], planted: { from: '2015-01-01' } },
      address: '/garden/specimens?q=e&zones=fog-desert,tea-slope&planted=2015-01-01.%2E',
    });
    await page.waitForFunction(() => !document.querySelector('table.busy'));
    const days = await page.locator('tbody td:nth-child(5)').allInnerTexts();
    expect(days.length).toBeGreaterThan(0);
    expect(days.every((day) => day >= '2015-01-01')).toBe(true);
  });

  it('are set by the bars of a chart, and taken back', async () => {
    await page.goto(`${service.base}/garden/numbers`);
    if (javaScript) await untilHydrated(page);
    const poorly = page.getByRole('link', { name: /^Poorly/ });
    const all = await poorly.textContent();
    await poorly.click();
    await untilAddress('/garden/numbers?health=poorly');
    expect(await poorly.textContent()).toBe(all);
    await page.getByRole('link', { name: /^Thriving\s*0$/ }).waitFor();
    expect(await poorly.getAttribute('aria-current')).toBe('true');
    await page.getByText('As a table').first().click();
    expect(await page.getByRole('table', { name: 'Specimens by health' }).innerText()).toContain('Resting\t0');
    await poorly.click();
    await untilAddress('/garden/numbers');
  });

  it('turn a switch by pointer and by space bar', async () => {
    await page.goto(`${service.base}/garden/houses/palm`);
    if (javaScript) await untilHydrated(page);
    await page.getByRole('switch', { name: 'Tell me its story' }).click();
    await untilAddress('/garden/houses/palm?story=true');
    await page.getByRole('region', { name: 'What they say about it' }).waitFor();
    await page.getByRole('switch').focus();
    await page.keyboard.press(javaScript ? 'Space' : 'Enter');
    await untilAddress('/garden/houses/palm');
    expect(await page.getByRole('region', { name: 'What they say about it' }).count()).toBe(0);
  });
});

describe.each([true, false])('a keeper, with JavaScript: %s', (javaScript) => {
  beforeEach(() => open(javaScript));

  it('is asked to sign in, is told why, and lands where they meant to go', async () => {
    const wanted = '/garden/care-rounds?day=2026-11-18&task=water';
    await page.goto(service.base + wanted);
    expect(await page.getByRole('status').innerText()).toContain('The care rounds are for keepers');
    await page.getByLabel('Keeper’s name', { exact: false }).or(page.getByLabel("Keeper's name")).first().fill(keeper.login);
    await page.getByLabel('Password').fill('guess');
    await page.getByRole('button', { name: 'Sign in' }).click();
    expect(await page.getByRole('status').innerText()).toContain('do not belong together');
    await page.getByLabel("Keeper's name").fill(keeper.login);
    await page.getByLabel('Password').fill(keeper.password);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await untilAddress(wanted);
    expect(await page.locator('main').innerText()).toContain('Good to see you, Ansa Wetherel.');
    await page.getByRole('button', { name: 'Sign out' }).click();
    expect(await page.getByRole('status').innerText()).toContain('You are signed out.');
  });
});

describe('every page, light and wide, then dark and narrow', () => {
  beforeEach(() => open(true));

  const looksRight = async (path: string) => {
    await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.goto(`${service.base}/garden${path}`);
    for (const [colorScheme, width] of [['light', 1280] as const, ['dark', 390] as const]) {
      await page.emulateMedia({ colorScheme, reducedMotion: 'reduce' });
      await page.setViewportSize({ width, height: 800 });
      const where = `${path}, ${colorScheme}, ${String(width)} wide`;
      expect(await axeProblems(page, colorScheme === 'dark' ? [...rulesOfTheLook, 'target-size'] : undefined), where).toEqual([]);
      expect(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth), where).toBeLessThanOrEqual(0);
    }
    errors.length = 0;
  };

  it.each([
    '',
    '/specimens?health=x',
    '/specimens?q=zzz',
    '/specimens/QM-0412',
    '/specimens/QM-0412?tab=care',
    '/houses',
    '/houses/palm',
    '/specimens?picked=QM-0412',
    '/specimens/QM-0412?tab=notes&note=N-0441',
    '/specimens/QM-0412?tab=notes&write=true',
    '/labels/QM-0412?lang=fr',
    '/labels',
    '/notes?words=frost',
    '/climates',
    '/climates/C',
    '/numbers?house=palm&health=poorly',
    '/membership?via=gate',
    '/join',
    '/sign-in?~why=wrong-password',
    '/sign-in?~why=mail-sent',
    '/specimens/QM-0412?adopt=true',
    '/nowhere',
  ])('“%s” passes axe-core and does not scroll sideways', looksRight);

  it('a short address passes too', async () => {
    const made = await context.request.post(`${service.base}/garden/~s`, { form: { of: '/garden/specimens' }, maxRedirects: 0 });
    await looksRight((made.headers()['location'] ?? '').replace('/garden', ''));
  });

  it.each(['/care-rounds?entry=C-03202&day=2026-11-11', '/care-rounds?add=true', '/workspace/poorly', '/ledger'])(
    '“%s” passes too, for a keeper',
    async (path) => {
      await context.request.post(`${service.base}/garden/sign-in`, { form: { '~name': keeper.login, '~password': keeper.password } });
      await looksRight(path);
    },
  );
});
