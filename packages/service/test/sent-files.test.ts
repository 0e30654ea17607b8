import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest';
import { gardenFile, keeper, startGarden, type TestService } from '../../../test/support/garden-service.ts';
import { Visitor } from '../../../test/support/visitor.ts';

let service: TestService;
let visitor: Visitor;
/** The garden’s keepers note photographs beside what they did, on a page that only they see. */
const withRounds = gardenFile
  .replace(
    'remark: { type: text, maxLength: 300 }',
    'remark: { type: text, maxLength: 300 }\n      proof: { type: file, maxKilobytes: 20 }',
  )
  .replace('- { field: remark, lines: 3 }', '- { field: remark, lines: 3 }\n              - proof');
beforeAll(async () => {
  service = await startGarden();
  await service.apps.push('quillmoor', { source: withRounds });
  await service.apps.publish('quillmoor', undefined);
});
afterAll(() => service.stop());
beforeEach(() => {
  visitor = new Visitor(service.base);
});

const page = '/garden/specimens/QM-0412?write=true';
const note = { '~form': 'write-note', heading: 'Bud', body: '', day: '2026-11-20', photo: '' };
const png = new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 1, 2, 3]);
const picture = (name = 'Knospe früh.png', bytes: Uint8Array<ArrayBuffer> = png) => new File([bytes], name, { type: 'text/html' });
const kept = (html: string, name = 'photo') => new RegExp(`type="hidden" name="${name}" value="([^"]*)"`).exec(html)?.[1] ?? '';
const savedNote = (answer: Response) => /saved=(N-\d+)/.exec(answer.headers.get('location') ?? '')?.[1] ?? '';
const photoOf = async (number: string) =>
  (
    await service.store.records.byKey(
      'quillmoor',
      { notes: { keyField: 'number', fields: { number: { type: 'text' }, photo: { type: 'file' } } } },
      'notes',
      number,
    )
  )?.['photo'];

it('a file that is sent with a form is kept, shown by its record, and only under a name that nobody guesses', async () => {
  const number = savedNote(await visitor.sendFiles(page, note, { '~file.photo': picture() }));
  const value = String(await photoOf(number));
  expect(value).toMatch(/^[\w-]{22}\/Knospe früh\.png$/);
  const html = await visitor.text(`/garden/specimens/QM-0412?note=${number}`);
  const source = /<img[^>]*src="([^"]*)"/.exec(html)?.[1] ?? '';
  expect(source).toBe(`/garden/~files/${encodeURI(value)}`);
  const file = await visitor.get(source);
  expect([...new Uint8Array(await file.arrayBuffer())]).toEqual([...png]);
  // What it says of itself is not believed.
  expect([file.headers.get('content-type'), file.headers.get('x-content-type-options')]).toEqual(['image/png', 'nosniff']);
  expect(file.headers.get('content-security-policy')).toContain('sandbox');
  const { 0: code = '' } = value.split('/');
  for (const wrong of [
    `${code}/other.png`,
    `${code.slice(1)}A/Knospe früh.png`,
    '../keys.json',
    '%2e%2e%2fkeys.json',
    `${code}/`,
    '%',
    code,
  ])
    expect((await visitor.get(`/garden/~files/${wrong}`)).status).toBe(404);
});

it('what is wrong with a file is said, nothing else is lost, and a file that is right has not to be chosen again', async () => {
  for (const [file, sentence] of [
    [picture('movie.mp4'), 'It cannot be a file of this kind. PNG, JPEG, WebP.'],
    [picture('page.html'), 'It cannot be a file of this kind.'],
    [picture('png'), 'It cannot be a file of this kind.'],
    [picture('large.png', new Uint8Array(4_000_001)), 'The file is too large: at most 4 MB.'],
    [picture('nothing.png', new Uint8Array(0)), 'The file is empty.'],
  ] as const) {
    const answer = await visitor.sendFiles(page, note, { '~file.photo': file });
    const html = await answer.text();
    expect(answer.status).toBe(422);
    expect(html).toContain(sentence);
    expect(html).toContain('value="Bud"');
  }
  const answer = await visitor.sendFiles(page, { ...note, heading: '' }, { '~file.photo': picture('../../<b>.png') });
  const html = await answer.text();
  expect(html).toContain('This cannot be empty.');
  expect(html).not.toContain('<b>.png');
  const value = kept(html).replace('&lt;', '<').replace('&gt;', '>');
  expect(value).toMatch(/\/<b>\.png$/);
  expect(await photoOf(savedNote(await visitor.sendFiles(page, { ...note, photo: value }, {})))).toBe(value);
});

