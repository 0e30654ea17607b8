import { describe, expect, it } from 'vitest';
import {
  appPartFor,
  checkAppFile,
  compileApp,
  cutRecord,
  dataToSend,
  fieldsOn,
  isSettledByBrowser,
  pagePart,
  parametersAsked,
  programsFor,
  settlePage,
  writeAddress,
  type PageDefinition,
} from '../src/index.ts';
import { definition, gardenSource } from './garden.ts';

it('a browser is sent the pages that a page links to, and what they are made of', () => {
  const part = appPartFor(definition, 'specimen');
  expect(Object.keys(part.pages).sort()).toEqual(['labels', 'list', 'specimen']);
  expect(Object.keys(part.collections ?? {}).sort()).toEqual(['houses', 'specimens']);
  expect(Object.keys(part.choices ?? {})).toEqual(['tab']);
  const home = appPartFor(definition, 'home');
  expect(JSON.stringify(home)).not.toContain('Field notes on');
  expect(appPartFor(definition, 'nothing').pages).toHaveProperty('list');
});

it('a page to which only the header leads comes without what its links never write, and they lead where they did', () => {
  const links =
    '[{ text: Plan, to: { page: plan, values: { kind: care, q: fern } } }, { text: Beds, to: { page: plan, values: { kind: care }, keep: [beds] } }]';
  const plan = `
  plan:
    title: Plan
    address: /plan/{kind}{?drawing,q,beds*,n}
    parameters:
      kind: { type: choice, of: tab }
      drawing: { type: packed }
      q: { type: text, resets: [n, beds] }
      beds: { type: list, items: { type: text } }
      n: { type: integer, default: 1 }
    content: []`;
  const source = gardenSource.replace(/^pages:/m, `footer: { links: ${links} }\npages:${plan}`);
  const { definition: garden, problems: found } = checkAppFile(source);
  if (!garden) throw new Error(JSON.stringify(found));
  expect(appPartFor(garden, 'specimen').pages['plan']).toEqual({
    address: '/plan/{kind}{?q,beds*}',
    parameters: {
      kind: { type: 'choice', of: 'tab' },
      q: { type: 'text', resets: ['beds'] },
      beds: { type: 'list', items: { type: 'text' } },
    },
  });
  const values = { kind: 'care', q: 'fern & moss', beds: ['a', 'b'] };
  const written = writeAddress(compileApp(appPartFor(garden, 'specimen')).app, 'plan', values).address;
  expect(written).toBe(writeAddress(compileApp(garden).app, 'plan', values).address);
  // The page itself has all of them.
  expect(pagePart(garden, 'plan', garden.pages['plan'] as PageDefinition, []).packed).toBe(true);
  expect(pagePart(garden, 'specimen', garden.pages['specimen'] as PageDefinition, []).packed).toBe(false);
});

it('only pages whose expressions do more than follow fields need the engine', () => {
  expect(programsFor(definition, definition.pages['specimen'])).toEqual({ programs: {}, cel: false });
});

it('a choice may be a label, or a label with what it was called in the past', () => {
  const { problems } = checkAppFile(gardenSource.replace('care: Care log', 'care: { label: Care log, formerValues: [log, overview] }'));
  expect(problems).toEqual([]);
});

const office = `
pallmist: 1
app: office
title: Office
mount: /office
collections:
  people:
    keyField: login
    titleField: name
    fields: { login: { type: text }, name: { type: text }, remark: { type: text, sensitive: true }, pay: { type: integer } }
  tasks:
    keyField: code
    fields:
      code: { type: text }
      remark: { type: text }
      keeper: { type: record, of: people }
      parent: { type: record, of: tasks }
pages:
  home:
    title: Home
    address: /{?task,open}
    parameters:
      task: { type: record, of: tasks }
      open: { type: boolean, default: false }
    rows:
      all: { from: tasks }
      pay: { from: people }
    content:
      - { show: table, rows: all, label: Tasks, columns: [{ field: remark }, { text: '{row.keeper.name}', to: { page: home, values: { task: '{row["code"]}' } } }] }
      - { show: text, when: param.open, text: Open }
      - show: panel
        when: '"boss" in person.roles'
        content:
          - { show: text, text: 'Secret words, {rows.pay.map(p, string(p.pay))[0]}' }
          - { show: table, rows: pay, label: Pay, columns: [{ field: name }, { field: pay }] }
          - { show: link, text: Hidden link, to: { page: hidden } }
      - { show: text, when: 'param.open && record.task.remark == "x"', text: 'Depends on {record.task.keeper.login}' }
  hidden: { title: Hidden page, address: /hidden, content: [] }
`;
const { definition: app, problems } = checkAppFile(office);
const home = app?.pages['home'];
if (!app || !home) throw new Error(JSON.stringify(problems));

describe('what a browser gets', () => {
  it('fields by their paths: the remark of a task brings no remark of a person along', () => {
    const { rows, records } = fieldsOn(app, home, 'sent');
    expect(rows['all']).toEqual({ code: {}, remark: {}, keeper: { name: {} } });
    expect(rows['pay']).toEqual({ login: {}, name: {}, pay: {} });
    expect(records['task']).toEqual({ code: {}, remark: {}, keeper: { login: {} } });
    const task = { code: 'T', remark: 'plain', keeper: { login: 'a', name: 'Ada', remark: 'secret', pay: 3 } };
    expect(cutRecord(task, rows['all'] ?? {})).toEqual({ code: 'T', remark: 'plain', keeper: { name: 'Ada' } });
  });

  it('nothing of what a condition hides that names more than the address and the language', () => {
    const hidden = settlePage(home, (condition) => !condition.includes('roles') && undefined);
    const part = pagePart(app, 'home', hidden.page, []);
    const sent = JSON.stringify(part.page) + JSON.stringify(part.app.pages) + JSON.stringify(part.programs);
    for (const secret of ['Secret words', 'Hidden link', '/hidden', 'pay', 'boss']) expect(sent).not.toContain(secret);
    const rows = [{ code: 'T', remark: 'r', keeper: { login: 'a', name: 'Ada', remark: 'secret' } }];
    const read = { rows, total: 1, page: 1, size: 25 };
    const data = dataToSend({ records: {}, rows: { all: read, pay: { ...read, rows: [{ pay: 7 }] } }, options: {} }, part);
    expect(JSON.stringify(data)).not.toMatch(/secret|pay/);
    // One who may see it gets all of it, and no condition.
    const shown = settlePage(home, (condition) => condition.includes('roles') || undefined);
    expect(JSON.stringify(shown.page)).toContain('Secret words');
    expect(JSON.stringify(shown.page)).not.toContain('boss');
    expect(shown.variant).not.toBe(hidden.variant);
  });

  it('conditions on the address and the language stay with the browser; others it asks for when their parameters change', () => {
    expect(['param.open', 'word.x == "a" && has(param.task)'].map(isSettledByBrowser)).toEqual([true, true]);
    expect(['person.name == "a"', 'total.all > 0', 'today > "2026"', 'param.open && has(visit.via)'].map(isSettledByBrowser)).toEqual([
      false,
      false,
      false,
      false,
    ]);
    expect(parametersAsked(home)).toEqual(['open']);
  });
});
