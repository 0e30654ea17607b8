// A wrong value is told, whatever its type, and never vanishes behind a redirect: by the page, or by an error page where the
// parameter says so. Generated for every type of parameter.
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startTestService, type TestService } from '../../../test/support/garden-service.ts';
import { Visitor } from '../../../test/support/visitor.ts';
import { littleApp, publishApp } from '../../../test/support/little-app.ts';

/** Every type: how it is declared, a right text and a wrong one. */
const types = [
  ['text', 'type: text, pattern: "[a-z]{3}"', 'abc', '12'],
  ['integer', 'type: integer, max: 9', '7', '70'],
  ['number', 'type: number', '2.5', 'much'],
  ['boolean', 'type: boolean', 'true', 'perhaps'],
  ['date', 'type: date', '2026-01-02', '2026-13-02'],
  ['datetime', 'type: datetime', '2026-01-02T10:00:00Z', 'noon'],
  ['choice', 'type: choice, of: houses', 'palm', 'elm'],
  ['record', 'type: record, of: things', 'one', 'three'],
  ['page', 'type: page', 'other', 'nowhere'],
  ['sort', 'type: sort, of: things, fields: [code]', '-code', 'colour'],
  ['range', 'type: range, of: integer', '2..5', '5..2'],
  ['list', 'type: list, items: { type: integer }', '1,2', '1,two'],
  ['colour', 'type: colour', '3a7d44', 'greenish'],
  ['packed', 'type: packed, schema: { type: object }', '', 'zzz'],
] as const;

const pagesOf = (ifWrong: string) =>
  types
    .map(
      ([name, declared]) => `
  ${name}-${ifWrong}:
    title: Page
    address: /${ifWrong}/${name}{?v,house}
    parameters:
      v: { ${declared}, ifWrong: ${ifWrong}, label: Value of the page }
      house: { type: choice, of: houses, label: House }
    content: [{ show: heading, text: Shown }]`,
    )
    .join('');

let service: TestService;
beforeAll(async () => {
  service = await startTestService();
  const source = littleApp({
    more: 'choices: { houses: { palm: { label: Palm, formerValues: [bracken] }, fern: Fern } }',
    pages: `
  home: { title: Home, address: /, content: [{ show: heading, text: Home }] }
  other: { title: Other, address: /other, content: [{ show: heading, text: Other }] }${pagesOf('default')}${pagesOf('refuse')}`,
  });
  await publishApp(service, 'little', source);
  const record = { record: { code: 'one' } };
  expect((await service.owner('POST', '/apps/little/collections/things/records', record)).status).toBe(200);
});
afterAll(() => service.stop());

const get = (path: string) => fetch(`${service.base}/little${path}`, { redirect: 'manual' });
const said = async (answer: Response) => (await answer.text()).replace(/<script[^]*?<\/script>/g, '');

describe.each(types)('a wrong value of the type %s', (name, _, right, wrong) => {
  it('is told on the page, and the address stays', async () => {
    const answer = await get(`/default/${name}?v=${wrong}`);
    expect([answer.status, answer.headers.get('location')]).toEqual([200, null]);
    expect(await said(answer)).toContain('Value of the page');
  });

  it('is refused where the parameter says so', async () => {
    const answer = await get(`/refuse/${name}?v=${wrong}`);
    expect([answer.status, answer.headers.get('location')]).toEqual([name === 'record' ? 404 : 400, null]);
    if (right !== '') expect((await fetch(`${service.base}/little/refuse/${name}?v=${right}`)).status).toBe(200);
  });

  it.each(['&house=bracken', '&house=Palm', '&House=palm', '&house=palm).'])('does not vanish beside “%s”', async (beside) => {
    let shown = await get(`/default/${name}?v=${wrong}${beside}`);
    // Whether a record is there is known later: the way to the written form keeps its key.
    if (name === 'record') {
      expect(shown.headers.get('location') ?? `v=${wrong}`).toContain(`v=${wrong}`);
      shown = await get((shown.headers.get('location') ?? `/little/default/record?v=${wrong}`).replace('/little', ''));
    }
    expect([shown.status, shown.headers.get('location')]).toEqual([200, null]);
    expect(await said(shown)).toContain('Value of the page');
    const refused = await get(`/refuse/${name}?v=${wrong}${beside}`);
    if (name === 'record') expect(refused.headers.get('location') ?? `v=${wrong}`).toContain(`v=${wrong}`);
    else expect([refused.status, refused.headers.get('location')]).toEqual([400, null]);
  });
});

it('a former value alone leads to the address of today', async () => {
  const answer = await get('/default/integer?v=7&house=bracken');
  expect([answer.status, answer.headers.get('location')]).toEqual([301, '/little/default/integer?v=7&house=palm']);
});

