import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import {
  gardenFile,
  gardenRecords,
  keeper,
  startGarden,
  startTestService,
  type TestService,
} from '../../../test/support/garden-service.ts';
import { littleApp } from '../../../test/support/little-app.ts';
import { Visitor } from '../../../test/support/visitor.ts';
import { Refused } from '../src/api/problem-details.ts';
import { csvSource } from '../src/api/router.ts';

const refusal = async (work: Promise<unknown>) => {
  const error: unknown = await work.catch((thrown: unknown) => thrown);
  expect(error).toBeInstanceOf(Refused);
  return (error as Refused).details;
};
const codes = ({ problems = [] }: { problems?: { code: string }[] | undefined }) => problems.map(({ code }) => code);

describe('what visitors have written', () => {
  let service: TestService;
  let visitor: Visitor;
  beforeAll(async () => {
    service = await startGarden();
    visitor = new Visitor(service.base);
  });
  afterAll(() => service.stop());
  const writing = '/garden/specimens/QM-0412?tab=notes&write=true';
  const note = { '~form': 'write-note', heading: 'A visitor’s own', body: 'words', day: '2026-11-18' };
  const page = () => visitor.text('/garden/specimens/QM-0412?tab=notes');

  it('is not thrown away by a push, which says how many records and which', async () => {
    expect((await visitor.send(writing, note)).status).toBe(303);
    const told = await refusal(service.apps.push('quillmoor', { source: gardenFile, records: gardenRecords() }));
    expect(told.status).toBe(409);
    expect(codes(told)).toEqual(['people-records-lost', 'records-removed']);
    expect(told.problems?.[0]?.message).toBe('1 record of “notes” that people have written would be removed or overwritten: N-0442.');
    expect(await page()).toContain('A visitor’s own');
  });

  it('is written into a file beside the database before it is replaced with consent', async () => {
    await service.apps.push('quillmoor', { source: gardenFile, records: gardenRecords(), replace: true });
    expect(await page()).not.toContain('A visitor’s own');
    const folder = join(service.data, 'exports');
    const [file = ''] = readdirSync(folder);
    expect(file).toMatch(/^quillmoor-notes-2026-11-19T.*\.csv$/);
    expect(readFileSync(join(folder, file), 'utf8')).toContain('N-0442,QM-0412,2026-11-18,A visitor’s own,words,A visitor,');
    expect(statSync(join(folder, file)).mode & 0o077).toBe(0);
  });

  it('has a number that is given once, also when the record was removed', async () => {
    const numbers: string[] = [];
    for (const heading of ['First', 'Second']) {
      const answer = await visitor.send(writing, { ...note, heading });
      numbers.push(/saved=(N-\d+)/.exec(answer.headers.get('location') ?? '')?.[1] ?? '');
      const owner = new Visitor(service.base);
      await owner.signIn(keeper);
      expect(
        (await owner.send(`/garden/specimens/QM-0412?tab=notes&note=${numbers.at(-1) ?? ''}`, { '~form': 'remove-note' })).status,
      ).toBe(303);
    }
    expect(new Set(numbers).size).toBe(2);
    // Numbers are compared as numbers: after 9999 comes 10000.
    await service.apps.importRecords(
      'quillmoor',
      csvSource('notes', 'number,specimen,day,heading\nN-9999,QM-0412,2026-11-01,Last of four\n'),
      'update',
      false,
    );
    for (const next of ['N-10000', 'N-10001']) {
      const answer = await visitor.send(writing, { ...note, heading: `Number ${next}` });
      expect(answer.headers.get('location')).toContain(`saved=${next}`);
    }
  });

  it('is there once, however often its form is sent', async () => {
    const form = await visitor.text(writing.replace('QM-0412', 'QM-0100'));
    const once = /name="~once" value="([^"]+)"/.exec(form)?.[1] ?? '';
    expect(once.length).toBeGreaterThan(16);
    expect(await visitor.text(writing.replace('QM-0412', 'QM-0100'))).not.toContain(once);
    const adopt = '/garden/specimens/QM-0100?adopt=true';
    const adoption = { '~form': 'adopt', '~once': once, name: 'Once', mail: 'once@moor.example' };
    const answers = await Promise.all([1, 2, 3].map(() => new Visitor(service.base).send(adopt, adoption)));
    expect(new Set(answers.map((answer) => answer.headers.get('location'))).size).toBe(1);
    const again = await visitor.send(adopt, adoption);
    expect(again.headers.get('location')).toBe(answers[0]?.headers.get('location'));
    const { mails } = (await (await service.owner('GET', '/mails')).json()) as { mails: { recipient: string }[] };
    expect(mails.filter(({ recipient }) => recipient === 'once@moor.example')).toHaveLength(1);
    expect(await service.store.records.count('quillmoor', 'adoptions')).toBe(1);
    // Another text from the same form is another record.
    await visitor.send(adopt, { ...adoption, name: 'Twice', mail: 'twice@moor.example' });
    expect(await service.store.records.count('quillmoor', 'adoptions')).toBe(2);
  });

  it('is changed by exactly one of many who change it at the same time, and never without saying what they saw', async () => {
    const made = await visitor.send('/garden/membership', { '~form': 'join', name: 'Ada', mail: 'ada@moor.example', kind: 'friend' });
    expect(made.status).toBe(303);
    const adopted = await service.store.mails.list('quillmoor', undefined, 5);
    const card =
      /(\/garden\/adoptions\?adoption=[^\s"'<]+)/.exec(
        adopted.find(({ recipient }) => recipient === 'once@moor.example')?.text ?? '',
      )?.[1] ?? '';
    const seen = /name="~seen" value="(\w+)"/.exec(await visitor.text(card))?.[1] ?? '';
    const answers = await Promise.all(
      Array.from({ length: 20 }, (_, index) =>
        new Visitor(service.base).send(card, {
          '~form': 'correct-adoption',
          '~seen': seen,
          name: `Name ${String(index)}`,
          mail: 'once@moor.example',
        }),
      ),
    );
    expect(answers.filter(({ status }) => status === 303)).toHaveLength(1);
    expect(answers.filter(({ status }) => status === 422)).toHaveLength(19);
    const without = await visitor.send(card, { '~form': 'correct-adoption', name: 'No mark', mail: 'once@moor.example' });
    expect(without.status).toBe(422);
    expect(await without.text()).toContain('changed by another person meanwhile');
  });

  it('is not removed while one other record belongs to it', async () => {
    const { collections = {} } = service.live.byName('quillmoor')?.definition ?? {};
    const remove = (key: string) =>
      service.store.records.save('quillmoor', collections, { action: 'remove', collection: 'specimens', key, values: {} });
    expect(await remove('QM-0100')).toMatchObject({ problem: expect.stringMatching(/^It cannot be removed: \d+ of “/) as string });
    expect(await remove('QM-9999')).toMatchObject({ problem: 'The record is not there any more.' });
  });
});

