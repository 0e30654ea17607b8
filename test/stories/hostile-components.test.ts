import type { Browser, Page } from 'playwright-core';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { checkAppFile, parameterTypes, writeAddress } from '../../packages/app/src/index.ts';
import { launchChromium, untilHydrated } from '../support/chromium.ts';
import { csvSource } from '../../packages/service/src/api/router.ts';
import { startTestService, type TestService } from '../support/garden-service.ts';
import { isLong } from '../support/often.ts';

/** What strangers write. A new trick is a line here. */
const tricks: Record<string, string> = {
  script: '<script>intruder("script")</script>',
  'end of an attribute': '"><img src=x onerror=intruder("img")>',
  'end of a quoted attribute': '\' autofocus onfocus=\'intruder("focus")',
  'end of the title': '</title></textarea></style></script><svg onload=intruder("svg")>',
  'a scheme': 'javascript:intruder("scheme")',
  'a scheme in disguise': ' java\tscript:intruder("tab")',
  'data that is a page': 'data:text/html,<script>parent.intruder("data")</script>',
  'an expression': '{intruder("cel")}{{constructor.constructor("intruder(1)")()}}${intruder(2)}',
  'a comment': '--><script>intruder("comment")</script><!--',
  'an entity': '&lt;img src=x onerror=intruder(&quot;entity&quot;)&gt;',
  'another site': '//evil.example/x',
  'separators of lines': '\u2028intruder("line")\u2029',
};
const texts = Object.values(tricks);