it('a form cannot claim another visitor’s file, and “none” removes a file', async () => {
  const number = savedNote(await visitor.sendFiles(page, note, { '~file.photo': picture() }));
  const value = String(await photoOf(number));
  for (const stolen of [value, 'palm.svg', 'x/../keys.json', `${'A'.repeat(22)}/x.png`]) {
    const answer = await visitor.sendFiles(page, { ...note, photo: stolen }, {});
    expect([answer.status, (await answer.text()).includes('It is no file') || answer.status === 422]).toEqual([422, true]);
  }
  expect(await photoOf(savedNote(await visitor.sendFiles(page, { ...note, photo: '', '~none.photo': 'yes' }, {})))).toBeUndefined();
});

it('a file goes with its record', async () => {
  const number = savedNote(await visitor.sendFiles(page, note, { '~file.photo': picture() }));
  const value = String(await photoOf(number));
  await visitor.signIn(keeper);
  await visitor.send(`/garden/specimens/QM-0412?tab=notes&note=${number}`, { '~form': 'remove-note' });
  expect(await photoOf(number)).toBeUndefined();
  expect((await visitor.get(`/garden/~files/${encodeURI(value)}`)).status).toBe(404);
});

it('when the session has ended, the form is there again after sign-in, its file too', async () => {
  const rounds = '/garden/care-rounds?add=true';
  const entry = { '~form': 'add-entry', specimen: 'QM-0412', day: '2026-11-20', task: 'water', remark: 'dry' };
  const answer = await visitor.sendFiles(rounds, entry, { '~file.proof': picture('proof.txt') });
  expect(answer.headers.get('location')).toMatch(/^\/garden\/sign-in/);
  await visitor.signIn(keeper);
  const html = await visitor.text(rounds);
  expect(html).toContain('Your session had ended');
  const value = kept(html, 'proof');
  expect(value).toMatch(/\/proof\.txt$/);
  expect((await visitor.sendFiles(rounds, { ...entry, proof: value }, {})).status).toBe(303);
  const file = await visitor.get(`/garden/~files/${value}`);
  expect([file.status, file.headers.get('content-disposition')]).toEqual([200, 'attachment; filename=proof.txt']);
});

it('a form that is cut off, far too large or no form at all is refused and breaks nothing', async () => {
  const type = { 'content-type': 'multipart/form-data; boundary=x' };
  const send = (body: string, headers: Record<string, string> = type) => fetch(service.base + page, { method: 'POST', body, headers });
  const bodies = ['', '--x', '--x\r\ncontent-disposition: form-data; name="~form"\r\n\r\nwrite-note', 'nonsense', '--x--\r\n'];
  for (const body of bodies) expect((await send(body)).status).toBeLessThan(500);
  expect((await send('x', { 'content-type': 'multipart/form-data' })).status).toBe(400);
  expect((await send('x'.repeat(51_000_000)).catch(() => ({ status: 413 }))).status).toBe(413);
  expect((await visitor.get('/garden')).status).toBe(200);
});

it('who sends files without end is stopped for a while', async () => {
  const answers: number[] = [];
  for (let time = 0; time < 70; time++)
    answers.push((await visitor.sendFiles(page, { ...note, heading: '' }, { '~file.photo': picture() })).status);
  expect(new Set(answers)).toEqual(new Set([422, 429]));
  expect((await visitor.send(page, note)).status).toBe(303);
});
