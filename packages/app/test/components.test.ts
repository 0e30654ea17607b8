import { describe, expect, it } from 'vitest';
import {
  arrive,
  checkAppFile,
  evaluateCel,
  optionSources,
  planLoad,
  readAddress,
  type ComponentName,
  type PageData,
  type PagePayload,
} from '../src/index.ts';
import { nodesOf, showAt } from './show.ts';

const source = `
pallmist: 1
app: x
title: X
mount: /x
language: lang
choices:
  langs: { en: English, de: Deutsch }
  view: { one: First, two: Second }
parameters:
  lang: { type: choice, of: langs, default: en }
words:
  hello: { en: Hello, de: Hallo }
collections:
  houses: { keyField: code, titleField: name, fields: { code: { type: text }, name: { type: text } } }
  plants:
    keyField: code
    titleField: name
    fields:
      code: { type: text, serial: P-00 }
      name: { type: text, required: true }
      tag: { type: text, unique: true }
      house: { type: record, of: houses }
pages:
  home:
    title: "{label.view} {word.hello}"
    address: /{?view,open,spell,picked,edited,numbers,greet,size,page}
    parameters:
      view: { type: choice, of: view, default: one }
      open: { type: record, of: plants }
      spell: { type: range, of: integer, min: 0, max: 9 }
      picked: { type: list, items: { type: record, of: plants } }
      edited: { type: record, of: plants, share: false }
      numbers: { type: list, items: { type: integer }, maxItems: 2 }
      greet: { type: boolean, default: false, once: true }
      size: { type: integer, min: 1, max: 50, default: 10 }
      page: { type: integer, min: 1, default: 1 }
    arrival:
      - { when: param.greet, set: { view: two }, notice: "{word.hello} {person.name}" }
    rows:
      rows: { from: plants, where: [{ field: house, equals: "{record.open.house.code}" }], size: "{param.size}", page: "{param.page}" }
      seldom: { from: plants, when: has(param.open) }
    content:
      - { show: navigation, bind: view }
      - { show: views, bind: view, panes: { one: [{ show: text, text: "1" }], two: [{ show: text, text: "2" }] } }
      - { show: language }
      - { show: share }
      - { show: back, text: Back, to: { page: plant, values: { plant: T1 } } }
      - { show: image, file: "../secret.png", alt: x }
      - { show: radio, bind: open, label: Open }
      - { show: input, bind: spell, label: Spell }
      - { show: input, bind: numbers, label: Numbers }
      - { show: dialog, bind: open, label: "{record.open.name}", content: [{ show: details, bind: open, fields: [name, house.name] }] }
      - { show: link, text: keep, to: { page: plant, values: { plant: T1 }, keep: [view], window: new } }
      - { show: link, look: button, text: keep all, to: { page: home, values: { page: 2 }, keep: true } }
      - { show: ask, label: Which, page: plant, boxes: [view], values: { plant: T1 } }
      - show: table
        rows: rows
        label: Plants
        bind: { tick: picked }
        edit: { bind: edited, name: change, fields: [name, house] }
        beforeSearch: Not yet
        columns: [{ field: name, to: { page: plant, values: { plant: "{row.tag}" } } }, { field: house.name }]
      - { show: list, rows: rows, label: Plants, text: "{row.name}", detail: "{row.house.name}", image: "{row.tag}.svg", link: { page: plant, values: { plant: "{row.tag}" } } }
      - { show: pager, rows: rows, bind: page, size: size, sizes: [5, 20] }
      - { show: form, name: add, label: Add, action: create, collection: plants, fields: [{ field: name, value: "{person.name}" }, house] }
  plant:
    title: "{record.plant.name}"
    address: /plants/{plant}{?view}
    parameters:
      plant: { type: record, of: plants, by: tag }
      view: { type: choice, of: view }
    content: [{ show: text, text: "{has(param.view) ? label.view : ''}" }]
`;
const { definition, compiled, problems } = checkAppFile(source);
if (!definition || !compiled) throw new Error(JSON.stringify(problems));

