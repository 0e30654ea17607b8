import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { EditionComparison, LinkFinding, Links, Rehearsal } from '@pallmist/api';
import Database from 'libsql';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { gardenFile, startGarden, startTestService, type TestService } from '../../../test/support/garden-service.ts';
import { littleApp, publishApp } from '../../../test/support/little-app.ts';
import { Visitor } from '../../../test/support/visitor.ts';

const data = mkdtempSync(join(tmpdir(), 'pallmist-test-'));
let service: TestService;
beforeAll(async () => {
  service = await startGarden({ data });
});
afterAll(async () => {
  await service.stop();
  rmSync(data, { recursive: true, force: true });
});

const app = '/apps/quillmoor';
const rehearsal = async () => (await (await service.owner('GET', `${app}/rehearsal`)).json()) as Rehearsal;
const change = async (patch: unknown[]) => {
  const { revision } = (await (await service.owner('GET', `${app}/draft`)).json()) as { revision: number };
  const answer = await service.owner('PATCH', `${app}/draft`, { revision, patch });
  expect(answer.status, await answer.clone().text()).toBe(200);
};
const publish = (consents?: { finding: string; why?: string }[]) => service.owner('POST', `${app}/publish`, { consents });
const visitor = () => new Visitor(service.base);
const brief = ({ fate, kind, page, parameter }: LinkFinding) => [fate, kind, page, parameter];

describe('publishing', () => {
  it('is refused while an address would mean something else, and says which and what to do', async () => {
    await change([{ op: 'replace', path: '/pages/specimen/parameters/tab/default', value: 'notes' }]);
    const refused = await publish();
    expect(refused.status).toBe(422);
    const { problems } = (await refused.json()) as { problems: { code: string; message: string; hint: string }[] };
    expect(problems).toEqual([
      expect.objectContaining({
        code: 'link-silent',
        message: 'An address of the page “specimen” without “tab” meant “overview” and now means “notes”.',
        hint: expect.stringMatching(/\/garden\/specimens\/QM-\d{4}\. “pallmist rehearse” offers repairs/) as string,
      }),
    ]);
    expect(await visitor().text('/garden/specimens/QM-0412')).toMatch(/aria-current="[a-z]+"[^>]*>\s*Overview/);
  });

  it('goes on after a repair: old addresses mean what they meant, new links open what is wanted now', async () => {
    const [finding] = (await rehearsal()).findings;
    const repair = finding?.repairs.find(({ kind }) => kind === 'repair');
    await change(repair?.patch ?? []);
    expect((await rehearsal()).findings).toEqual([]);
    expect((await publish()).status).toBe(200);
    expect(await visitor().text('/garden/specimens/QM-0412')).toMatch(/aria-current="[a-z]+"[^>]*>\s*Overview/);
    expect(await visitor().text('/garden/specimens')).toMatch(/href="\/garden\/specimens\/QM-\d{4}\?tab=notes"/);
  });

  it('goes on with a consent, which is kept with the edition and is not asked for again', async () => {
    await change([{ op: 'replace', path: '/pages/specimens/parameters/sort/default', value: '-planted' }]);
    const { findings } = await rehearsal();
    expect(findings.map(brief)).toEqual([['silent', 'other-default', 'specimens', 'sort']]);
    const [finding] = findings;
    expect((await publish([{ finding: finding?.id ?? '', why: 'Newest first is what people expect' }])).status).toBe(200);
    expect(await rehearsal()).toMatchObject({
      findings: [],
      consents: [{ words: finding?.words, by: 'The owner', why: 'Newest first is what people expect' }],
    });
    expect((await publish()).status).toBe(200);
  });

  it('knows what each earlier edition promised, also after a new start', async () => {
    await change([{ op: 'replace', path: '/pages/house/parameters/sort/default', value: '-name' }]);
    const before = (await rehearsal()).findings.map(brief);
    await service.stop();
    service = await startTestService({ data });
    expect((await rehearsal()).findings.map(brief)).toEqual(before);
  });
});

