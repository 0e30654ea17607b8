import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startTestService, type TestService } from '../../../test/support/garden-service.ts';
import { littleApp, publishApp } from '../../../test/support/little-app.ts';

const source = littleApp({
  more: `look: { logo: seed.svg }
footer: { text: Open every day, links: [{ text: Plants, to: { page: plants } }] }
navigation: [{ text: Plants, to: { page: plants } }, { text: Home, to: { page: home } }]
signIn: { page: sign-in }`,
  collections: '  plants: { keyField: code, fields: { code: { type: text }, mail: { type: text, autocomplete: email } } }',
  pages: `  home:
    title: Home
    description: 'All about "plants"'
    address: /
    content:
      - show: columns
        widths: side-last
        content: [{ show: text, text: Main part }, { show: panel, label: Beside it, content: [{ show: text, text: Side part }] }]
      - { show: form, name: add, label: Add, action: create, collection: plants, fields: [code, mail] }
  plants:
    title: Plants
    address: /plants
    rows: { all: { from: plants, sort: code } }
    content: [{ show: table, rows: all, label: Plants, narrow: cards, columns: [{ field: code }], link: { page: plant, values: { plant: '{row.code}' } } }]
  plant: { title: '{record.plant.code}', address: '/plants/{plant}', parameters: { plant: { type: record, of: plants } }, content: [{ show: heading, text: '{record.plant.code}' }] }
  hidden: { title: Hidden, address: /hidden, robots: [noindex], content: [{ show: heading, text: Hidden }] }
  keepers: { title: Keepers, address: /keepers, admit: signed-in, content: [{ show: heading, text: Keepers }] }
  sign-in: { title: Sign in, address: /sign-in, content: [{ show: heading, text: Sign in }, { show: sign-in }] }
`,
});

let service: TestService;
beforeAll(async () => {
  service = await startTestService({ publicUrl: 'https://plants.example' });
  await publishApp(service, 'little', source);
  await service.owner('POST', '/apps/little/records/plants', { code: 'a&b' });
});
afterAll(() => service.stop());

const text = async (path: string) => (await fetch(service.base + path)).text();

it('a shared address shows a title and a sentence; a page may stay out of search engines', async () => {
  const home = await text('/little');
  expect(home).toContain('<meta name="description" content="All about &quot;plants&quot;">');
  expect(home).toContain(
    '<meta property="og:title" content="Home"><meta property="og:url" content="https://plants.example/little"><meta property="og:site_name" content="Little">',
  );
  expect(home).not.toContain('name="robots"');
  expect(await text('/little/hidden')).toContain('<meta name="robots" content="noindex">');
});

it('the sitemap lists open pages, and the page of each record', async () => {
  const found = [...(await text('/little/~sitemap.xml')).matchAll(/<loc>([^<]*)/g)].map(([, address]) => address);
  const base = 'https://plants.example/little';
  expect(found).toEqual([base, `${base}/plants`, `${base}/plants/a%26b`]);
  expect(await text('/robots.txt')).toContain(`Sitemap: ${base}/~sitemap.xml`);
});

it('header and footer say where the visitor is, also on pages below', async () => {
  const current = (page: string) =>
    [...page.matchAll(/aria-current="(\w+)"[^>]*>([^<]*)/g)].map(([, kind, words]) => `${kind ?? ''} ${words ?? ''}`);
  expect(current(await text('/little'))).toEqual(['page Home']);
  const below = await text('/little/plants/a%26b');
  expect(current(below)).toEqual(['true Plants']);
  expect(below).toContain('<img src="/little/~files/seed.svg" alt=""');
  expect(below).toMatch(/<footer.*Open every day.*href="\/little\/plants"/s);
});

it('boxes, columns and cards are what they are for', async () => {
  const home = await text('/little');
  expect(home).toMatch(/name="mail"[^>]* type="email"[^>]* autocomplete="email"/);
  expect(home).toMatch(/class="columns side-last[^"]*"/);
  expect(await text('/little/plants')).toMatch(/<td data-label="Code"/);
});

describe('the guides at /~/docs', () => {
  it('are listed, linked with each other, and found by their words', async () => {
    expect(await text('/~/docs')).toContain('<a href="/~/docs/app-file">The app file</a>');
    const guide = await text('/~/docs/app-file');
    expect(guide).toContain('<h2 id="reads">');
    expect(guide).toMatch(/rel="next" href="\/~\/docs\/[a-z-]+"/);
    const found = await text('/~/docs?q=lessThan+condition');
    expect(found).toContain('href="/~/docs/app-file#reads"');
    expect(await text('/~/docs?q=%3Cscript%3E')).not.toContain('<script>');
    // Each component has its picture.
    expect(await text('/~/docs/components')).toMatch(/<h2 id="table-table">.*<\/h2>\s*<svg class="picture"/);
    expect((await fetch(`${service.base}/~/docs/nothing`)).status).toBe(404);
  });

  it('give the schema of the app file by a URL', async () => {
    const schema = (await (await fetch(`${service.base}/~/docs/app-file.schema.json`)).json()) as { $id: string; title: string };
    expect(schema).toMatchObject({ $id: 'https://pallmist.example/~/docs/app-file.schema.json', title: 'Pallmist app file' });
  });
});