const fern = { code: 'P-01', name: 'Fern', tag: 'T1', house: { code: 'h', name: 'High house' } };
const data: PageData = {
  records: { open: fern, edited: fern },
  rows: { rows: { rows: [fern, { code: 'P-02', name: 'Moss' }], total: 30, page: 1, size: 10 } },
  options: { houses: [{ key: 'h', title: 'High house' }], plants: [{ key: 'P-01', title: 'Fern' }] },
};
const person = { login: 'ansa', name: 'Ansa', roles: [] };

const show = (address: string, more: Partial<PagePayload> = {}) => showAt(definition, compiled, address, { data, person, ...more });
const node = <Name extends ComponentName>(address: string, kind: Name, more?: Partial<PagePayload>) =>
  nodesOf(show(address, more).content, kind)[0]!;
const input = (address: string, bind: string) => nodesOf(show(address).content, 'input').find(({ name }) => name === bind);

/** Where the only link leads that looks like a button. */
const buttonHref = (address: string) => nodesOf(show(address).content, 'link').find(({ look }) => look === 'button')?.link.href;

it('the app is right', () => {
  expect(problems.filter(({ severity }) => severity === 'error')).toEqual([]);
});

describe('one declaration of choices', () => {
  it('gives the menu, the entry that is highlighted, the view that is shown, and the title', () => {
    const shown = show('/x?view=two&lang=de');
    expect(shown.title).toBe('Second Hallo');
    expect(shown.language).toBe('de');
    expect(node('/x?view=two', 'navigation').links).toEqual([
      { text: 'First', href: '/x', change: { view: 'one' } },
      { text: 'Second', href: '/x?view=two', change: { view: 'two' }, current: 'page' },
    ]);
    expect(node('/x?view=two', 'views').content).toEqual([{ show: 'text', text: '2' }]);
  });

  it('gives the languages, each in its own', () => {
    expect(node('/x?view=two', 'language').languages.map(({ tag, href, current }) => [tag, href, current])).toEqual([
      ['en', '/x?view=two', true],
      ['de', '/x?view=two&lang=de', false],
    ]);
  });
});

describe('links', () => {
  it('keep what they are told to keep, and open where they are told to', () => {
    expect(node('/x?view=two&page=3', 'link').link).toEqual({
      text: 'keep',
      href: '/x/plants/T1?view=two',
      newWindow: '(opens in a new window)',
    });
    expect(buttonHref('/x?view=two&numbers=1,2')).toBe('/x?view=two&numbers=1,2&page=2');
  });

  it('for sharing leave out what is nobody else’s', () => {
    expect(node('/x?view=two&edited=P-01', 'share').href).toBe('/x?view=two');
  });

  it('lead back to where one came from, as it was left, or to the page itself', () => {
    expect(node('/x/', 'back')).toMatchObject({ cameFrom: false, link: { href: '/x/plants/T1' } });
    const previous = { page: 'plant', address: '/x/plants/T9?view=two' };
    expect(node('/x/', 'back', { previous })).toMatchObject({ cameFrom: true, link: { href: previous.address } });
  });

  it('ask for the parameters of the page that they lead to', () => {
    const ask = node('/x/', 'ask');
    expect(ask.form.action).toBe('/x/plants/T1');
    expect(ask.boxes).toMatchObject([{ name: 'view', kind: 'select', options: [{ value: '' }, { value: 'one' }, { value: 'two' }] }]);
  });
});

