import { PallmistClient } from '@pallmist/api';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { startGarden, type TestService } from '../../../test/support/garden-service.ts';
import { Visitor } from '../../../test/support/visitor.ts';

let service: TestService;
let client: PallmistClient;
beforeAll(async () => {
  service = await startGarden();
  client = new PallmistClient({ base: service.base, token: service.token });
});
afterAll(() => service.stop());

const at = (collection: string) => ({ app: 'quillmoor', collection });

it('finds records as texts, with the titles of what they refer to', async () => {
  const found = await client.call('findRecords', at('specimens'), {
    search: 'needle fox',
    where: [{ field: 'house', equals: 'thorn' }],
    size: 5,
  });
  expect(found.records.map(({ accession }) => accession)).toContain('QM-0412');
  expect(found.titles['house']).toEqual({ thorn: 'Thorn House' });
  const sorted = await client.call('findRecords', at('specimens'), { sort: { field: 'height', descending: true }, size: 3, page: 2 });
  expect(sorted.total).toBe(640);
  expect(sorted.records).toHaveLength(3);
  await expect(client.call('findRecords', at('specimens'), { where: [{ field: 'colour', equals: 'x' }] })).rejects.toMatchObject({
    status: 422,
  });
  await expect(client.call('findRecords', at('plants'), {})).rejects.toMatchObject({ status: 404 });
});

it('changes records one by one, and says by field what is refused', async () => {
  const { results } = await client.call('changeRecords', at('zones'), {
    changes: [
      { create: { code: 'bog', name: 'Bog', letter: 'X', coldest: '2' } },
      { create: { code: 'bog', name: 'Again', letter: 'Y' } },
      { key: 'bog', change: { coldest: 'very' } },
      { key: 'bog', change: { name: 'Peat bog' } },
      { key: 'bog', change: { nothing: 'x' } },
      { key: 'nowhere', remove: true },
      { create: { name: 'No key', letter: 'Z' } },
    ],
  });
  expect(results.map(({ key, problem, problems }) => key ?? problem ?? Object.keys(problems ?? {})[0])).toEqual([
    'bog',
    'code',
    'coldest',
    'bog',
    'The collection has no field “nothing”.',
    'The record is not there any more.',
    'code',
  ]);
  const counted = await client.call('changeRecords', at('notes'), {
    changes: [{ create: { number: '', specimen: 'QM-0412', day: '2026-11-19', heading: 'From the grid' } }],
  });
  expect(counted.results[0]?.key).toMatch(/^N-\d{4}$/);
  expect(await new Visitor(service.base).text('/garden/specimens/QM-0412?tab=notes')).toContain('From the grid');
});

it('keeps the records of a field and a collection that are renamed, in the draft and when it is published', async () => {
  const { revision, data } = await client.call('getDraft', { app: 'quillmoor' });
  const { collections } = data as { collections: Record<string, { fields: Record<string, object> }> };
  const keepers = collections['keepers'];
  const patch = [
    { op: 'move' as const, from: '/collections/keepers', path: '/collections/staff' },
    { op: 'add' as const, path: '/collections/staff/formerNames', value: ['keepers'] },
    { op: 'move' as const, from: '/collections/staff/fields/post', path: '/collections/staff/fields/duty' },
    { op: 'add' as const, path: '/collections/staff/fields/duty/formerNames', value: ['post'] },
    { op: 'replace' as const, path: '/collections/care/fields/keeper/of', value: 'staff' },
  ];
  await client.call('changeDraft', { app: 'quillmoor' }, { revision, patch, what: 'Renamed the keepers' });
  const before = await client.call('findRecords', at('staff'), {});
  expect(before.total).toBeGreaterThan(2);
  expect(before.records.some(({ duty }) => duty !== undefined)).toBe(true);
  expect(keepers).toBeDefined();
  // The live edition goes on by the old names while the draft has the new ones.
  await new Visitor(service.base).text('/garden/specimens/QM-0412?tab=care');
  await client.call('publish', { app: 'quillmoor' }, {});
  const afterwards = await client.call('findRecords', at('staff'), {});
  expect(afterwards).toEqual(before);
  const added = await client.call('changeRecords', at('staff'), { changes: [{ create: { login: 'ivo', name: 'Ivo', duty: 'Bees' } }] });
  expect(added.results).toEqual([{ key: 'ivo' }]);
});

it('writes a mail as its form would, and puts a test into the outbox that nobody gets', async () => {
  const preview = { page: 'specimen', component: 'adopt', address: '/~/draft/quillmoor/specimens/QM-0412', send: true };
  const mail = await client.call('previewMail', { app: 'quillmoor', mail: 'adopted' }, preview);
  expect(mail.subject).toBe('[Draft] Needle foxtail is yours to look after');
  expect(mail.text).toContain('/~/draft/quillmoor/specimens/QM-0412?');
  const { mails } = await client.call('listMails', {});
  expect(mails[0]).toMatchObject({ subject: mail.subject, form: 'specimen/adopt' });
  expect(mails[0]?.state).not.toBe('waiting');
  await expect(client.call('previewMail', { app: 'quillmoor', mail: 'nothing' }, preview)).rejects.toMatchObject({ status: 404 });
});
