import { checkAppFile } from '@pallmist/app';
import {
  addPage,
  AppChecker,
  availableValues,
  canLeadTo,
  conditionRows,
  conditionText,
  conditionWords,
  copyPage,
  componentKinds,
  describeChanges,
  describePlace,
  insertComponent,
  mapApp,
  misfitsOf,
  moveComponent,
  newComponent,
  pagesForCollection,
  patchData,
  propertiesOf,
  removePage,
  renameCollection,
  renameField,
  retitlePage,
  stepComponent,
  usesOfField,
  usesOfParameter,
  valueAt,
  valuesNearby,
  type AppDefinition,
} from '@pallmist/app/editing';
import { stringify } from 'yaml';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

const garden = checkAppFile(readFileSync(new URL('../../../../demo/quillmoor/app.yaml', import.meta.url), 'utf8'))
  .definition as AppDefinition;

type Patch = Parameters<typeof patchData>[1];
const after = (patch: Patch, app: AppDefinition = garden) => patchData(app, patch) as AppDefinition;
const problems = (app: AppDefinition) => checkAppFile(stringify(app)).problems.map(({ code, pointer }) => `${code} ${pointer ?? ''}`);

describe('renames', () => {
  it.each(
    Object.entries(garden.collections ?? {}).flatMap(([collection, { fields }]) =>
      Object.keys(fields).map((field) => [collection, field] as const),
    ),
  )('the field %s.%s, and the app passes the check as before', (collection, field) => {
    expect(problems(after(renameField(garden, collection, field, 'renamed')))).toEqual([]);
  });

  it.each(Object.keys(garden.collections ?? {}))('the collection %s, and the app passes the check as before', (collection) => {
    expect(problems(after(renameCollection(garden, collection, 'renamed')))).toEqual([]);
  });
});

it('checks what has changed as the whole check does', () => {
  const checker = new AppChecker();
  let app = garden;
  const steps: Patch[] = [
    [{ op: 'replace', path: '/pages/specimen/address', value: '/specimens/{specimen}{?note,write,adopt,saved,adopted}' }],
    [{ op: 'remove', path: '/pages/houses' }],
    [{ op: 'replace', path: '/collections/specimens/fields/name/type', value: 'integer' }],
    [{ op: 'add', path: '/pages/home/content/0/unknown', value: 1 }],
    [{ op: 'remove', path: '/pages/home/content/0/unknown' }],
    [{ op: 'replace', path: '/choices/health', value: { well: 'Well' } }],
  ];
  for (const step of steps) {
    app = after(step, app);
    const whole = checkAppFile(stringify(app));
    const quick = checker.check(app);
    const said = (found: typeof quick) => found.problems.map(({ code, pointer, message }) => `${code} ${pointer ?? ''} ${message}`).sort();
    expect(said(quick)).toEqual(said(whole));
    expect(quick.definition).toEqual(whole.definition);
  }
});

describe('pages', () => {
  it('follow their titles until they are published, and are copied to addresses of their own', () => {
    const made = addPage(garden, 'Opening hours');
    let app = after(made.patch);
    expect(app.pages[made.name]?.address).toBe('/opening-hours');
    app = after(retitlePage(app, made.name, 'When we open', false), app);
    expect(app.pages[made.name]).toMatchObject({ address: '/when-we-open', content: [{ text: 'When we open' }] });
    expect(after(retitlePage(app, made.name, 'Hours', true), app).pages[made.name]?.address).toBe('/when-we-open');
    const copy = copyPage(garden, 'specimen');
    expect(problems(after(copy.patch))).toEqual([`unlinked-page /pages/${copy.name}`]);
    expect(Object.keys(after(copy.patch).pages).indexOf(copy.name)).toBe(Object.keys(garden.pages).indexOf('specimen') + 1);
  });

  it('lead on when they are removed, where the other page knows what their path holds', () => {
    expect(canLeadTo(garden, 'label', 'specimen')).toBe(true);
    expect(canLeadTo(garden, 'specimen', 'home')).toBe(false);
    const removed = after(removePage(garden, 'numbers', 'specimens'));
    expect(removed.pages['specimens']?.formerAddresses).toContain('/numbers{?house,health}');
    const changes = describeChanges(garden, removed).filter(({ kind }) => kind === 'gone');
    expect(changes).toMatchObject([{ about: 'address', words: '/garden/numbers leads to “specimens” from now on.' }]);
    expect(describeChanges(garden, after(removePage(garden, 'numbers')))).toContainEqual(
      expect.objectContaining({ kind: 'gone', breaks: true }),
    );
  });

  it('are made for a collection in one step, linked with each other, and pass the check', () => {
    for (const name of Object.keys(garden.collections ?? {})) {
      const made = pagesForCollection(garden, name);
      const app = after(made.patch);
      expect(problems(app), name).toEqual([]);
      const links = mapApp(app).links.filter(({ from }) => [made.list, made.record, made.add, made.change].includes(from));
      expect(links.map(({ from, to }) => `${from} ${to}`)).toEqual(
        expect.arrayContaining([
          `${made.list} ${made.record}`,
          `${made.list} ${made.add}`,
          `${made.record} ${made.change}`,
          `${made.add} ${made.record}`,
        ]),
      );
    }
  });
});