describe('a push', () => {
  let service: TestService;
  beforeAll(async () => {
    service = await startTestService();
  });
  afterAll(() => service.stop());
  const collections = `
  houses: { keyField: code, fields: { code: { type: text }, name: { type: text, required: true } } }
  plants: { keyField: code, fields: { code: { type: text }, house: { type: record, of: houses }, height: { type: number }, kind: { type: choice, of: kinds } } }`;
  const app = littleApp({ more: 'choices: { kinds: { fern: Fern, moss: Moss } }', collections });
  const houses = 'code,name\npalm,Palm House\nfern,Fern House\n';
  const rows = async (collection: string) => {
    const all: Record<string, unknown>[] = [];
    const definition = await service.apps.collectionsOf('little');
    for await (const batch of service.store.records.all('little', definition.collections ?? {}, collection)) all.push(...batch);
    return all;
  };

  it('changes the draft and all collections, or nothing', async () => {
    await service.apps.push('little', { source: app, records: [csvSource('houses', houses), csvSource('plants', 'code,house\nA,palm\n')] });
    const before = await service.apps.draft('little');
    const wrong = await refusal(
      service.apps.push('little', {
        source: `${app}# changed\n`,
        records: [csvSource('houses', `${houses}new,New House\n`), csvSource('plants', 'code,house\nA,palm\nB,nowhere\n')],
      }),
    );
    expect(wrong.problems?.map(({ message }) => message)).toEqual([
      'plants: 1 record refers by “house” to records of “houses” that there are not: nowhere.',
    ]);
    expect(await service.apps.draft('little')).toEqual(before);
    expect(await rows('houses')).toHaveLength(2);
    // A draft that has moved on takes its records along.
    await refusal(
      service.apps.push('little', { source: `${app}# other\n`, revision: 99, records: [csvSource('houses', `${houses}new,New House\n`)] }),
    );
    expect(await rows('houses')).toHaveLength(2);
    // References may lead to records that come with the same push.
    await service.apps.push('little', {
      source: app,
      records: [csvSource('plants', 'code,house\nA,palm\nB,new\n'), csvSource('houses', `${houses}new,New House\n`)],
    });
    expect(await rows('plants')).toEqual([
      { code: 'A', house: 'palm' },
      { code: 'B', house: 'new' },
    ]);
  });

  it('says each fault once, with how often and where', async () => {
    const lines = Array.from({ length: 300 }, (_, index) => `P${String(index)},palm,${index % 3 === 0 ? 'tall' : '1.5'}`);
    const told = await refusal(
      service.apps.push('little', {
        source: app,
        records: [csvSource('plants', `code,house,height\n${lines.join('\n')}\nP1,palm,2\nx,y\n`)],
      }),
    );
    expect(codes(told)).toEqual(['wrong-value', 'csv-columns', 'repeated-value']);
    expect(told.problems?.[0]?.message).toMatch(
      /^plants\.csv: line 2: “tall” does not fit.* So it is in 100 places, first in the lines 2, 5, 8, 11, 14\.$|^plants: line 2: “tall”.* So it is in 100 places, first in the lines 2, 5, 8, 11, 14\.$/,
    );
    const separator = await refusal(service.apps.push('little', { source: app, records: [csvSource('plants', 'code;house\nA;palm\n')] }));
    expect(codes(separator)).toEqual(['csv-separator']);
  });

  it('that would remove records says so before', async () => {
    const told = await refusal(service.apps.push('little', { source: app, records: [csvSource('plants', 'code,house\nA,palm\n')] }));
    expect(told.problems?.map(({ message }) => message)).toEqual([
      '1 record of “plants” would be removed, and links to them would break: B.',
    ]);
    expect(await rows('plants')).toHaveLength(2);
  });
});