describe('an address of the past', () => {
  let moved: TestService;
  beforeAll(async () => {
    moved = await startGarden();
    const source = gardenFile
      .replace(
        'mount: /garden',
        'mount: /glasshouses\nformerMounts: [/garden]\ngone: [{ address: /climates/Z, reason: "The polar house was taken down.", to: { page: zones } }]',
      )
      .replace(
        "formerAddresses: ['/plants/{specimen}'",
        "formerAddresses: [{ address: '/care-of/{specimen}', values: { tab: care } }, '/plants/{specimen}'",
      )
      // Climates were named by the letter on their door.
      .replace('by: letter, sample: C', 'sample: mist-forest')
      .replaceAll(/(zone|row)\.letter\}/g, '$1.code}')
      .replace('    keyField: code\n    titleField: name\n    data: zones.csv', '$&\n    formerKeys: [letter]')
      .replace(
        'specimen: { type: record, of: specimens, sample: QM-0412,',
        '$& goneValues: { QM-0400: { reason: "It died in the frost of 2025.", instead: QM-0412 } },',
      )
      .replace(
        'help: Which part',
        'goneValues: { story: { reason: "Its story stands in “{word.specimens}”.", instead: notes } }\n        help: Which part',
      );
    const pushed = await moved.apps.push('quillmoor', { source });
    expect(pushed.problems.filter(({ severity }) => severity === 'error')).toEqual([]);
    await moved.apps.publish('quillmoor');
  });
  afterAll(() => moved.stop());
  const at = (path: string) => new Visitor(moved.base).get(path);

  it.each([
    ['/garden', '/glasshouses'],
    ['/garden/specimens?q=moss', '/glasshouses/specimens?q=moss'],
    ['/garden/care-of/QM-0412', '/glasshouses/specimens/QM-0412?tab=care'],
    ['/glasshouses/care-of/QM-0412?tab=notes', '/glasshouses/specimens/QM-0412?tab=notes'],
    ['/glasshouses/climates/B', '/glasshouses/climates/rain-forest'],
    ['/garden/~sitemap.xml', '/glasshouses/~sitemap.xml'],
  ])('%s leads to %s', async (from, to) => {
    const answer = await at(from);
    expect([answer.status, answer.headers.get('location')]).toEqual([301, to]);
  });

  it('that is gone answers with 410, says why, and where to go instead', async () => {
    const answer = await at('/glasshouses/climates/Z');
    expect(answer.status).toBe(410);
    const text = await answer.text();
    expect(text).toContain('The polar house was taken down.');
    expect(text).toMatch(/href="\/glasshouses\/climates"[^>]*>Climates</);
    expect((await at('/garden/climates/Z')).status).toBe(410);
    expect((await at('/glasshouses/climates/rain-forest')).status).toBe(200);
    expect((await at('/glasshouses/climates/Y')).status).toBe(404);
  });

  it('whose record is gone answers with 410, also where there is such a record again', async () => {
    const answer = await at('/glasshouses/specimens/QM-0400?tab=care');
    expect(answer.status).toBe(410);
    const text = await answer.text();
    expect(text).toContain('It died in the frost of 2025.');
    expect(text).toMatch(/href="\/glasshouses\/specimens\/QM-0412\?tab=care"[^>]*>QM-0412</);
  });

  it('with a value that is gone, and that its page can do without, opens the page, which says so', async () => {
    const answer = await at('/glasshouses/specimens/QM-0412?tab=story');
    expect(answer.status).toBe(200);
    expect(await answer.text()).toContain('“Tab” cannot be “story”: Its story stands in “Specimens”.');
  });
});

describe('an address that only an earlier edition knows', () => {
  let late: TestService;
  beforeAll(async () => {
    late = await startGarden();
    // As it was before editions were compared: published without a word about what is lost.
    const source = gardenFile
      .replace('address: /specimens/{specimen}{?', 'address: /plants-and-more/{specimen}{?')
      .replace("formerAddresses: ['/plants/{specimen}']", 'formerAddresses: []')
      .replace('address: /bed-plan{?plan,name}', 'address: /bed-plan/of/{name}{?plan}');
    await late.live.serve(await late.store.apps.publish('quillmoor', source));
  });
  afterAll(() => late.stop());
  const at = (path: string) => new Visitor(late.base).get(path);

  it.each([
    ['/garden/specimens/QM-0412', '/garden/plants-and-more/QM-0412'],
    ['/garden/plants/QM-0412', '/garden/plants-and-more/QM-0412'],
    ['/garden/specimens/QM-0412?tab=log', '/garden/plants-and-more/QM-0412?tab=care'],
    ['/garden/specimens/QM-0412?tab=notes&lang=de', '/garden/plants-and-more/QM-0412?tab=notes&lang=de'],
  ])('%s leads to %s', async (from, to) => {
    const answer = await at(from);
    expect([answer.status, answer.headers.get('location')]).toEqual([301, to]);
  });

  it('is removed where the page takes its values no more, and unknown where no edition knew it', async () => {
    const removed = await at('/garden/bed-plan');
    expect([removed.status, await removed.text()]).toEqual([410, expect.stringContaining('This page was removed')]);
    expect((await at('/garden/specimens/QM-0412/more')).status).toBe(404);
    expect((await at('/garden/nothing')).status).toBe(404);
  });
});

