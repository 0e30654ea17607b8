import { afterAll, beforeAll, expect, it } from 'vitest';
import { startTestService, type TestService } from '../../../test/support/garden-service.ts';
import { littleApp } from '../../../test/support/little-app.ts';
import { Visitor } from '../../../test/support/visitor.ts';
import { csvSource } from '../src/api/router.ts';

const app = littleApp({
  more: 'signIn: { page: in }\n',
  collections: `
  people: { keyField: login, titleField: name, fields: { login: { type: text }, name: { type: text }, remark: { type: text, sensitive: true } } }
  tasks: { keyField: code, fields: { code: { type: text }, remark: { type: text }, keeper: { type: record, of: people }, open: { type: boolean } } }`,
  pages: `
  in: { title: In, address: /in, content: [{ show: sign-in }] }
  home:
    title: Home
    address: /{?task,more}
    parameters: { task: { type: record, of: tasks }, more: { type: boolean, default: false } }
    rows:
      all: { from: tasks, sort: code }
      people: { from: people, sort: login }
    content:
      - { show: table, rows: all, label: Tasks, columns: [{ field: remark }, { text: "{row.keeper.name}" }] }
      - { show: text, when: param.more, text: More to read }
      - show: panel
        when: '"boss" in person.roles'
        label: For the boss
        content:
          - { show: table, rows: people, label: People, columns: [{ field: name }, { field: remark }] }
          - { show: link, text: To the vault, to: { page: vault } }
      - { show: notice, when: 'has(record.task.code) && !record.task.open', text: 'Closed by {record.task.keeper.login}' }
      - { show: notice, when: 'param.more && total.all > 1', text: There are several }
  vault: { title: Vault, address: /vault, content: [{ show: text, text: Gold }] }`,
});

let service: TestService;
beforeAll(async () => {
  service = await startTestService();
  await service.apps.push('little', {
    source: app,
    records: [
      csvSource('people', 'login,name,remark\nada,Ada,secret-of-ada\nbo,Bo,secret-of-bo\n'),
      csvSource('tasks', 'code,remark,keeper,open\nT1,water it,ada,true\nT2,cut it,bo,false\n'),
    ],
  });
  await service.store.people.put('little', 'boss', { name: 'The Boss', password: 'a-long-one', roles: ['boss'] });
  await service.apps.publish('little', undefined);
});
afterAll(() => service.stop());

const document = async (path: string, visitor = new Visitor(service.base)) => (await visitor.get(path)).text();
const data = async (path: string, visitor = new Visitor(service.base)) =>
  (await visitor.get(path, { accept: 'application/vnd.pallmist.page-data+json' })).text();

it('what a condition on the person hides is sent to nobody else: no text, row, field, link or condition', async () => {
  for (const sent of [await document('/little'), await data('/little')]) {
    expect(sent).toContain('water it');
    for (const hidden of ['For the boss', 'secret-of', 'To the vault', '/vault', '"boss', 'in person.roles'])
      expect(sent).not.toContain(hidden);
  }
  const boss = new Visitor(service.base);
  await boss.send('/little/in', { '~name': 'boss', '~password': 'a-long-one' });
  for (const sent of [await document('/little', boss), await data('/little', boss)])
    for (const shown of ['For the boss', 'secret-of-ada', '/vault']) expect(sent).toContain(shown);
  // And after the boss was there, to others as before.
  expect(await document('/little')).not.toContain('secret-of');
});

it('fields are sent by their path: a field of the same name of another record is not', async () => {
  const sent = await data('/little?task=T1');
  expect(JSON.parse(sent).data).toMatchObject({
    rows: { all: { rows: [{ code: 'T1', remark: 'water it', keeper: { name: 'Ada' } }, { code: 'T2' }] } },
  });
  expect(sent).not.toContain('secret-of');
});

it('conditions on records and numbers are settled by the service, and the browser asks when their parameters change', async () => {
  expect(await document('/little?task=T1')).not.toContain('Closed by');
  expect(await document('/little?task=T2')).toContain('Closed by bo');
  expect(await data('/little')).not.toContain('There are several');
  expect(await document('/little?more=true')).toContain('There are several');
  expect(JSON.parse(await data('/little')).asks).toEqual(['more']);
  // What depends on the address alone is there for the browser to show.
  expect(await data('/little')).toContain('More to read');
});

it('what forms set, mail and lead to is not sent either', async () => {
  const form = app.replace(
    '      - { show: text, when: param.more',
    '      - { show: form, name: add, label: Add, action: create, collection: tasks, fields: [remark], set: { code: "{today}-internal", keeper: "{person.login}" }, then: { page: vault } }\n      - { show: text, when: param.more',
  );
  await service.apps.push('little', { source: form });
  await service.apps.publish('little', undefined);
  const sent = await data('/little');
  expect(sent).toContain('"Add"');
  for (const hidden of ['-internal', 'person.login', '"then"']) expect(sent).not.toContain(hidden);
  const made = await new Visitor(service.base).send('/little', { '~form': 'add', remark: 'new' });
  expect(made.headers.get('location')).toBe('/little/vault');
});
