import { describe, expect, it } from 'vitest';
import {
  checkAppFile,
  cutRecord,
  fieldsOn,
  fileFieldsOf,
  formNamesOf,
  optionSources,
  pagePart,
  parametersAsked,
  settlePage,
  walkContent,
  type Component,
} from '../src/index.ts';

const { definition, problems } = checkAppFile(`
pallmist: 1
app: x
title: X
mount: /x
parameters: { via: { type: text, reach: visit } }
collections:
  houses: { keyField: code, titleField: name, fields: { code: { type: text }, name: { type: text }, door: { type: text } } }
  plants:
    keyField: code
    titleField: name
    fields:
      code: { type: text, serial: P-00 }
      name: { type: text }
      tag: { type: text, unique: true }
      secret: { type: text }
      house: { type: record, of: houses }
      photo: { type: file }
mails: { thanks: { to: "{person.name}@x.example", subject: Hi, text: "{saved.secret}" } }
pages:
  home:
    title: Home
    address: /{?tab,plant,houses,page}
    formerNames: [start]
    formerAddresses: [/start]
    admit: signed-in
    parameters:
      tab: { type: text }
      plant: { type: record, of: plants, by: tag }
      houses: { type: list, items: { type: record, of: houses } }
      page: { type: integer }
    rows:
      all: { from: plants, page: "{param.page}" }
      keepers: { from: houses, when: "'keeper' in person.roles" }
    content:
      - { show: text, when: param.tab == 'a', text: first }
      - { show: text, when: "'keeper' in person.roles", text: "{record.plant.secret}" }
      - show: panel
        when: total.all > 0
        content:
          - { show: select, bind: plant, label: Plant }
          - { show: checkboxes, bind: houses, label: Houses }
          - { show: table, rows: all, label: Plants, columns: [{ field: name }, { field: house.name }], edit: { bind: plant, name: change, fields: [house], set: { secret: "x" } } }
      - { show: table, when: "'keeper' in person.roles && param.tab == 'b'", rows: keepers, label: Houses, columns: [{ field: door }] }
      - { show: form, name: add, label: Add, action: create, collection: plants, fields: [name, photo], set: { secret: "{person.name}" }, mail: thanks, then: { page: home } }
`);
if (!definition) throw new Error(JSON.stringify(problems));
const page = definition.pages['home']!;
const holding = (keeper: boolean, some: boolean | undefined) => (condition: string) => (condition.includes('keeper') ? keeper : some);
const shows = (content: readonly Component[]) => [...walkContent(content)].map(({ component }) => component.show);

describe('a page whose conditions are settled', () => {
  it('lacks what is hidden, and the reads that nothing shows any more', () => {
    const visitor = settlePage(page, holding(false, true)).page;
    expect(shows(visitor.content)).toEqual(['text', 'panel', 'select', 'checkboxes', 'table', 'form']);
    expect(Object.keys(visitor.rows ?? {})).toEqual(['all']);
    const keeper = settlePage(page, holding(true, false)).page;
    expect(shows(keeper.content)).toEqual(['text', 'text', 'table', 'form']);
    // The number of plants was asked for by the panel alone.
    expect(Object.keys(keeper.rows ?? {})).toEqual(['keepers']);
  });

  it('keeps the conditions that the browser evaluates, and those that cannot be told yet', () => {
    const settled = settlePage(page, holding(true, undefined)).page;
    expect(settled.content.map(({ when }) => when)).toEqual(["param.tab == 'a'", undefined, 'total.all > 0', undefined, undefined]);
  });

  it('has a name for each variant, by which it is told from the others', () => {
    const variants = [holding(true, true), holding(true, false), holding(false, true), holding(false, false)].map(
      (holds) => settlePage(page, holds).variant,
    );
    expect(new Set(variants).size).toBe(4);
  });

  it('names the parameters at whose change the service has to be asked', () => {
    expect(parametersAsked(page)).toEqual(['tab']);
  });
});

describe('what is sent of a page', () => {
  const sent = (keeper: boolean) => pagePart(definition, 'home', settlePage(page, holding(keeper, true)).page, []);

  it('has nothing that only the service needs', () => {
    const { page: whole } = sent(false);
    for (const key of ['admit', 'formerNames', 'formerAddresses']) expect(whole).not.toHaveProperty(key);
    const form = whole.content.at(-1);
    for (const key of ['set', 'mail', 'then']) expect(form).not.toHaveProperty(key);
    expect(JSON.stringify(whole)).not.toMatch(/secret|thanks/);
  });

  it('names the fields that it shows, by path, and no others', () => {
    expect(sent(false).fields.rows['all']).toEqual({ code: {}, name: {}, house: { name: {} } });
    expect(sent(false).fields.records['plant']).not.toHaveProperty('secret');
    expect(sent(true).fields.records['plant']).toHaveProperty('secret');
    expect(fieldsOn(definition, page, 'service').rows['keepers']).toEqual({ code: {}, door: {} });
  });

  it('cuts records to these fields', () => {
    const record = { code: 'P-01', name: 'Fern', secret: 's', house: { code: 'h', name: 'High', door: 'green' } };
    expect(cutRecord(record, sent(false).fields.rows['all'] ?? {})).toEqual({
      code: 'P-01',
      name: 'Fern',
      house: { name: 'High' },
    });
  });
});

it('the collections to choose from are those of inputs and of forms, each once, by the field that names their records', () => {
  expect(optionSources(definition, page)).toEqual([{ from: 'plants', by: 'tag' }, { from: 'houses' }]);
});

it('forms are found in tables and panels too, with the files that they take', () => {
  expect([...formNamesOf(page)].sort()).toEqual(['add', 'change']);
  expect(Object.keys(fileFieldsOf(definition, page, 'add'))).toEqual(['photo']);
  expect(fileFieldsOf(definition, page, 'change')).toEqual({});
  expect(fileFieldsOf(definition, page, 'nothing')).toEqual({});
});
