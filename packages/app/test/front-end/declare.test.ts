import { boolean, choice, date, datetime, integer, list, page, record, text, type Page } from '@pallmist/address';
import { packed } from '@pallmist/app/packed';
import { describe, expect, it } from 'vitest';
import { checkPages } from '@pallmist/address/declare';
import { declareInSource } from '../../src/index.ts';

const source = `# A comment that stays.
pallmist: 1
app: shed
title: Shed
mount: /shed
choices: { light: { sun: Full sun, shade: Shade } }
parameters: { lang: { type: choice, of: light, default: sun } }
collections:
  plants: { keyField: code, fields: { code: { type: text, pattern: "P-[0-9]+" }, name: { type: text } } }
pages:
  home: { title: Home, address: /, content: [{ show: link, text: Plants, to: { page: plants } }] }
  plants:
    title: Plants
    address: /plants{?q,light,since,visitor}   # what one can filter by
    parameters:
      q: { type: text, maxLength: 80, label: Search }
      light: { type: choice, of: light, lasting: false }
      since: { type: date, default: today-7d }
      visitor: { type: text, sealed: true }
    content:
      - { show: text, text: "{param.q} {param.light} {param.since} {param.visitor}" }
`;
const q = text({ maxLength: 80 });
const light = choice(['sun', 'shade']);
const since = date({ default: () => '2026-11-20' });
const declared = (pages: Record<string, Page<string, unknown>>) => {
  const made = declareInSource(source, pages);
  if (made === undefined) throw new Error('The file has errors.');
  const was = source.split('\n');
  return { ...made, lines: made.source.split('\n').filter((line) => !was.includes(line)) };
};

describe('pages declared in code, put into an app file', () => {
  it('change nothing where both say the same, each in its own way', () => {
    const { lines, added, changed } = declared({ plants: page('/shed/plants{?q,light,since}', { q, light, since }) });
    expect([lines, added, changed]).toEqual([[], [], []]);
  });

  it('bring their time zone along, which is that of the app', () => {
    const at = datetime({ timeZone: 'Europe/London' });
    const plants = page('/shed/plants{?q,light,since,at}', { q, light, since, at });
    expect(checkPages({ plants })).toEqual([]);
    const { checked } = declared({ plants });
    expect(checked.definition?.pages['plants']?.parameters?.['at']).toEqual({ type: 'datetime' });
    expect(checked.definition?.timeZone).toBe('Europe/London');
  });

  it('change what differs, and keep what only the file can say', () => {
    const wider = text({ maxLength: 90, formerNames: ['search'] });
    const { lines, changed, checked } = declared({
      plants: page('/plants/{code}{?q,light,since}', { code: record(), q: wider, light, since: date({ min: '2026-01-01' }) }),
    });
    expect(changed).toEqual(['plants']);
    expect(lines).toEqual(
      expect.arrayContaining([
        '    address: /plants/{code}{?q,light,since,visitor} # what one can filter by',
        '      q: { type: text, maxLength: 90, label: Search, formerNames: [search] }',
        '      since: { type: date, min: 2026-01-01 }',
      ]),
    );
    expect(checked.definition?.pages['plants']?.parameters?.['light']).toEqual({ type: 'choice', of: 'light', lasting: false });
    expect(checked.definition?.pages['plants']?.parameters?.['visitor']).toEqual({ type: 'text', sealed: true });
  });

  it('bring pages that are new, with their choices, and collections for their records', () => {
    const beds = page('/beds/{bed}{?tab,light,rows*,plan}', {
      bed: record({ pattern: 'B-[0-9]+' }),
      tab: choice({ list: 'As a list', plan: 'As a plan' }, { default: 'list' }),
      light: choice(['sun']),
      rows: list(integer({ min: 1 }), { maxItems: 4 }),
      plan: packed((value): value is number => typeof value === 'number'),
    });
    const { added, collections, checked } = declared({ beds, there: page('/there{?is}', { is: boolean() }) });
    expect([added, collections]).toEqual([['beds', 'there'], ['beds-bed']]);
    expect(checked.problems.filter(({ severity }) => severity === 'error')).toEqual([]);
    expect(checked.definition?.choices).toMatchObject({
      light: { sun: 'Full sun', shade: 'Shade' },
      'beds-tab': { list: 'As a list', plan: 'As a plan' },
      'beds-light': { sun: 'sun' },
    });
    expect(checked.definition?.pages['beds']).toMatchObject({ title: 'beds', address: '/beds/{bed}{?tab,light,rows*,plan}', content: [] });
  });

  it('need a file without errors of its own', () => {
    expect(declareInSource(source.replace('keyField', 'keyFeild'), { home: page('/') })).toBeUndefined();
  });
});