describe('a printed address', () => {
  let printing: TestService;
  const links = '/apps/quillmoor/links';
  beforeAll(async () => {
    printing = await startGarden();
  });
  afterAll(() => printing.stop());

  it('holds publishing until the finding is repaired: nobody can agree to it', async () => {
    const wrong = await printing.owner('POST', `${links}/printed`, { address: '/garden/specimens?page=none', note: 'Nowhere' });
    expect([wrong.status, await wrong.text()]).toEqual([422, expect.stringContaining('does not take this address as it stands')]);
    const noted = await printing.owner('POST', `${links}/printed`, {
      address: 'https://q.example/garden/specimens/QM-0412#x',
      note: 'Labels',
    });
    expect(await noted.json()).toMatchObject({ printed: [{ address: '/garden/specimens/QM-0412', note: 'Labels', by: 'The owner' }] });
    await printing.apps.push('quillmoor', { source: gardenFile.replace('default: overview', 'default: care') });
    const { findings } = await printing.rehearsals.rehearse('quillmoor');
    expect(findings.map(({ printed }) => printed)).toEqual([[{ address: '/garden/specimens/QM-0412', note: 'Labels' }]]);
    const consents = [{ finding: findings[0]?.id ?? '' }];
    const refused = await printing.owner('POST', '/apps/quillmoor/publish', { consents });
    expect([refused.status, await refused.text()]).toEqual([422, expect.stringContaining('is printed (Labels), so this needs a repair')]);

    const { printed } = (await (await printing.owner('GET', links)).json()) as { printed: { id: string }[] };
    const { id = '' } = printed[0] ?? {};
    expect((await printing.owner('DELETE', `${links}/printed/${id}`)).status).toBe(200);
    expect((await printing.owner('DELETE', `${links}/printed/${id}`)).status).toBe(404);
    expect((await printing.owner('POST', '/apps/quillmoor/publish', { consents })).status).toBe(200);
  });

  it('with a sealed value is compared by what is sealed in it', async () => {
    const pages =
      '  home: { title: Home, address: "/{?who}", parameters: { who: { type: text, sealed: true, maxLength: 30 } }, content: [] }';
    await publishApp(printing, 'sealing', littleApp({ pages, app: 'sealing', mount: '/sealing' }));
    const { address } = (await (
      await printing.owner('POST', '/apps/sealing/write', { page: 'home', values: { who: 'Ansa Wetherel' } })
    ).json()) as { address: string };
    expect((await printing.owner('POST', '/apps/sealing/links/printed', { address, note: 'A card' })).status).toBe(200);
    await printing.apps.push('sealing', { source: littleApp({ pages: pages.replace('30', '5'), app: 'sealing', mount: '/sealing' }) });
    const { findings } = await printing.rehearsals.rehearse('sealing');
    expect(findings.map(({ kind, printed }) => [kind, printed.length])).toEqual([['value-refused', 1]]);
  });

  it('is traced through the editions, without the text of what is sealed', async () => {
    const trace = async (address: string) => (await printing.owner('POST', `${links}/trace`, { address })).json();
    expect(await trace('/garden/plants/QM-0412')).toMatchObject({
      today: { status: 'found', page: 'specimen', leadsTo: '/garden/specimens/QM-0412' },
      earlier: [
        { editions: [2], values: expect.arrayContaining([{ name: 'tab', text: 'care', origin: 'default' }]) as unknown },
        { editions: [1], values: expect.arrayContaining([{ name: 'tab', text: 'overview', origin: 'default' }]) as unknown },
      ],
    });
    expect(await trace('/garden/nothing')).toMatchObject({ today: { status: 'unknown-page' }, earlier: [] });
    expect(await trace('//')).toMatchObject({ earlier: [] });
  });
});