it('problems are in the language of the page, those of records too', async () => {
  const german = littleApp({
    app: 'garten',
    mount: '/garten',
    more: `language: lang
choices: { langs: { de: Deutsch, en: English }, houses: { palm: Palmenhaus, fern: Farnhaus } }
words: { welcome: { de: Willkommen, en: Welcome } }
parameters: { lang: { type: choice, of: langs, default: de, reach: app } }`,
    collections: `
  beds: { keyField: code, fields: { code: { type: text } } }
  plants: { keyField: code, fields: { code: { type: text }, bed: { type: record, of: beds }, alive: { type: boolean } } }`,
    pages: `
  home:
    title: Heim
    address: /{?plant,bed,beds,houses}
    parameters:
      bed: { type: record, of: beds, label: Beet }
      plant: { type: record, of: plants, label: Pflanze, tied: { bed: bed } }
      beds: { type: list, items: { type: record, of: beds }, label: Beete }
      houses: { type: list, items: { type: choice, of: houses }, label: Häuser }
    content:
      - { show: text, text: '{app.title}: {record.plant.alive}' }
      - { show: details, bind: plant, fields: [code] }
      - { show: details, bind: bed, fields: [code] }
      - { show: checkboxes, bind: houses, label: Häuser }`,
  }).replace('title: Little', "title: '{word.welcome}'");
  await publishApp(service, 'garten', german);
  const put = (collection: string, record: object) => service.owner('POST', `/apps/garten/collections/${collection}/records`, { record });
  await put('beds', { code: 'b1' });
  await put('beds', { code: 'b2' });
  expect((await put('plants', { code: 'p1', bed: 'b1', alive: true })).status).toBe(200);
  const text = async (query: string) => said(await fetch(`${service.base}/garten${query}`));
  expect(await text('?plant=p1&bed=b1')).toContain('Willkommen: ja');
  expect(await text('?plant=p1&bed=b1&lang=en')).toContain('Welcome: yes');
  expect(await text('?plant=p9')).toContain('„Pflanze“ kann nicht „p9“ sein: Diesen Eintrag gibt es nicht.');
  expect(await text('?plant=p1&bed=b2')).toContain('Es gehört nicht zu „Beet“ in dieser Adresse.');
  expect(await text('?houses=palm,elm')).toContain('Erwartet wird „palm“ oder „fern“, oder mehrere davon, durch Kommas getrennt.');
});

it('a value that is kept for the visit is kept and counted as it is written, not as it is encoded', async () => {
  const campaign = littleApp({
    app: 'spring',
    mount: '/spring',
    more: 'parameters: { via: { type: text, reach: visit, label: Campaign } }',
    pages: `
  home: { title: Home, address: '/', content: [{ show: text, text: 'By {visit.?via.orValue("nothing")}' }] }`,
  });
  await publishApp(service, 'spring', campaign);
  const visitor = new Visitor(service.base);
  expect(await visitor.text('/spring?via=Fr%C3%BCh%20%26%20sp%C3%A4t%2025%25')).toContain('By Früh &amp; spät 25%');
  expect(await visitor.text('/spring')).toContain('By Früh &amp; spät 25%');
  const { visits } = (await (await service.owner('GET', '/apps/spring/visits')).json()) as { visits: { value: string; came: number }[] };
  expect(visits.map(({ value }) => value)).toEqual(['Früh & spät 25%']);
});

it('of several wrong values, one that can be repaired leads nowhere while another cannot', async () => {
  const pair = littleApp({
    app: 'pair',
    mount: '/pair',
    collections: `
  beds: { keyField: code, fields: { code: { type: text, pattern: '[A-Z]{2}-[0-9]{2}' } } }`,
    pages: `
  home: { title: Home, address: '/', content: [{ show: text, text: Home }] }
  both:
    title: Both
    address: /{one}{?two}
    parameters: { one: { type: record, of: beds }, two: { type: record, of: beds, ifWrong: refuse } }
    content: [{ show: details, bind: one, fields: [code] }]`,
  });
  await publishApp(service, 'pair', pair);
  await service.owner('POST', '/apps/pair/collections/beds/records', { record: { code: 'AB-01' } });
  const at = async (path: string) => {
    const answer = await fetch(service.base + path, { redirect: 'manual' });
    return [answer.status, answer.headers.get('location')];
  };
  expect(await at('/pair/ab-01')).toEqual([303, '/pair/AB-01']);
  expect(await at('/pair/ab-01?two=ab-01.')).toEqual([303, '/pair/AB-01?two=AB-01']);
  expect(await at('/pair/ab-01?two=elsewhere')).toEqual([404, null]);
  expect(await at('/pair/elsewhere?two=ab-01')).toEqual([404, null]);
});
