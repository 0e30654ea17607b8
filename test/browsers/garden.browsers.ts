import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { keeper, startGarden, type TestService } from '../support/garden-service.ts';
import { until, type DrivenBrowser } from './driven-browser.ts';
import { startFirefox } from './firefox.ts';
import { startWebKit } from './webkit.ts';

let service: TestService;
beforeAll(async () => {
  service = await startGarden();
});
afterAll(() => service.stop());

const here = () => location.pathname + location.search;

describe.each([
  ['Firefox', startFirefox],
  ['WebKit', startWebKit],
])('the garden in %s', (_, start) => {
  let browser: DrivenBrowser;
  beforeAll(async () => {
    browser = await start();
  });
  afterAll(() => browser.close());

  const untilHydrated = () => until(browser, () => document.documentElement.dataset['hydrated'] === 'true');
  const open = async (path: string) => {
    await browser.open(service.base + path);
    await untilHydrated();
  };
  const untilHere = (path: string) => until(browser, (wanted: string) => location.pathname + location.search === wanted, path);
  const click = (text: string) =>
    browser.run((words: string) => {
      const found = [...document.querySelectorAll<HTMLElement>('main a, main button')].find(
        ({ textContent }) => textContent?.trim() === words,
      );
      if (!found) throw new Error(`Nothing says “${words}”.`);
      found.click();
    }, text);

  it('a tab changes in place, and a reload agrees with the address', async () => {
    await open('/garden/specimens/QM-0412');
    await browser.run(() => void Object.assign(window, { mark: 1 }));
    await click('Care log');
    await untilHere('/garden/specimens/QM-0412?tab=care');
    expect(await browser.run(() => 'mark' in window)).toBe(true);
    const before = await browser.run(() => document.querySelector('main')?.textContent);
    await browser.reload();
    await untilHydrated();
    expect(await browser.run(() => document.querySelector('main')?.textContent)).toBe(before);
  });

  it('a search is typed, kept in the address, and there again after Back', async () => {
    await open('/garden/specimens?house=palm');
    await browser.run(() => {
      const box = document.querySelector<HTMLInputElement>('main input[name="q"]');
      if (!box) throw new Error('There is no box for a search.');
      box.value = 'fern';
      box.dispatchEvent(new InputEvent('input', { bubbles: true }));
    });
    await until(browser, () => location.search.includes('q=fern'));
    await until(browser, () => [...document.querySelectorAll('tbody tr')].every((row) => /fern/i.test(row.textContent ?? '')));
    await browser.run(() => {
      document.querySelector<HTMLElement>('tbody td a')?.click();
    });
    await until(browser, () => location.pathname.startsWith('/garden/specimens/'));
    const record = await browser.run(here);
    await browser.back();
    await untilHere('/garden/specimens?q=fern&house=palm');
    await browser.forward();
    await untilHere(record);
    await browser.back();
    await untilHere('/garden/specimens?q=fern&house=palm');
    await until(browser, () => document.querySelector<HTMLInputElement>('main input[name="q"]')?.value === 'fern');
  });

  it('sign-in leads back to the address that was asked for, with its values', async () => {
    await open('/garden/care-rounds?task=water');
    expect(await browser.run(here)).toMatch(/^\/garden\/sign-in/);
    await browser.run(({ login, password }: { login: string; password: string }) => {
      const form = document.querySelector<HTMLFormElement>('main form:has(input[type="password"])');
      const [name, secret] = [
        form?.querySelector<HTMLInputElement>('input[autocomplete="username"]'),
        form?.querySelector<HTMLInputElement>('input[type="password"]'),
      ];
      if (!form || !name || !secret) throw new Error('There is no form to sign in.');
      name.value = login;
      secret.value = password;
      form.requestSubmit();
    }, keeper);
    await untilHere('/garden/care-rounds?task=water');
  });
});
