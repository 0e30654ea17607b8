import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import type { Browser, Page } from 'playwright-core';
import { build } from 'vite';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { launchChromium } from '../../../test/support/chromium.ts';

// Each part of the browser's half by itself, in a browser, against a server that answers what the service may answer.
const folder = fileURLToPath(new URL('../src/hydration/', import.meta.url));
const entry = `${folder}all.ts`;
const code = ['fetching', 'focus', 'forms', 'history-entry', 'links'].map((name) => `export * from './${name}.ts';`).join('\n');

async function bundle(): Promise<string> {
  const result = await build({
    root: folder,
    configFile: false,
    logLevel: 'silent',
    plugins: [
      {
        name: 'entry',
        enforce: 'pre',
        resolveId: (id) => (id === entry ? id : undefined),
        load: (id) => (id === entry ? code : undefined),
      },
    ],
    build: { write: false, minify: false, lib: { entry, formats: ['iife'], name: 'hydration' } },
  });
  return (result as unknown as [{ output: [{ code: string }] }])[0].output[0].code;
}

const dataType = 'application/vnd.pallmist.page-data+json';
const asked: string[] = [];
let server: Server;
let base = '';
let browser: Browser;
let page: Page;
let script = '';

beforeAll(async () => {
  script = await bundle();
  server = createServer((request, response) => {
    const { pathname } = new URL(request.url ?? '/', 'http://x');
    asked.push(`${request.method ?? ''} ${pathname}`);
    const answer = (status: number, type: string, body: string, more = {}) =>
      response.writeHead(status, { 'content-type': type, ...more }).end(body);
    const answers: Record<string, () => unknown> = {
      '/data': () => answer(200, `${dataType}; charset=utf-8`, '{"name":"home"}'),
      '/moved': () => answer(303, 'text/html', '', { location: '/data' }),
      '/missing': () => answer(404, 'text/html', 'none'),
      '/broken': () => answer(500, 'text/html', '<main><p>It failed.</p></main>'),
      '/other': () => answer(200, 'text/html', 'a page'),
      '/saved': () => answer(200, dataType, '{"saved":"/data"}'),
      '/refused': () => answer(413, 'text/html', '<main><p>The form is too large.</p></main>'),
    };
    const known = answers[pathname];
    if (known) known();
    else
      answer(
        200,
        'text/html',
        `<title>x</title><body style="height:5000px"><a id="far" href="/data" style="position:absolute;top:3000px">far</a>
      <input name="q"><a href="/own?a=1">own</a><a href="/own" target="_blank">new</a><a href="https://other.example/">other</a>
      <form action="/saved" method="post"><input name="a" value="1"></form></body>`,
      );
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  base = `http://127.0.0.1:${String((server.address() as AddressInfo).port)}`;
  browser = await launchChromium();
});
afterAll(async () => {
  await browser.close();
  server.close();
});
beforeEach(async () => {
  page = await browser.newPage();
  await page.goto(`${base}/page`);
  await page.addScriptTag({ content: `${script}; window.hydration = hydration;` });
  asked.length = 0;
});

type Hydration = typeof import('../src/hydration/fetching.ts') &
  typeof import('../src/hydration/focus.ts') &
  typeof import('../src/hydration/forms.ts') &
  typeof import('../src/hydration/history-entry.ts') &
  typeof import('../src/hydration/links.ts');
declare global {
  interface Window {
    hydration: Hydration;
    opened: string[];
  }
}

describe('fetching', () => {
  const take = (address: string) =>
    page.evaluate(
      (wanted) => new window.hydration.AheadFetcher().take(wanted, new AbortController().signal).catch((error: Error) => error.message),
      address,
    );

  it('gives a payload, or says that there is a document of its own', async () => {
    expect(await take('/data')).toEqual({ payload: { name: 'home' } });
    for (const address of ['/moved', '/missing', '/other']) expect(await take(address), address).toEqual({ document: true });
    expect(await take('/broken')).toBe('status 500');
  });

  it('fetches ahead once, gives it once, and forgets it when something has changed', async () => {
    await page.evaluate(async () => {
      const ahead = new window.hydration.AheadFetcher();
      const { signal } = new AbortController();
      ahead.begin('/data');
      ahead.begin('/data');
      await ahead.take('/data', signal);
      await ahead.take('/data', signal);
      ahead.begin('/data');
      ahead.clear();
      await ahead.take('/data', signal);
    });
    expect(asked.filter((request) => request === 'GET /data')).toHaveLength(4);
  });
});

describe('forms', () => {
  it('are sent, and what came of them is told; a page that refuses gives its sentence', async () => {
    const send = (action: string) =>
      page.evaluate((to) => {
        const form = document.forms[0]!;
        form.action = to;
        return window.hydration.sendForm(form).catch((error: Error) => error.message);
      }, action);
    expect(await send('/saved')).toEqual({ saved: '/data' });
    expect(await send('/refused')).toBe('The form is too large.');
  });
});

describe('the history', () => {
  it('restores scroll position and focus of the entry that was left', async () => {
    await page.evaluate(() => {
      window.hydration.entry.restoreFrom(undefined);
      document.getElementById('far')!.focus();
      window.scrollTo(0, 2500);
      window.hydration.entry.keep();
      history.pushState(window.hydration.entry.ofPageAfter({ page: 'home', address: '/data' }), '', '/next');
      window.hydration.entry.restore();
    });
    expect(await page.evaluate(() => [window.scrollY, window.hydration.entry.previous?.steps])).toEqual([0, 1]);
    await page.evaluate(() => {
      document.body.tabIndex = -1;
      (document.activeElement as HTMLElement).blur();
    });
    await page.goBack();
    expect(await page.evaluate(() => window.hydration.entry.restore()?.id)).toBe('far');
    expect(await page.evaluate(() => window.scrollY)).toBe(2500);
  });

  it('counts the steps since the page before', async () => {
    const steps = await page.evaluate(() => {
      const { entry } = window.hydration;
      history.pushState(entry.ofPageAfter({ page: 'home', address: '/data' }), '', '/a');
      history.pushState(entry.ofStep(), '', '/b');
      history.pushState(entry.ofStep(), '', '/c');
      return entry.previous;
    });
    expect(steps).toEqual({ page: 'home', address: '/data', steps: 3 });
  });
});

it('what has the focus is found again by its id, its address or its name', async () => {
  const found = await page.evaluate(() =>
    ['#far', 'input[name="q"]', 'a[href="/own?a=1"]'].map((selector) => {
      document.querySelector<HTMLElement>(selector)!.focus();
      const by = window.hydration.focused();
      (document.activeElement as HTMLElement).blur();
      return [by, window.hydration.focusAgain(by) === document.querySelector(selector), window.hydration.focusAgain('#gone')];
    }),
  );
  expect(found).toEqual([
    ['#far', true, undefined],
    ['input[name="q"]', true, undefined],
    ['a[href="\\/own\\?a\\=1"]', true, undefined],
  ]);
});

it('links of the app open in place; those of other sites, of new windows, and clicks with a key do not', async () => {
  await page.evaluate(() => {
    window.opened = [];
    window.hydration.followLinks(document.body, {
      mayLeave: () => true,
      isOwn: (url) => url.pathname.startsWith('/own'),
      open: (address) => window.opened.push(`open ${address}`),
      intend: (address) => window.opened.push(`intend ${address}`),
    });
    document.body.addEventListener('click', (event) => {
      event.preventDefault();
    });
  });
  await page.getByText('own').click();
  for (const text of ['new', 'other', 'far']) await page.getByText(text).click();
  await page.getByText('own').click({ modifiers: ['Control'] });
  const opened = await page.evaluate(() => window.opened);
  expect(opened.filter((what) => what.startsWith('open'))).toEqual(['open /own?a=1']);
  expect(opened).toContain('intend /own?a=1');
  expect(opened.join()).not.toMatch(/other|far|data/);
});