describe('inputs', () => {
  it('of a range are two boxes of one name, which read as the range', () => {
    expect(input('/x?spell=2..', 'spell')).toMatchObject({ kind: 'number', from: '2', to: '', min: '0', max: '9' });
    const values = (query: string) => readAddress(compiled, `/x?${query}`).values['spell'];
    expect(values('spell=2&spell=5')).toEqual({ from: 2, to: 5 });
    expect(values('spell=&spell=5')).toEqual({ to: 5 });
    expect(values('spell=&spell=')).toBeUndefined();
    expect(values('spell=5&spell=2')).toBeUndefined();
    expect(values('spell=2,5')).toBeUndefined();
  });

  it('of a list are a box for each item, and one more while it may grow', () => {
    expect(input('/x?numbers=4', 'numbers')).toMatchObject({ values: ['4'], grows: true });
    expect(input('/x?numbers=4,5', 'numbers')).toMatchObject({ values: ['4', '5'], grows: false });
  });

  it('show no picture from outside the app’s folder', () => {
    expect(node('/x/', 'image').source).toBe('');
  });
});

describe('a dialog', () => {
  it('is open while its parameter has a value, and closing takes that out', () => {
    expect(node('/x/', 'dialog')).toBeUndefined();
    const dialog = node('/x?view=two&open=P-01', 'dialog');
    expect(dialog).toMatchObject({ label: 'Fern', close: { href: '/x?view=two' } });
    expect(dialog.content).toMatchObject([{ entries: [{ value: { text: 'Fern' } }, { label: 'Name', value: { text: 'High house' } }] }]);
  });
});

describe('a table', () => {
  it('has rows to choose and one to edit, and says so in the address', () => {
    const table = node('/x?picked=P-02&edited=P-01', 'table');
    expect(table.rows.map(({ chosen, edit }) => [chosen, edit?.href])).toEqual([
      [false, '/x?picked=P-02&edited=P-01'],
      [true, '/x?picked=P-02&edited=P-02'],
    ]);
    expect(table.rows[0]?.cells).toEqual([{ text: 'Fern', href: '/x/plants/T1' }, { text: 'High house' }]);
    expect(table.rows[1]?.cells).toEqual([{ text: 'Moss' }, { text: '' }]);
    expect(table.choose).toMatchObject({ name: 'picked', chosen: ['P-02'], form: { keeps: [{ name: 'edited', value: 'P-01' }] } });
    expect(table.edited).toMatchObject({ key: 'P-01', cancel: { href: '/x?picked=P-02' } });
    expect(table.edited?.form.boxes.map(({ name, value }) => [name, value])).toEqual([
      ['name', 'Fern'],
      ['house', 'h'],
    ]);
  });

  it('tells nothing found from nothing asked', () => {
    const empty = { rows: [], total: 0, page: 1, size: 10 };
    expect(node('/x/', 'table', { data: { ...data, rows: { rows: empty } } }).empty).toBe('Nothing found.');
    expect(node('/x/', 'table', { data: { ...data, rows: { rows: { ...empty, unasked: true } } } }).empty).toBe('Not yet');
  });

  it('has pages of the size that the address says', () => {
    expect(node('/x/', 'pager').size).toMatchObject({ value: '10', options: [{ value: '5' }, { value: '10' }, { value: '20' }] });
  });
});

it('a list says of each record what it is told to, with a picture and a link where there are', () => {
  expect(node('/x?picked=P-02', 'list').entries).toEqual([
    { key: 'P-01', link: { text: 'Fern', href: '/x/plants/T1' }, detail: 'High house', picture: '/x/~files/T1.svg' },
    { key: 'P-02', link: { text: 'Moss' }, detail: '' },
  ]);
});

describe('a form', () => {
  it('begins with what the app file says, and again with what was typed', () => {
    expect(node('/x/', 'form').boxes.map(({ name, value, required }) => [name, value, required])).toEqual([
      ['name', 'Ansa', true],
      ['house', '', false],
    ]);
    const forms = { add: { values: { name: '', house: 'h' }, problems: { name: 'Empty.' }, problem: 'No.' } };
    expect(node('/x/', 'form', { forms })).toMatchObject({ problem: 'No.', boxes: [{ value: '', problem: 'Empty.' }, { value: 'h' }] });
  });
});