describe('records that are imported and exported', () => {
  let service: TestService;
  beforeEach(async () => {
    service = await startTestService();
    await service.apps.push('little', {
      source: littleApp({
        collections:
          '  things: { keyField: code, fields: { code: { type: text }, name: { type: text }, day: { type: date }, size: { type: number }, good: { type: boolean } } }',
      }),
      records: [csvSource('things', 'code,name,day,size,good\nA,"A, with ""quotes""\nand lines",today-1d,1.5,true\nB,,,,\n')],
    });
    await service.apps.publish('little', undefined);
    return () => service.stop();
  });
  const get = async (format: string) =>
    (
      await fetch(`${service.base}/~/api/v1/apps/little/records/things?format=${format}`, {
        headers: { authorization: `Bearer ${service.token}` },
      })
    ).text();

  it('come out as they went in, as CSV and as JSON, and dates may be relative to the import', async () => {
    const csv = await get('csv');
    expect(csv).toBe('code,name,day,size,good\nA,"A, with ""quotes""\nand lines",2026-11-18,1.5,true\nB,,,,\n');
    const json = await get('json');
    expect(JSON.parse(json)).toEqual([
      { code: 'A', name: 'A, with "quotes"\nand lines', day: '2026-11-18', size: 1.5, good: true },
      { code: 'B' },
    ]);
    for (const [format, text] of [
      ['csv', csv],
      ['json', json],
    ] as const) {
      const source = {
        collection: 'things',
        format,
        content: (async function* () {
          yield text;
        })(),
      };
      expect(await service.apps.importRecords('little', source, 'replace', false)).toMatchObject({ rows: 2, exports: [] });
      expect(await get('csv')).toBe(csv);
    }
  });

  it('are added, or changed by their key', async () => {
    const answer = await fetch(`${service.base}/~/api/v1/apps/little/records/things?mode=update`, {
      method: 'POST',
      headers: { authorization: `Bearer ${service.token}`, 'content-type': 'text/csv' },
      body: 'code,name,size\nB,Bee,2\nC,Sea,3\n',
    });
    expect(await answer.json()).toEqual({ collection: 'things', rows: 2, exports: [] });
    expect(JSON.parse(await get('json'))).toEqual(
      expect.arrayContaining([
        { code: 'B', name: 'Bee', size: 2 },
        { code: 'C', name: 'Sea', size: 3 },
        expect.objectContaining({ code: 'A' }),
      ]),
    );
    expect((await fetch(`${service.base}/~/api/v1/apps/little/records/things`)).status).toBe(401);
    expect((await service.owner('GET', '/apps/little/records/nothing')).status).toBe(404);
  });
});

