import { afterAll, beforeEach, expect, it } from 'vitest';
import { gardenFile, keeper, startGarden, type TestService } from '../../../test/support/garden-service.ts';
import { Visitor } from '../../../test/support/visitor.ts';

// One service for each test: asking is limited, and each test has its own count.
let service: TestService;
let visitor: Visitor;
const started: TestService[] = [];
beforeEach(async () => {
  service = await startGarden();
  started.push(service);
  visitor = new Visitor(service.base);
});
afterAll(() => Promise.all(started.map((each) => each.stop())));

const ask = (mail: string, back = '') => visitor.send('/garden/sign-in', { '~mail': mail, '~wanted': back });
/** The mails of the app, whole: lists leave one-time links out. */
const mails = async () =>
  Promise.all(
    (await service.store.mails.list('quillmoor', undefined, 20)).map(
      async (listed) => (await service.store.mails.find(listed.number)) ?? listed,
    ),
  );

/** The link of the newest mail, once it is there: mails are written after the answer. */
async function link(number = 1): Promise<string> {
  await expect.poll(async () => (await mails()).length).toBe(number);
  return /http\S+/.exec((await mails())[0]?.text ?? '')?.[0] ?? '';
}
const tokenIn = (text: string) => /name="~enter" value="([^"]*)"/.exec(text)?.[1] ?? '';
const press = (who: Visitor, token: string) => who.send('/garden/sign-in', { '~enter': token });

it('a link in a mail shows a button, and the button lets one in, once, exactly to where one wanted to go', async () => {
  const answer = await ask(' ANSA@quillmoor.example ', '/garden/care-rounds?task=feed');
  expect(answer.headers.get('location')).toBe('/garden/sign-in?~wanted=%2Fgarden%2Fcare-rounds%3Ftask%3Dfeed&~why=mail-sent');
  const href = await link();
  expect(href.startsWith(`${service.base}/garden/sign-in?~enter=`)).toBe(true);
  const [mail] = await mails();
  expect([mail?.recipient, mail?.subject]).toEqual(['ansa@quillmoor.example', 'Your way into Quillmoor Glasshouses']);
  expect(mail?.html).toContain('>Come in</a>');
  // Programs that look into mails open links too: nothing is used up by that.
  const scanner = new Visitor(service.base);
  await scanner.text(href);
  await scanner.text(href);
  const telephone = new Visitor(service.base);
  const page = await telephone.text(href);
  expect(page).toContain('Come in as Ansa Wetherel');
  expect(page).not.toContain('type="password"');
  const entered = await press(telephone, tokenIn(page));
  expect(entered.headers.get('location')).toBe('/garden/care-rounds?task=feed');
  expect((await telephone.get('/garden/ledger')).status).toBe(200);
  const again = await press(visitor, tokenIn(page));
  expect(again.headers.get('location')).toBe('/garden/sign-in?~why=link-expired');
  expect(await visitor.text(href)).toContain('That link has been used, or is too old.');
  // Who is in already goes straight on.
  expect((await telephone.get(href)).headers.get('location')).toBe('/garden/care-rounds');
});

it('nobody learns whether an address is known, and no mail goes to one that is not', async () => {
  const [known, unknown] = [await ask('bruno@quillmoor.example'), await ask('stranger@quillmoor.example')];
  expect(unknown.headers.get('location')).toBe(known.headers.get('location'));
  await link();
  // The Kelvin sign is a “k” in small letters: the mail goes to the address that is kept, never to the one that is typed.
  await service.store.people.put('quillmoor', 'kim', { name: 'Kim', password: 'reed-and-rush', roles: [], mail: 'kim@quillmoor.example' });
  await ask('\u212aim@quillmoor.example');
  await link(2);
  for (const wrong of ['', ' ', 'x'.repeat(5000), "' OR 1=1 --", 'bruno@quillmoor.example\r\nBcc: all@quillmoor.example'])
    expect((await ask(wrong)).status).toBe(303);
  expect((await mails()).map(({ recipient }) => recipient)).toEqual(['kim@quillmoor.example', 'bruno@quillmoor.example']);
});

it('three mails lie open at most, a used one closes the others, and asking too often is said', async () => {
  for (let time = 0; time < 5; time++) await ask('ansa@quillmoor.example');
  const first = await link(3);
  const others = (await mails()).slice(1).map(({ text }) => /http\S+/.exec(text)?.[0] ?? '');
  await press(visitor, tokenIn(await visitor.text(first)));
  const stranger = new Visitor(service.base);
  for (const href of others) expect(await stranger.text(href)).toContain('That link has been used');
  for (let time = 0; time < 5; time++) await ask('ansa@quillmoor.example');
  expect((await ask('ansa@quillmoor.example')).headers.get('location')).toBe('/garden/sign-in?~why=too-many-tries');
});

it('a link is good in its own place only: not for the draft, not for another app, not when guessed', async () => {
  await ask('ansa@quillmoor.example');
  const token = tokenIn(await visitor.text(await link()));
  expect(await service.store.entryLinks.login('draft:quillmoor', token)).toBeUndefined();
  expect(await service.store.entryLinks.take('live:other', token)).toBeUndefined();
  for (const guess of ['', 'x', token.slice(1), `${token}A`, token.toLowerCase()])
    expect((await press(new Visitor(service.base), guess)).headers.get('location')).toBe('/garden/sign-in?~why=link-expired');
  expect((await press(visitor, token)).headers.get('location')).toBe('/garden/care-rounds');
});

it('a link that is too old lets nobody in', async () => {
  const token = (await service.store.entryLinks.make('live:quillmoor', keeper.login, undefined, -1)) ?? '';
  expect((await press(visitor, token)).headers.get('location')).toBe('/garden/sign-in?~why=link-expired');
});

it('an app that does not offer it takes no such form', async () => {
  await service.apps.push('quillmoor', { source: gardenFile.replace(/ {2}byMail:[^]*?(?= {2}newcomers:)/, '') });
  await service.apps.publish('quillmoor', undefined);
  await ask('ansa@quillmoor.example');
  expect(await visitor.text('/garden/sign-in')).not.toContain('Mail me a link');
  expect(await mails()).toEqual([]);
});