/** Every type of parameter, each with the components that show or bind it. What is written there is a text with a value. */
const app = `
pallmist: 1
app: hostile
title: Hostile
mount: /h
language: tongue
choices:
  tongues: { en: English, de: '"><b>Deutsch' }
  odd: { plain: Plain, tricky: ${JSON.stringify(texts[1])} }
parameters:
  tongue: { type: choice, of: tongues, default: en }
  via: { type: text, reach: visit }
words:
  w: { en: ${JSON.stringify(texts[0])} }
sites:
  out: { base: https://out.example, withVisit: [via] }
collections:
  things:
    keyField: code
    titleField: name
    fields: { code: { type: text, required: true }, name: { type: text }, proof: { type: file } }
mails: {}
signIn:
  page: all
  byMail: { subject: s, text: "{link.enter}" }
  newcomers: { roles: [] }
navigation:
  - { text: "{app.title}", to: { page: all } }
pages:
  one:
    title: "{param.path}"
    address: /one/{path}{?t}
    parameters: { path: { type: text }, t: { type: text } }
    content:
      - { show: heading, level: 1, text: "{param.path}" }
      - { show: link, text: "{param.t}", to: { page: one, values: { path: "{param.path}", t: "{param.t}" } } }
      - { show: search, bind: t, label: "{param.path}" }
  all:
    title: "{param.text} {word.w}"
    address: /{?text,integer,number,boolean,date,datetime,colour,choice,record,page,sort,range,list,packed,records,chosen,edited,open}
    parameters:
      text: { type: text }
      integer: { type: integer, default: 1 }
      number: { type: number }
      boolean: { type: boolean, default: false }
      date: { type: date }
      datetime: { type: datetime }
      colour: { type: colour }
      choice: { type: choice, of: odd, default: plain }
      record: { type: record, of: things }
      page: { type: page }
      sort: { type: sort, of: things, default: code }
      range: { type: range, of: integer }
      list: { type: list, items: { type: text } }
      packed: { type: packed, schema: { type: object, properties: { a: { type: string } } } }
      records: { type: list, items: { type: record, of: things } }
      chosen: { type: list, items: { type: record, of: things } }
      edited: { type: record, of: things }
      open: { type: boolean, default: false }
    arrival:
      - { when: has(param.text), notice: "{param.text}" }
    rows:
      things: { from: things, sort: "{param.sort}", page: "{param.integer}", size: 50 }
      alike: { from: things, where: [{ field: name, contains: "{param.text}" }] }
    content:
      - { show: heading, level: 1, text: "{param.text}" }
      - { show: text, text: "{param.text} {param.integer} {param.number} {param.date} {param.datetime} {param.colour} {param.page} {param.list} {label.choice} {label.record}" }
      - { show: notice, text: "{param.?packed.a.orValue('none')} {visit.via}" }
      - { show: image, file: "{param.text}", alt: "{param.text}" }
      - { show: link, text: "{param.text}", to: { page: all, keep: true } }
      - { show: link, look: button, text: "{param.text}", to: { page: one, values: { path: "{param.text}", t: "{param.text}" }, window: new } }
      - { show: back, text: "{param.text}", to: { page: one, values: { path: "{param.text}" } } }
      - { show: site-link, text: "{param.text}", site: out, path: "{param.text}", query: { q: "{param.text}" } }
      - { show: share, text: "{param.text}", qr: true, short: true, withVisit: true }
      - { show: language, label: "{param.text}" }
      - { show: navigation, label: "{param.text}", bind: choice }
      - { show: search, bind: text, label: "{param.text}", placeholder: "{param.text}" }
      - { show: select, bind: record, label: "{param.text}", anyLabel: "{param.text}" }
      - { show: radio, bind: choice, label: "{param.text}", anyLabel: "{param.text}" }
      - { show: checkboxes, bind: records, label: "{param.text}" }
      - { show: toggle, bind: boolean, label: "{param.text}" }
      - { show: input, bind: text, label: "{param.text}" }
      - { show: input, bind: date, label: Date }
      - { show: input, bind: integer, label: Integer }
      - { show: input, bind: number, label: Number }
      - { show: input, bind: range, label: Range }
      - { show: input, bind: list, label: "{param.text}" }
      - { show: panel, label: "{param.text}", content: [{ show: text, text: "{param.text}" }] }
      - { show: dialog, bind: open, label: "{param.text}", content: [{ show: text, text: "{param.text}" }] }
      - { show: tabs, bind: choice, label: "{param.text}", panes: { plain: [{ show: text, text: "{param.text}" }], tricky: [{ show: text, text: "{param.text}" }] } }
      - { show: views, bind: choice, panes: { plain: [], tricky: [] } }
      - show: table
        rows: things
        label: "{param.text}"
        bind: { sort: sort, tick: chosen }
        edit: { bind: edited, name: change, fields: [name], button: "{param.text}" }
        link: { page: one, values: { path: "{row.code}" } }
        columns: [{ field: name, label: "{param.text}" }, { field: code, text: "{row.name}{param.text}" }, { field: proof }]
      - { show: list, rows: alike, label: "{param.text}", text: "{row.name}", detail: "{param.text}", image: "{row.code}", link: { page: one, values: { path: "{row.code}" } }, empty: "{param.text}" }
      - { show: pager, rows: things, bind: integer }
      - { show: details, bind: record, fields: [code, name, proof, { label: "{param.text}", text: "{param.text}" }] }
      - { show: form, name: make, label: "{param.text}", action: create, collection: things, fields: [{ field: code, value: "{param.text}", label: "{param.text}", help: "{param.text}" }, name, proof], submit: "{param.text}" }
      - { show: ask, label: "{param.text}", page: all, boxes: [text, choice, record], submit: "{param.text}" }
      - { show: sign-in, name: "{param.text}", password: "{param.text}", submit: "{param.text}", mail: "{param.text}" }
      - { show: sign-up, loginLabel: "{param.text}", nameLabel: "{param.text}" }
`;
const { definition, compiled, problems } = checkAppFile(app);
const names = Object.keys(definition?.pages['all']?.parameters ?? {});

