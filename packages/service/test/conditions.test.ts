import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { checkAppFile } from '@pallmist/app';
import { startTestService, type TestService } from '../../../test/support/garden-service.ts';
import { littleApp, publishApp } from '../../../test/support/little-app.ts';

const collections = `  zones: { keyField: code, fields: { code: { type: text }, climate: { type: text } } }
  houses: { keyField: code, fields: { code: { type: text }, zone: { type: record, of: zones } } }
  plants:
    keyField: code
    fields:
      code: { type: text }
      house: { type: record, of: houses }
      height: { type: integer }
      price: { type: number }
      planted: { type: date }
      health: { type: text }
`;
const page = (rows: string, parameters = 'q: { type: text }', show = '{rows.found.map(r, r.code).join(" ")}') => `  home:
    title: Home
    address: /{?q,min,max}
    parameters: { ${parameters}, min: { type: integer }, max: { type: integer } }
    rows: { found: { from: plants, ${rows} } }
    content: [{ show: heading, level: 1, text: '${show} {param.q} {param.min} {param.max}' }]
`;

let service: TestService;
beforeAll(async () => {
  service = await startTestService();
  await publishApp(service, 'little', littleApp({ collections, pages: page('sort: code') }));
  const add = (collection: string, record: object) => service.owner('POST', `/apps/little/records/${collection}`, record);
  await add('zones', { code: 'wet', climate: 'tropical' });
  await add('zones', { code: 'dry', climate: 'desert' });
  await add('houses', { code: 'palm', zone: 'wet' });
  await add('houses', { code: 'cactus', zone: 'dry' });
  await add('plants', { code: 'a', house: 'palm', height: 10, price: 1.5, planted: '2020-01-01', health: 'good' });
  await add('plants', { code: 'b', house: 'palm', height: 20, price: 2.5, planted: '2021-01-01', health: 'ill' });
  await add('plants', { code: 'c', house: 'cactus', height: 30, planted: '2022-01-01' });
  await add('plants', { code: 'd', height: 5, price: 4 });
});
afterAll(() => service.stop());

async function heading(rows: string, path = '', parameters?: string, show?: string): Promise<string> {
  await publishApp(service, 'little', littleApp({ collections, pages: page(`sort: code, ${rows}`, parameters, show) }));
  const text = await (await fetch(`${service.base}/little${path}`)).text();
  return (/<h1[^>]*>([^<]*)/.exec(text)?.[1] ?? '').trim();
}

describe('conditions of reads', () => {
  it.each([
    ["where: [{ field: height, moreThan: '10' }]", 'b c'],
    ['where: [{ field: height, atLeast: 10 }, { field: height, atMost: 20 }]', 'a b'],
    ['where: [{ field: height, lessThan: 10 }]', 'd'],
    ['where: [{ field: health, equals: ill, not: true }]', 'a c d'],
    ['where: [{ field: planted, empty: true, not: true }]', 'a b c'],
    ['where: [{ field: house.zone.climate, equals: tropical }]', 'a b'],
    ['where: [{ field: house.zone.climate, startsWith: des }]', 'c'],
    ['where: [{ field: house.zone, equals: wet, not: true }]', 'c d'],
    ['whereAny: [{ field: height, lessThan: 10 }, { field: house.zone, equals: dry }]', 'c d'],
    ['where: [{ field: price, moreThan: 1 }], whereAny: [{ field: height, equals: 5 }, { field: height, equals: 30 }]', 'd'],
  ])('%s finds %s', async (rows, found) => {
    expect(await heading(rows)).toBe(found);
  });

  it('leave out what is not asked for, also among alternatives', async () => {
    const rows = "whereAny: [{ field: height, moreThan: '{param.min}' }, { field: height, lessThan: '{param.max}' }]";
    expect(await heading(rows)).toBe('a b c d');
    expect(await heading(rows, '?min=20')).toBe('c  20');
    expect(await heading(rows, '?min=20&max=10')).toBe('c d  20 10');
  });

  it('are checked along the whole path', () => {
    const { problems } = checkAppFile(littleApp({ collections, pages: page('where: [{ field: house.zone.clymate, equals: wet }]') }));
    expect(problems.map(({ message, hint }) => `${message} ${hint ?? ''}`)).toContain(
      'The collection “zones” has no field “clymate”. Did you mean “climate”?',
    );
  });
});

describe('figures of a list', () => {
  const figures =
    'figures: { all: { sum: height }, mean: { average: price }, first: { smallest: planted }, last: { largest: planted }, kinds: { distinct: house } }';
  const show = '{figures.found.all} {figures.found.mean} {figures.found.first} {figures.found.last} {figures.found.kinds}';

  it('are of all its records, not of one page alone', async () => {
    expect(await heading(`size: 1, ${figures}`, '', undefined, show)).toBe('65 2.6666666666666665 2020-01-01 2022-01-01 2');
    expect(await heading(`where: [{ field: house.zone, equals: wet }], ${figures}`, '', undefined, show)).toBe(
      '30 2 2020-01-01 2021-01-01 1',
    );
  });

  it('show nothing where no record has a value, and are refused for what cannot be added up', async () => {
    expect(await heading(`where: [{ field: code, equals: none }], ${figures}`, '', undefined, show)).toBe('0    0');
    const { problems } = checkAppFile(littleApp({ collections, pages: page('figures: { all: { sum: health } }') }));
    expect(problems.map(({ message, hint }) => `${message} ${hint ?? ''}`)).toContain(
      '“health” is a text, of which there is no sum. Name a field that is an integer or a number.',
    );
  });
});
