import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest';
import { keeper, otherKeeper, startGarden, type TestService } from '../../../test/support/garden-service.ts';
import { Visitor } from '../../../test/support/visitor.ts';

let service: TestService;
let visitor: Visitor;
beforeAll(async () => {
  service = await startGarden({ session: { age: 3000, idle: 1200 } });
});
afterAll(() => service.stop());
beforeEach(() => {
  visitor = new Visitor(service.base);
});
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const goesTo = async (path: string) => {
  const answer = await visitor.get(path);
  return answer.headers.get('location') ?? answer.status;
};

it('a page for some is shown to them, and to others says so and offers another account, without a loop', async () => {
  expect(await goesTo('/garden/ledger?page=2')).toBe(
    '/garden/sign-in?~back=%2Fgarden%2Fledger?page=2&~why=needed'.replace('?page', '%3Fpage').replace('=2', '%3D2'),
  );
  await visitor.signIn(otherKeeper);
  const refused = await visitor.get('/garden/ledger?page=2');
  expect(refused.status).toBe(403);
  const other = /href="([^"]*~why=other[^"]*)"/.exec(await refused.text())?.[1]?.replaceAll('&amp;', '&') ?? '';
  const form = await visitor.text(other);
  expect(form).toContain('You may sign in with another account.');
  const answer = await visitor.send('/garden/sign-in', {
    '~name': keeper.login,
    '~password': keeper.password,
    '~back': /name="~back" value="([^"]*)"/.exec(form)?.[1] ?? '',
  });
  expect(answer.headers.get('location')).toBe('/garden/ledger?page=2');
  expect((await visitor.get('/garden/ledger')).status).toBe(200);
});

it('who is signed in already goes straight on, and never to another site', async () => {
  await visitor.signIn(keeper);
  expect(await goesTo('/garden/sign-in?~back=%2Fgarden%2Fcare-rounds%3Ftask%3Dfeed&~why=needed')).toBe('/garden/care-rounds?task=feed');
  expect(await goesTo('/garden/sign-in?~back=%2F%2Fevil.example&~why=needed')).toBe('/garden/care-rounds');
  expect(await goesTo('/garden/sign-in?~back=%2Fgarden%2Fsign-in&~why=needed')).toBe('/garden/care-rounds');
  // To look at one's account is no way in.
  expect(await goesTo('/garden/sign-in')).toBe(200);
});

it('a session ends by idleness, is kept alive by use, and ends by age in any case', async () => {
  await visitor.signIn(keeper);
  expect(await goesTo('/garden/workspace')).toBe(200);
  await pause(1400);
  expect(await goesTo('/garden/workspace')).toMatch(/sign-in/);
});

it('signing out everywhere ends the sessions of every browser', async () => {
  const elsewhere = new Visitor(service.base);
  await Promise.all([visitor.signIn(keeper), elsewhere.signIn(keeper)]);
  expect((await elsewhere.get('/garden/workspace')).status).toBe(200);
  await visitor.send('/garden/~sign-out', { '~everywhere': 'yes' });
  expect((await elsewhere.get('/garden/workspace')).status).toBe(303);
});

it('forwarding headers are believed from nobody while no proxy is trusted', async () => {
  const forged = { 'x-forwarded-host': 'evil.example', 'x-forwarded-proto': 'https', 'x-forwarded-for': '10.0.0.1', host: 'evil.example' };
  const answer = await visitor.get('/garden/care-rounds', forged);
  expect(answer.headers.get('location')).toMatch(/^\/garden\/sign-in/);
  expect(await visitor.text('/garden')).not.toContain('evil.example');
});

it('a service with too many at once says so, and when to come again', async () => {
  const small = await startGarden({ mostAtOnce: 1 });
  try {
    const slow = fetch(`${small.base}/garden/sign-in`, {
      method: 'POST',
      body: new URLSearchParams({ '~name': 'x', '~password': 'guess' }),
      redirect: 'manual',
    });
    await pause(15);
    const busy = await fetch(`${small.base}/garden`);
    expect([busy.status, busy.headers.get('retry-after')]).toEqual([503, '2']);
    expect(await busy.text()).toContain('Please try again in a moment.');
    expect((await slow).status).toBe(303);
    expect((await fetch(`${small.base}/garden`)).status).toBe(200);
  } finally {
    await small.stop();
  }
});