let service: TestService;
let browser: Browser;
let page: Page;
const ran: string[] = [];
beforeAll(async () => {
  [service, browser] = await Promise.all([startTestService(), launchChromium()]);
  const cell = (text: string) => `"${text.replaceAll('"', '""')}"`;
  const things = ['code,name', ...texts.map((text) => `${cell(text)},${cell(text)}`)].join('\r\n');
  await service.apps.push('hostile', { source: app, records: [csvSource('things', things)] });
  await service.apps.publish('hostile', undefined);
  page = await (await browser.newContext()).newPage();
  await page.exposeFunction('intruder', (from: string) => ran.push(from));
  page.on('dialog', (dialog) => {
    ran.push(dialog.message());
    void dialog.dismiss();
  });
  // What the policy had to stop was let through before.
  page.on('console', (message) => message.text().includes('Content Security Policy') && ran.push(message.text()));
  page.on('pageerror', (error) => ran.push(String(error)));
});
afterAll(async () => {
  await browser.close();
  await service.stop();
});

/** Opens an address, and looks at every way that the page offers. */
async function look(path: string): Promise<void> {
  const answer = await page.goto(service.base + path);
  expect(answer?.status(), path).toBeLessThan(500);
  if (answer?.ok() === true) await untilHydrated(page);
  const ways = await page.evaluate(() =>
    [...document.querySelectorAll('[href], [src], [action], [formaction]')].map((element) => {
      const url = ['href', 'src', 'action', 'formaction'].map((name) => element.getAttribute(name)).find((text) => text !== null) ?? '';
      return new URL(url, document.baseURI).origin;
    }),
  );
  for (const origin of ways) expect([service.base, 'https://out.example']).toContain(origin);
  expect(ran).toEqual([]);
}

it('the table has every type and every component', () => {
  expect(problems.filter(({ severity }) => severity === 'error')).toEqual([]);
  const shown = new Set([...app.matchAll(/show: ([\w-]+)/g)].map(([, show]) => show));
  const known = [...JSON.stringify(definition).matchAll(/"show":"([\w-]+)"/g)].map(([, show]) => show);
  expect([...new Set(known)].sort()).toEqual([...shown].sort());
  expect(Object.keys({ ...parameterTypes, packed: 1 }).filter((type) => !app.includes(`type: ${type}`))).toEqual([]);
});

it('what would run is noticed', async () => {
  await look('/h');
  await page.evaluate(() => {
    document.body.insertAdjacentHTML('beforeend', '<img src="x" onerror="intruder(1)">');
  });
  await expect.poll(() => ran.length).toBeGreaterThan(0);
  ran.length = 0;
});

/** Each trick is tried in every place. The long run tries all; the others differ from these by what they end. */
const always = ['script', 'end of a quoted attribute', 'end of the title', 'a scheme in disguise', 'an expression'];
const tried = Object.entries(tricks).filter(([name]) => isLong || always.includes(name));

it.each(tried)('%s does nothing, in any parameter, on any component', async (_, text) => {
  const encoded = encodeURIComponent(text);
  // Each type that takes any text by itself; the others, which say what is wrong with it, all at once.
  for (const name of ['text', 'list', 'packed', 'record', 'records', 'edited', 'via']) {
    // A packed value is not readable in the address: it is written as the app itself writes it.
    const packed = name === 'packed' && compiled ? writeAddress(compiled, 'all', { packed: { a: text } }).address : undefined;
    await look(packed ?? `/h?${name}=${encoded}`);
    // It is there, as a text.
    if (name === 'text') expect(await page.locator('h1').first().textContent()).toBe(text);
  }
  const everything = names.map((name) => `${name}=${name === 'packed' ? 'x' : encoded}`).join('&');
  await look(`/h?${everything}&open=true&choice=tricky&~wanted=${encoded}&~why=${encoded}&~enter=${encoded}#${encoded}`);
  await look(
    `/h?text=${encoded}&record=${encoded}&edited=${encoded}&chosen=${encoded}&records=${encoded}&list=${encoded}&open=true&choice=tricky`,
  );
  await look(`/h/one/${encoded}?t=${encoded}`);
  await look(`/h/${encoded}`);
});