describe('a short address', () => {
  it('is told with the findings that concern it, by its values and not by where they stand', async () => {
    const at = await startGarden();
    const make = async (address: string) => {
      const answer = await at.owner('POST', '/apps/quillmoor/short', { address });
      return ((await answer.json()) as { shortAddresses: { code: string }[] }).shortAddresses[0]?.code ?? '';
    };
    const [searched, plain] = [await make('/garden/specimens?q=moss-and-fern'), await make('/garden/specimens/QM-0412')];
    const source = gardenFile
      .replace('default: overview', 'default: care')
      .replace('address: /specimens/{specimen}{?', 'address: /plants-and-more/{specimen}{?')
      .replace('maxLength: 80\n        resets: [page]', 'maxLength: 5\n        resets: [page]');
    const pushed = await at.apps.push('quillmoor', { source });
    expect(pushed.problems.filter(({ severity }) => severity === 'error')).toEqual([]);
    const { findings } = await at.rehearsals.rehearse('quillmoor');
    const told = findings.map(({ page, parameter, kind, short }) => [
      kind,
      parameter ?? page,
      short.includes(searched),
      short.includes(plain),
    ]);
    console.log(told);
    // Its address may move, and its default: a short address names page and values.
    expect(told).toEqual(
      expect.arrayContaining([
        ['value-refused', 'q', true, false],
        ['no-page', 'specimen', false, false],
      ]),
    );
    expect(told.filter(([, , , concerned]) => concerned)).toEqual([]);
    await at.stop();
  });
});

describe('editions', () => {
  let at: TestService;
  beforeAll(async () => {
    at = await startGarden();
  });
  afterAll(() => at.stop());

  it('are compared with one another: what addresses mean, who may see, and how it looks', async () => {
    const source = gardenFile.replace('default: overview', 'default: care').replace('title: Glasshouses', 'title: All glasshouses');
    await publishApp(at, 'quillmoor', source);
    const compared = (await (await at.owner('GET', '/apps/quillmoor/editions/1/comparison/2')).json()) as EditionComparison;
    expect(compared.findings.map(({ fate, kind, parameter }) => [fate, kind, parameter])).toEqual([['silent', 'other-default', 'tab']]);
    expect(compared.others).toEqual([{ group: 'how-it-looks', words: 'The title of “All glasshouses” was “Glasshouses”.' }]);
    expect((await (await at.owner('GET', '/apps/quillmoor/editions/2/comparison/2')).json()) as EditionComparison).toEqual({
      findings: [],
      others: [],
    });
    expect((await at.owner('GET', '/apps/quillmoor/editions/1/comparison/9')).status).toBe(404);
  });

  it('are looked at beside the draft by builders only, in a frame, and take nothing', async () => {
    expect((await fetch(`${at.base}/~/published/quillmoor/houses`)).status).toBe(401);
    const builder = new Visitor(at.drafts, { authorization: `Bearer ${at.token}` });
    const shown = await builder.get('/~/published/quillmoor/houses');
    expect([shown.status, shown.headers.get('content-security-policy')]).toEqual([
      200,
      expect.stringContaining(`frame-ancestors ${at.base}`),
    ]);
    expect(await shown.text()).toContain('href="/~/published/quillmoor/specimens"');
    expect((await builder.send('/~/published/quillmoor/membership', {})).status).toBe(405);
  });
});