describe('components', () => {
  it('have an editor for each property that the schema has, and know what is bound', () => {
    for (const { name } of componentKinds) {
      const data = propertiesOf(name).filter(({ kind }) => kind.is === 'data');
      expect(data.map(({ key }) => `${name} ${key}`).filter((key) => !['share short', 'share withVisit'].includes(key))).toEqual([]);
    }
    expect(propertiesOf('select').find(({ key }) => key === 'bind')?.kind).toEqual({ is: 'bind', types: ['choice', 'record', 'boolean'] });
    expect(propertiesOf('form').find(({ key }) => key === 'then')?.kind).toEqual({ is: 'link' });
  });

  it('of every kind can be added to a page, and the check says what they still need', () => {
    for (const { name } of componentKinds) {
      const app = after(insertComponent(garden, '/pages/specimens/content', newComponent(garden, 'specimens', name)));
      const codes = checkAppFile(stringify(app)).problems.map(({ code }) => code);
      expect(
        codes.filter((code) => ['unknown-key', 'missing-key', 'unknown-component'].includes(code)),
        name,
      ).toEqual([]);
    }
  });

  it('move among each other, out of and into what holds them', () => {
    const tabs = '/pages/specimen/content/4';
    const first = `${tabs}/panes/overview/0`;
    const out = stepComponent(garden, first, -1);
    expect(out.pointer).toBe(tabs);
    expect(valueAt(after(out.patch), tabs)).toEqual(valueAt(garden, first));
    const into = moveComponent('/pages/specimen/content/3', `${tabs}/panes/overview`, 0);
    expect(into.pointer).toBe('/pages/specimen/content/3/panes/overview/0');
    expect(valueAt(after(into.patch), into.pointer)).toEqual(valueAt(garden, '/pages/specimen/content/3'));
    expect(moveComponent(tabs, `${tabs}/panes/overview`, 0).patch).toEqual([]);
  });

  it('say what does not fit after they were pasted to another page, and what would', () => {
    const search = (garden.pages['specimens']?.content ?? []).find(({ show }) => show === 'search');
    const app = after(insertComponent(garden, '/pages/houses/content', search ?? { show: 'search' }, 0));
    expect(misfitsOf(app, 'houses', '/pages/houses/content/0')).toMatchObject([
      { pointer: '/pages/houses/content/0/bind', named: 'q', what: 'parameter' },
    ]);
  });
});

describe('values and conditions', () => {
  it('offers what fits first, with the reason for the rest and the step that would bring it', () => {
    const values = availableValues(garden, { page: 'specimens', row: 'found' }, 'int');
    const fits = values.filter(({ misfit }) => misfit === undefined).map(({ expression }) => expression);
    expect(fits).toContain('param.page');
    expect(fits).not.toContain('row.name');
    expect(values.find(({ expression }) => expression === 'row.name')?.misfit).toBe('It is a text; a whole number is wanted.');
    const [nearby] = valuesNearby(garden, { page: 'houses' });
    const app = after(nearby?.patch ?? []);
    expect(availableValues(app, { page: 'houses' }, 'text').map(({ expression }) => expression)).toContain(nearby?.expression);
  });

  it.each([
    'has(param.q)',
    '!has(param.q) && param.tab == "care"',
    '"keeper" in person.roles || param.size > 10',
    '!param.open',
    'param.x <= -2.5',
  ])('shows %s as rows, and writes them as the same condition', (condition) => {
    const rows = conditionRows(condition);
    expect(rows && conditionText(rows)).toBe(condition);
  });

  it('leaves what rows cannot say as it is, and says in words whom a condition hides something from', () => {
    expect(conditionRows('size(rows.found) > 1')).toBeUndefined();
    expect(conditionRows('has(param.q) && (param.a == 1 || param.b == 2)')).toBeUndefined();
    expect(conditionWords('"keeper" in person.roles', (subject) => subject)).toBe(
      'Visitors see it only if the visitor is signed in and has the role “keeper”. Pallmist does not send it to anyone else.',
    );
  });
});

it('finds where a field is used, in reads, columns, texts and the key', () => {
  const words = usesOfField(garden, 'specimens', 'height').map(({ pointer }) => describePlace(garden, pointer).words);
  expect(words.some((one) => one.startsWith('specimens'))).toBe(true);
  expect(usesOfField(garden, 'specimens', 'accession').map(({ pointer }) => pointer)).toContain('/collections/specimens/keyField');
  expect(usesOfField(garden, 'specimens', 'nothing')).toEqual([]);
});

it('finds where a parameter is bound, read, reset and sent, each in words', () => {
  const uses = usesOfParameter(garden, 'specimen', 'tab');
  expect(new Set(uses.map(({ how }) => how))).toEqual(new Set(['bound', 'sent', 'reset']));
  const words = uses.map(({ pointer }) => describePlace(garden, pointer).words);
  expect(words).toContain("specimen, tabs “Parts of the specimen's file”, bind");
  expect(words.some((one) => one.startsWith('Welcome to Quillmoor'))).toBe(true);
});