describe('publishing', () => {
  let service: TestService;
  beforeAll(async () => {
    service = await startTestService();
  });
  afterAll(() => service.stop());
  const withFields = (fields: string, key = 'code') =>
    littleApp({
      collections: `  things: { keyField: ${key}, fields: { ${fields} } }\n  parts: { keyField: id, fields: { id: { type: text }, thing: { type: record, of: things } } }`,
      more: 'choices: { kinds: { fern: { label: Fern, formerValues: [farn] }, moss: Moss } }',
    });
  const first = 'code: { type: text }, size: { type: text }, slug: { type: text }, kind: { type: text }';
  const publish = async (source: string) => {
    await service.apps.push('little', { source });
    return service.apps.publish('little', undefined);
  };

  it('lists the records that a changed type, key or “required” does not fit, and changes nothing', async () => {
    await service.apps.push('little', {
      source: withFields(first),
      records: [
        csvSource('things', 'code,size,slug,kind\nA,1,a,farn\nB,two,b,moss\nC,3,,fern\n'),
        csvSource('parts', 'id,thing\np,A\nq,C\n'),
      ],
    });
    await service.apps.publish('little', undefined);
    for (const [fields, key, sentence] of [
      [
        first.replace('size: { type: text }', 'size: { type: integer }'),
        'code',
        'In 1 record of “things” the field “size” is no integer that the field takes: B.',
      ],
      [
        first.replace('slug: { type: text }', 'slug: { type: text, required: true }'),
        'code',
        'In 1 record of “things” the field “slug” is missing: C.',
      ],
      [first, 'slug', 'In 1 record of “things” the field “slug” is missing: C.'],
      [`${first}, more: { type: text, required: true }`, 'code', 'In 3 records of “things” the field “more” is missing: A, B, C.'],
    ] as const) {
      const told = await refusal(publish(withFields(fields, key)));
      expect(told.problems?.map(({ message }) => message)).toEqual([sentence]);
    }
    expect((await service.store.apps.edition('little'))?.number).toBe(1);
  });

  it('makes the records fit what can be made to fit: types, keys with their references, former choices', async () => {
    await service.apps.push('little', {
      source: withFields(first),
      records: [csvSource('things', 'code,size,slug,kind\nA,1,a,farn\nB,2,b,moss\nC,3,c,fern\n')],
      replace: true,
    });
    await publish(
      withFields('code: { type: text }, size: { type: integer }, slug: { type: text }, kind: { type: choice, of: kinds }', 'slug'),
    );
    const { collections = {} } = await service.apps.collectionsOf('little');
    const sort = [{ field: 'size', descending: true }];
    const read = await service.store.records.read('little', collections, {
      from: 'things',
      where: [],
      sort,
      page: 1,
      size: 10,
      nothing: false,
    });
    expect(read.rows.map(({ slug, size, kind }) => [slug, size, kind])).toEqual([
      ['c', 3, 'fern'],
      ['b', 2, 'moss'],
      ['a', 1, 'fern'],
    ]);
    expect((await service.store.records.byKey('little', collections, 'parts', 'q'))?.['thing']).toMatchObject({ slug: 'c', code: 'C' });
  });
});

