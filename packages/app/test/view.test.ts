import { describe, expect, it } from 'vitest';
import { evaluateCel, planLoad, readAddress, type AnyNode, type ComponentName, type PageData } from '../src/index.ts';
import { definition, garden } from './garden.ts';
import { showAt, nodesOf } from './show.ts';

const rows = [
  { accession: 'QM-0001', name: 'Quill fern', house: { code: 'fern', name: 'Fern House' }, planted: '2020-01-02' },
  { accession: 'odd key', name: '<b>Bold</b>' },
];
const data: PageData = {
  records: { specimen: rows[0] ?? {} },
  rows: { found: { rows, total: 34, page: 2, size: 10 } },
  options: { houses: [{ key: 'fern', title: 'Fern House' }] },
};

const show = (address: string) => showAt(definition, garden, address, { data });
const node = <Name extends ComponentName>(content: readonly AnyNode[], kind: Name) => nodesOf(content, kind)[0]!;

describe('what a page shows', () => {
  const shown = show('/garden/specimens?q=quill&page=2&house=fern&nonsense=1&alive=maybe');

  it('fills texts, conditions and notices', () => {
    expect(shown.title).toBe('All: quill');
    expect(node(shown.content, 'text').text).toBe('Living ones only');
    expect(shown.notices).toEqual(['“alive” cannot be “maybe”: It should be “true” or “false”.']);
    expect(shown.address).toBe('/garden/specimens?q=quill&house=fern&page=2');
  });

  it('keeps in a form what it does not show, except what a new search resets', () => {
    expect(node(shown.content, 'search').form).toEqual({ action: '/garden/specimens', keeps: [{ name: 'house', value: 'fern' }] });
    expect(node(shown.content, 'select')).toMatchObject({
      value: 'fern',
      options: [
        { value: '', text: 'Any' },
        { value: 'fern', text: 'Fern House' },
      ],
    });
  });

  it('gives rows the address of their record, and none where the key cannot be written', () => {
    const table = node(shown.content, 'table');
    expect(table.rows[0]).toEqual({
      key: 'QM-0001',
      cells: [{ text: 'Quill fern' }, { text: 'fern' }, { text: '2020-01-02' }],
      href: '/garden/specimens/QM-0001',
    });
    expect(table.rows[1]).not.toHaveProperty('href');
    expect(table.columns.map(({ sort }) => [sort?.direction, sort?.href])).toEqual([
      ['ascending', '/garden/specimens?q=quill&house=fern&sort=-name&page=2'],
      ['none', '/garden/specimens?q=quill&house=fern&sort=house&page=2'],
      ['none', '/garden/specimens?q=quill&house=fern&sort=planted&page=2'],
    ]);
  });

  it('turns pages', () => {
    const pager = node(shown.content, 'pager');
    expect(pager).toMatchObject({ pages: 4, from: 11, to: 12, previous: { href: '/garden/specimens?q=quill&house=fern' } });
    expect(pager.near.map(({ text }) => text)).toEqual(['1', '2', '3', '4']);
  });

  it('opens the tab that the address says', () => {
    const tabs = node(show('/garden/specimens/QM-0001?tab=care').content, 'tabs');
    expect(tabs.tabs.map(({ text, current, href }) => [text, current, href])).toEqual([
      ['Overview', false, '/garden/specimens/QM-0001'],
      ['Care log', true, '/garden/specimens/QM-0001?tab=care'],
      ['Field notes', false, '/garden/specimens/QM-0001?tab=notes'],
    ]);
    expect(tabs.content).toEqual([{ show: 'text', text: 'Care of Quill fern' }]);
  });
});

describe('what a page loads', () => {
  const plan = (address: string) => {
    const reading = readAddress(garden, address);
    const page = definition.pages[reading.page ?? ''];
    return page && planLoad(definition, page, reading.values, { today: '2026-11-23', visit: {} }, evaluateCel);
  };

  it('takes its conditions, order and page from the address, and leaves out what is absent', () => {
    expect(plan('/garden/specimens?q=Quill&sort=-planted&page=3')?.rows['found']).toEqual({
      from: 'specimens',
      where: [{ field: 'name', operator: 'contains', value: 'Quill' }],
      sort: [{ field: 'planted', descending: true }],
      page: 3,
      size: 10,
      nothing: false,
    });
  });

  it('is the same for two addresses that differ in view state only', () => {
    expect(plan('/garden/specimens/QM-0001?tab=care')).toEqual(plan('/garden/specimens/QM-0001?tab=notes'));
  });
});
