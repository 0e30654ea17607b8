import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { csvSource } from '../src/api/router.ts';
import { gardenFile, keeper, startGarden, type TestService } from '../../../test/support/garden-service.ts';
import { Visitor } from '../../../test/support/visitor.ts';

let service: TestService;
let owner: Visitor;
beforeAll(async () => {
  service = await startGarden();
  draft = `${service.drafts}/~/draft/quillmoor/specimens/QM-0412?tab=notes`;
  owner = new Visitor(service.base, { authorization: `Bearer ${service.token}` });
  for (const mount of ['/garden', `${service.drafts}/~/draft/quillmoor`])
    await owner.send(`${mount}/sign-in`, { '~name': keeper.login, '~password': keeper.password });
});
afterAll(() => service.stop());

const live = '/garden/specimens/QM-0412?tab=notes';
let draft: string;
const text = (path: string) => owner.text(path);
const write = (mount: string, heading: string) =>
  owner.send(`${mount}/specimens/QM-0412?write=true`, { '~form': 'write-note', heading, body: '', day: '2026-11-20', photo: '' });

it('forms of a draft change a copy of the records, and the app goes on with its own', async () => {
  expect((await write(`${service.drafts}/~/draft/quillmoor`, 'Tried out')).status).toBe(303);
  expect(await text(draft)).toContain('Tried out');
  expect(await text(live)).not.toContain('Tried out');
  // What the app had before is in the copy too, and is removed there only.
  const number = /note=(N-\d+)/.exec(await text(live))?.[1] ?? '';
  await owner.send(`${draft}&note=${number}`, { '~form': 'remove-note' });
  expect(await text(draft)).not.toContain(number);
  expect(await text(live)).toContain(number);
  // What the app gets from now on is its own as well.
  await write('/garden', 'Written by a visitor');
  expect(await text(live)).toContain('Written by a visitor');
  expect(await text(draft)).not.toContain('Written by a visitor');
});

it('a field that the draft gets meanwhile is in the copy, and a draft that is published has the records of the app', async () => {
  const more = gardenFile
    .replace('author: { type: text }', 'author: { type: text }\n      weather: { type: text }')
    .replace('- { field: body, lines: 5 }', '- { field: body, lines: 5 }\n              - weather');
  await service.apps.push('quillmoor', { source: more });
  const answer = await owner.send(`${service.drafts}/~/draft/quillmoor/specimens/QM-0412?write=true`, {
    '~form': 'write-note',
    heading: 'With the weather',
    body: '',
    weather: 'hail',
    day: '2026-11-20',
    photo: '',
  });
  expect(answer.status).toBe(303);
  expect(await text(draft)).toContain('With the weather');
  await service.apps.publish('quillmoor', undefined);
  for (const path of [live, draft]) {
    expect(await text(path)).toContain('Written by a visitor');
    expect(await text(path)).not.toMatch(/Tried out|With the weather/);
  }
});

it('new data take the place of the copy', async () => {
  await write(`${service.drafts}/~/draft/quillmoor`, 'Tried again');
  expect(await text(draft)).toContain('Tried again');
  const notes = readFileSync(new URL('../../../demo/quillmoor/data/notes.csv', import.meta.url), 'utf8');
  await service.apps.push('quillmoor', { source: gardenFile, records: [csvSource('notes', notes)], replace: true });
  expect(await text(draft)).not.toContain('Tried again');
});