it('a number that its field refuses is not given', async () => {
  const service = await startTestService();
  const fields = "code: { type: text, serial: T-0, pattern: 'T-[0-9]' }";
  await service.apps.push('little', {
    source: littleApp({ collections: `  things: { keyField: code, fields: { ${fields} } }` }),
    records: [csvSource('things', 'code\nT-8\n')],
  });
  const { collections = {} } = await service.apps.collectionsOf('little');
  const create = () =>
    service.store.transaction(({ records }) => records.save('little', collections, { action: 'create', collection: 'things', values: {} }));
  expect(await create()).toEqual({ key: 'T-9' });
  expect(await create()).toEqual({ problems: { code: expect.stringContaining('The next number is “T-10”') as string } });
  await service.stop();
});

it('an app that cannot be served stops no other, and is told in readiness and in the list of apps', async () => {
  const first = await startTestService();
  const { data } = first;
  for (const app of ['good', 'stuck']) {
    await first.apps.push(app, { source: littleApp({ app, mount: `/${app}` }) });
    await first.apps.publish(app, undefined);
  }
  // As a version of the future would leave it.
  await first.store.transaction((stores) => stores.apps.publish('stuck', 'pallmist: 2\napp: stuck\n'));
  await first.store.apps.publish('good', littleApp({ app: 'good', mount: '/good' }));
  const again = await startTestService({ data: `${data}` }, first.clock).catch((error: unknown) => error);
  expect(String(again)).toContain('Another Pallmist service');
  for (const edition of await first.store.apps.editions()) await first.live.serve(edition);
  expect((await fetch(`${first.base}/good`)).status).toBe(200);
  expect((await fetch(`${first.base}/stuck`)).status).toBe(404);
  const readiness = (await (await fetch(`${first.base}/~/ready`)).json()) as {
    status: string;
    apps: { served: number; stuck: { app: string; edition: number }[] };
  };
  expect(readiness).toMatchObject({ status: 'ready', apps: { served: 1, stuck: [{ app: 'stuck', edition: 2 }] } });
  const { apps } = (await (await first.owner('GET', '/apps')).json()) as { apps: { app: string; stuck?: string }[] };
  expect(apps.find(({ app }) => app === 'stuck')?.stuck).toBeTruthy();
  await first.stop();
  expect(existsSync(data)).toBe(false);
});

it('a transaction inside of another one is refused, also after the store was idle, and the next write goes on', async () => {
  const service = await startTestService();
  const { store } = service;
  for (let time = 0; time < 2; time++) {
    const nested = store.transaction(() => store.transaction(() => Promise.resolve('never')));
    await expect(nested).rejects.toThrow('A write waits for the write that it is a part of.');
    expect(await store.transaction(() => Promise.resolve('done'))).toBe('done');
    await setTimeout(20);
  }
  await service.stop();
});