describe('the ledger', () => {
  const secret = 'a-very-private-search';
  const seen = async (at: TestService) =>
    (
      (await (await at.owner('GET', '/apps/quillmoor/links')).json()) as {
        seen: { page: string; parameter: string; state: string; bucket: string; referrer: string; count: number }[];
      }
    ).seen;

  it('counts each parameter by itself, and keeps no text of a visitor, not even in the file', async () => {
    const place = mkdtempSync(join(tmpdir(), 'pallmist-test-'));
    const counting = await startGarden({ data: place });
    const from = (path: string, headers: Record<string, string> = {}) => fetch(counting.base + path, { headers, redirect: 'manual' });
    for (let times = 0; times < 3; times++) await from('/garden/specimens/QM-0412?tab=log');
    await from('/garden/specimens/QM-0412', { referer: 'https://mail.example/inbox' });
    await from(`/garden/specimens?q=${secret}&sort=-height&planted=2020-01-01..&page=zero`);
    await from(`/garden/specimens/${secret}/nowhere`);
    await from('/garden/wp-login.php');
    await from('/garden/houses', { 'user-agent': 'Friendlybot/1.0' });
    const rows = await seen(counting);
    const count = (row: Partial<(typeof rows)[number]>) =>
      rows
        .filter((one) => Object.entries(row).every(([key, value]) => one[key as keyof typeof one] === value))
        .reduce((sum, one) => sum + one.count, 0);
    expect(count({ page: 'specimen', parameter: '', state: 'former' })).toBe(3);
    expect(count({ page: 'specimen', parameter: 'tab', state: 'corrected', bucket: 'care' })).toBe(3);
    expect(count({ page: 'specimen', parameter: 'tab', state: 'absent', referrer: 'mail' })).toBe(1);
    expect(count({ page: 'specimens', parameter: 'q', state: 'given', bucket: 'up to 50 characters' })).toBe(1);
    expect(count({ page: 'specimens', parameter: 'sort', bucket: '-height' })).toBe(1);
    expect(count({ page: 'specimens', parameter: 'page', state: 'problem:not-an-integer' })).toBe(1);
    expect(rows.filter(({ page }) => page === '')).toEqual([expect.objectContaining({ parameter: '/garden/specimens/*/*', count: 1 })]);
    expect(count({ page: 'houses' })).toBe(0);

    await counting.apps.push('quillmoor', { source: gardenFile.replace('default: overview', 'default: care') });
    expect((await counting.rehearsals.rehearse('quillmoor')).findings.map(({ visits }) => visits)).toEqual([1]);
    await counting.stop();
    const file = readFileSync(join(place, 'pallmist.sqlite'));
    expect(file.includes(secret)).toBe(false);
    rmSync(place, { recursive: true });
  });

  it('keeps the text of an address that no page has only when it is tried five times, on two days, and says what was meant', async () => {
    const at = await startGarden();
    const tried = async () => ((await (await at.owner('GET', '/apps/quillmoor/links')).json()) as Links).tried;
    const follow = (path: string, headers: Record<string, string> = {}) => fetch(at.base + path, { headers });
    for (let times = 0; times < 4; times++) await follow('/garden/specimen/QM-0412?q=mine');
    for (let times = 0; times < 9; times++) await follow('/garden/only-today');
    expect(await tried()).toEqual([]);
    at.clock.forward(86_400_000);
    await follow('/garden/specimen/QM-0412');
    await follow('/garden/.env');
    await follow('/garden/only-today', { 'user-agent': 'Friendlybot/1.0' });
    const meant = { page: 'specimen', address: '/garden/specimens/QM-0412', template: '/specimen/{specimen}' };
    expect(await tried()).toEqual([{ path: '/garden/specimen/QM-0412', tries: 5, days: 2, day: '2026-11-20', meant }]);
    await at.apps.push('quillmoor', {
      source: gardenFile.replace(
        "formerAddresses: ['/plants/{specimen}'",
        "formerAddresses: ['/specimen/{specimen}', '/plants/{specimen}'",
      ),
    });
    await at.apps.publish('quillmoor');
    expect(await tried()).toEqual([]);
    await at.stop();
  });

  it('keeps its counts when they cannot be written, and counts nothing twice', async () => {
    const place = mkdtempSync(join(tmpdir(), 'pallmist-test-'));
    const at = await startGarden({ data: place, log: 'silent' });
    const database = new Database(join(place, 'pallmist.sqlite'));
    const visit = () => new Visitor(at.base).get('/garden/houses');
    await visit();
    // Without its table nothing can be written.
    database.exec('ALTER TABLE ledger RENAME TO ledger_away');
    await at.owner('GET', '/apps/quillmoor/links');
    await visit();
    await at.owner('GET', '/apps/quillmoor/links');
    database.exec('ALTER TABLE ledger_away RENAME TO ledger');
    database.close();
    await seen(at);
    const rows = (await seen(at)).filter(({ page, parameter }) => page === 'houses' && parameter === '');
    expect(rows).toEqual([expect.objectContaining({ count: 2 })]);
    await at.stop();
    rmSync(place, { recursive: true });
  });

  it('turns days into months after 90 days, and can be turned off', async () => {
    const pages = '  home: { title: Home, address: /, content: [] }\n  other: { title: Other, address: /other, content: [] }';
    const counting = await startTestService();
    await publishApp(counting, 'little', littleApp({ pages }));
    const counted = async (at: TestService, since: string) => {
      // Asking for what was seen writes what has gathered.
      await at.owner('GET', '/apps/little/links');
      return (await at.store.ledger.list('little', since)).map(({ page, day }) => `${page} ${day}`);
    };
    await new Visitor(counting.base).get('/little');
    expect(await counted(counting, '2026-11')).toEqual(['home 2026-11-19']);
    counting.clock.forward(91 * 86_400_000);
    await new Visitor(counting.base).get('/little/other');
    expect(await counted(counting, '2026-11')).toEqual(['other 2027-02-18', 'home 2026-11']);
    await counting.stop();
    const silent = await startTestService({ ledger: false });
    await publishApp(silent, 'little', littleApp({ pages }));
    await new Visitor(silent.base).get('/little');
    expect(await counted(silent, '2026-11')).toEqual([]);
    await silent.stop();
  });
});