describe('what a page loads', () => {
  const plan = (address: string, records?: PageData['records']) => {
    const { values } = readAddress(compiled, address);
    return planLoad(definition, definition.pages['home']!, values, { today: '2026-11-23', visit: {} }, evaluateCel, records);
  };

  it('depends on records where reads name them, and reads only what is wanted', () => {
    expect(plan('/x?open=P-01&size=5').rows['rows']).toMatchObject({ where: [], size: 5 });
    expect(plan('/x?open=P-01', { open: fern }).rows['rows']?.where).toEqual([{ field: 'house', operator: 'equals', value: 'h' }]);
    expect(Object.keys(plan('/x/').rows)).toEqual(['rows']);
    expect(Object.keys(plan('/x?open=P-01').rows)).toEqual(['rows', 'seldom']);
    expect(optionSources(definition, definition.pages['home']!)).toEqual([{ from: 'plants' }, { from: 'houses' }]);
  });
});

describe('arriving', () => {
  const arriving = (query: string) => {
    const { values, parameters } = readAddress(compiled, `/x?${query}`);
    const stated = new Set(parameters.flatMap(({ name, text }) => (text === undefined ? [] : [name])));
    return arrive(
      definition,
      definition.pages['home']!,
      compiled.pages.get('home')!,
      { values, stated },
      { today: '2026-11-23', visit: {} },
      evaluateCel,
    );
  };

  it('sets view state where a rule holds, and never over what the address says', () => {
    expect(arriving('greet=true')).toMatchObject({ values: { view: 'two' }, held: [0] });
    expect(arriving('greet=true&view=one').values['view']).toBe('one');
    expect(arriving('').held).toEqual([]);
  });

  it('says its notice on the page', () => {
    expect(show('/x?greet=true', { arrival: [0] }).arrival).toEqual(['Hello Ansa']);
  });
});

describe('the check finds of all this', () => {
  it.each([
    ['show: navigation, bind: view }', 'show: navigation }', 'links-or-bind'],
    ['language: lang', 'language: view', 'unknown-binding'],
    ['{ en: Hello, de: Hallo }', '{ en: Hello }', 'word-missing-language'],
    ['{ en: Hello, de: Hallo }', '{ en: Hello, de: Hallo, fr: Salut }', 'unknown-language'],
    ['set: { view: two }', 'set: { view: three }', 'wrong-value'],
    ['set: { view: two }', 'set: { veiw: two }', 'undeclared'],
    ['two: [{ show: text, text: "2" }]', 'tow: []', 'choice-without-view'],
    ['keep: [view]', 'keep: [veiw]', 'unknown-kept'],
    ['boxes: [view]', 'boxes: [veiw]', 'undeclared'],
    ['{ field: house.name }', '{ field: house.nmae }', 'unknown-field'],
    ['fields: [name, house] }', 'fields: [nmae, house] }', 'unknown-field'],
    ['picked: { type: list, items: { type: record, of: plants } }', 'picked: { type: list, items: { type: text } }', 'binding-wrong-type'],
    [
      'collection: plants, fields: [{ field: name, value: "{person.name}" }, house]',
      'collection: plants, fields: [house]',
      'form-missing-field',
    ],
    ['name: add', 'name: change', 'form-name-taken'],
    ['collection: plants, fields', 'record: open, fields', 'missing-key'],
    ['by: tag', 'by: tga', 'unknown-field'],
    ['equals: "{record.open.house.code}"', 'equals: "{total.rows}"', 'unknown-in-expression'],
    ['when: param.greet', 'when: record.open.name', 'unknown-in-expression'],
    ['name: { type: text, required: true }', 'name: { type: date, required: true, serial: "0" }', 'attribute-without-effect'],
  ])('%s → %s', (from, to, code) => {
    expect(source).toContain(from);
    const found = checkAppFile(source.replace(from, to)).problems;
    expect(
      found.map((problem) => problem.code),
      JSON.stringify(found),
    ).toContain(code);
    expect(found.every(({ line }) => line !== undefined)).toBe(true);
  });
});
