import { describe, expect, it } from 'vitest';
import { changeValues, checkAppFile, compileApp, readAddress, writeAddress, type AddressableApp } from '../src/index.ts';
import { gardenSource } from './garden.ts';

const source: AddressableApp = {
  app: 'attributes',
  mount: '/a',
  timeZone: 'Pacific/Auckland',
  choices: { language: { en: 'English', cy: 'Cymraeg' } },
  parameters: { lang: { type: 'choice', of: 'language', default: 'en' } },
  pages: {
    list: {
      address: '/list{/part}{?since,until,page,note,secret}',
      formerNames: ['catalogue'],
      formerAddresses: ['/old/{part}/list', '/catalogue'],
      parameters: {
        part: { type: 'text' },
        since: { type: 'date', default: 'today-7d', formerNames: ['from'] },
        until: { type: 'date', default: 'today' },
        page: { type: 'integer', default: 1, ifWrong: 'refuse' },
        note: { type: 'boolean', once: true },
        secret: { type: 'text', share: false },
      },
    },
    other: { address: '/other' },
  },
};
const { app, problems } = compileApp(source, { today: () => '2026-03-03' });

it('compiles', () => expect(problems).toEqual([]));

describe('defaults relative to today', () => {
  it('are settled when they are asked for, and left out of addresses', () => {
    expect(readAddress(app, '/a/list').values).toMatchObject({ since: '2026-02-24', until: '2026-03-03' });
    expect(writeAddress(app, 'list', { since: '2026-02-24', until: '2026-03-02' }).address).toBe('/a/list?until=2026-03-02');
    let today = '2024-02-29';
    const moving = compileApp(
      {
        ...source,
        pages: {
          list: { address: '/{?d,e}', parameters: { d: { type: 'date', default: 'today+1y' }, e: { type: 'date', default: 'today+1m' } } },
        },
      },
      { today: () => today },
    ).app;
    expect(readAddress(moving, '/a').values).toMatchObject({ d: '2025-02-28', e: '2024-03-29' });
    today = '2026-01-31';
    expect(readAddress(moving, '/a').values).toMatchObject({ d: '2027-01-31', e: '2026-02-28' });
  });
});

describe('what an app carries on', () => {
  it('is in every page’s addresses, and in links from where it is set', () => {
    expect(readAddress(app, '/a/other?lang=cy').values).toEqual({ lang: 'cy' });
    expect(writeAddress(app, 'list', { page: 2 }, { present: { lang: 'cy', page: 9 } }).address).toBe('/a/list?page=2&lang=cy');
    expect(writeAddress(app, 'other', { lang: 'en' }, { present: { lang: 'cy' } }).address).toBe('/a/other');
  });
});

it('reach says where a parameter is declared, or is pointed out', () => {
  const codes = (reach: 'page' | 'app', carried: boolean) =>
    compileApp({
      app: 'x',
      mount: '/',
      ...(carried ? { parameters: { l: { type: 'text', reach } } } : {}),
      pages: { p: carried ? { address: '/' } : { address: '/{?l}', parameters: { l: { type: 'text', reach } } } },
    }).problems.map(({ code }) => code);
  expect([codes('app', true), codes('page', false)]).toEqual([[], []]);
  expect([codes('page', true), codes('app', false)]).toEqual([['reach-elsewhere'], ['reach-elsewhere']]);
});

describe('what was right in the past', () => {
  it.each([
    ['/a/list?from=2026-01-01', '/a/list?since=2026-01-01'],
    ['/a/old/ferns/list?page=2', '/a/list/ferns?page=2'],
    ['/a/catalogue?from=2026-01-01&lang=cy', '/a/list?since=2026-01-01&lang=cy'],
  ])('%s is today’s %s', (former, today) => {
    const reading = readAddress(app, former);
    expect(reading).toMatchObject({ status: 'found', page: 'list', former: true });
    expect(writeAddress(app, 'list', reading.values).address).toBe(today);
    expect(readAddress(app, today).former).toBe(false);
  });

  it('holds for a page’s name in a link', () => {
    expect(writeAddress(app, 'catalogue', { page: 3 }).address).toBe('/a/list?page=3');
  });

  it('is a problem when it is taken today', () => {
    const codes = compileApp({ ...source, pages: { ...source.pages, catalogue: { address: '/catalogue' } } }).problems.map(
      ({ code, pointer }) => [code, pointer],
    );
    expect(codes).toEqual([
      ['former-name-taken', '/pages/list/formerNames/0'],
      ['former-name-taken', '/pages/list/formerAddresses/1'],
    ]);
  });
});

describe('the other attributes', () => {
  it('ifWrong: refuse makes an error of a wrong value', () => {
    expect(readAddress(app, '/a/list?page=x')).toMatchObject({
      status: 'refused',
      problems: [{ code: 'not-an-integer', severity: 'error' }],
    });
  });

  it('share and once leave what is made for sharing', () => {
    const values = { note: true, secret: 's', page: 2 };
    expect(writeAddress(app, 'list', values).address).toBe('/a/list?page=2&note=true&secret=s');
    expect(writeAddress(app, 'list', values, { forSharing: true }).address).toBe('/a/list?page=2');
    expect(writeAddress(app, 'list', values, { afterArrival: true }).address).toBe('/a/list?page=2&secret=s');
  });

  it('once has acted when something changes', () => {
    const change = changeValues(app, 'list', { ...readAddress(app, '/a/list?note=true').values }, { page: 2 });
    expect(change.written.address).toBe('/a/list?page=2');
    expect(change.values).not.toHaveProperty('note');
  });

  it('an optional last segment may be absent, and has no default written', () => {
    expect(writeAddress(app, 'list', {}).address).toBe('/a/list');
    expect(writeAddress(app, 'list', { part: 'a b' }).address).toBe('/a/list/a%20b');
    expect(writeAddress(app, 'list', { part: '..' }).problems[0]?.code).toBe('not-a-segment');
  });

  it('the length budget names what takes the space', () => {
    expect(writeAddress(app, 'list', { secret: 'é'.repeat(400) }).problems).toMatchObject([
      { code: 'address-long', severity: 'warning', parameter: 'secret' },
    ]);
    expect(writeAddress(app, 'list', { secret: 'é'.repeat(1500) })).toMatchObject({
      problems: [{ code: 'address-too-long', parameter: 'secret' }],
    });
  });
});

it('the app file knows them all', () => {
  const file = gardenSource
    .replace(
      'mount: /garden',
      'mount: /garden\ntimeZone: Europe/London\nparameters: { lang: { type: choice, of: tab, default: overview } }',
    )
    .replace(
      'address: /labels{/language}',
      'address: /labels{/language}\n    formerNames: [tags]\n    formerAddresses: ["/tags/{language}"]',
    )
    .replace(
      'since: { type: date, min: 1990-01-01 }',
      'since: { type: date, min: 1990-01-01, default: today-30d, formerNames: [from], once: true }',
    );
  expect(checkAppFile(file).problems).toEqual([]);
  expect(checkAppFile(file.replace('Europe/London', 'Europe/Quillmoor')).problems[0]?.message).toContain('timeZone');
});
