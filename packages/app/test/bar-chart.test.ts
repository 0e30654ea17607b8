import { describe, expect, it } from 'vitest';
import { checkAppFile, countedFields, dataToSend, pagePart, type PageData, settlePage } from '../src/index.ts';
import { nodesOf, showAt } from './show.ts';

const source = `
pallmist: 1
app: x
title: X
mount: /x
choices: { health: { good: Good, fair: Fair, bad: Bad } }
collections:
  houses: { keyField: code, titleField: name, fields: { code: { type: text }, name: { type: text } } }
  plants:
    keyField: code
    fields: { code: { type: text }, health: { type: choice, of: health }, house: { type: record, of: houses } }
pages:
  home:
    title: Home
    address: /{?health,house}
    parameters:
      health: { type: choice, of: health }
      house: { type: record, of: houses }
    rows: { all: { from: plants } }
    content:
      - { show: bar-chart, rows: all, field: health, label: By health, bind: health }
      - { show: bar-chart, rows: all, field: house, label: By house, most: 2, when: person.name == 'Ansa' }
`;
const { definition, compiled, problems } = checkAppFile(source);
if (!definition || !compiled) throw new Error(JSON.stringify(problems));

const house = (code: string) => ({ code, name: `House ${code}` });
const data: PageData = {
  records: {},
  rows: {
    all: {
      rows: [],
      total: 10,
      page: 1,
      size: 25,
      counts: {
        health: [{ value: 'bad', count: 6 }, { value: 'good', count: 3 }, { count: 1 }],
        house: [
          { value: house('a'), count: 5 },
          { value: house('b'), count: 3 },
          { value: house('c'), count: 2 },
        ],
      },
    },
  },
  options: {},
};
const person = { login: 'ansa', name: 'Ansa', roles: [] };
const charts = (address: string, more: PageData = data) =>
  nodesOf(showAt(definition, compiled, address, { data: more, person }).content, 'bar-chart');

describe('a bar chart', () => {
  it('has the choices in their own order, those that nothing has too, and a bar for what has none', () => {
    const [health] = charts('/x');
    expect(health?.bars.map(({ text, count, length }) => [text, count, length])).toEqual([
      ['Good', 3, 0.5],
      ['Fair', 0, 0],
      ['Bad', 6, 1],
      ['None', 1, 1 / 6],
    ]);
    expect(health?.summary).toBe('Good 3, Fair 0, Bad 6, None 1');
  });

  it('sets its parameter, and clears it', () => {
    expect(charts('/x')[0]?.bars.map(({ link }) => link?.href)).toEqual(['/x?health=good', '/x?health=fair', '/x?health=bad', undefined]);
    expect(charts('/x?health=bad')[0]?.bars[2]).toMatchObject({ current: true, link: { href: '/x' } });
  });

  it('adds up what it has no bar for', () => {
    expect(charts('/x')[1]?.bars.map(({ text, count }) => [text, count])).toEqual([
      ['House a', 5],
      ['Others', 5],
    ]);
  });

  it('says that there is nothing', () => {
    expect(
      charts('/x', { records: {}, rows: { all: { rows: [], total: 0, page: 1, size: 25, counts: {} } }, options: {} })[0],
    ).toMatchObject({
      bars: [],
      empty: 'Nothing found.',
    });
  });

  it('is counted by the service, and what is hidden is not sent', () => {
    const page = definition.pages['home']!;
    expect(countedFields(page)).toEqual({ all: ['health', 'house'] });
    const hidden = settlePage(page, () => false).page;
    const sent = dataToSend(data, pagePart(definition, 'home', hidden, []));
    expect(Object.keys(sent.rows['all']?.counts ?? {})).toEqual(['health']);
  });

  it.each([
    ['field: health, label', 'field: heath, label', 'unknown-field', /“heath”/],
    ['rows: all, field: health', 'rows: al, field: health', 'unknown-rows', /“al”/],
    ['bind: health }', 'bind: house }', 'binding-wrong-type', /cannot have the values of “health”, which is a choice of “health”/],
  ])('the check finds: %s → %s', (from, to, code, message) => {
    const found = checkAppFile(source.replace(from, to)).problems.find((problem) => problem.code === code);
    expect(found?.message).toMatch(message);
  });
});
