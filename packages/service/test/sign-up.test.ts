import { afterAll, beforeAll, expect, it } from 'vitest';
import { startGarden, type TestService } from '../../../test/support/garden-service.ts';
import { Visitor } from '../../../test/support/visitor.ts';

let service: TestService;
beforeAll(async () => {
  service = await startGarden();
});
afterAll(() => service.stop());

const joining = { '~form': '~join', called: 'Wyn Marlow', login: 'wyn', password: 'bog-and-heather' };

it('a visitor makes an account, is signed in, welcomed once, and cannot open the keepers’ pages', async () => {
  const visitor = new Visitor(service.base);
  const answer = await visitor.send('/garden/join', joining);
  expect([answer.status, answer.headers.get('location')]).toEqual([303, '/garden?welcome=true']);
  const arrived = await visitor.get('/garden?welcome=true');
  expect(arrived.headers.get('location')).toBe('/garden');
  expect(await visitor.text('/garden')).toContain('Good to have you, Wyn Marlow');
  expect(await visitor.text('/garden')).not.toContain('Good to have you');
  expect((await visitor.get('/garden/care-rounds')).status).toBe(403);
  const again = new Visitor(service.base);
  const back = await again.send('/garden/sign-in', { '~name': 'wyn', '~password': joining.password });
  expect(back.headers.get('location')).toBe('/garden');
});

it('what is wrong is said beside the fields, the rest stays, and the password is shown to nobody', async () => {
  const visitor = new Visitor(service.base);
  for (const [fields, sentence] of [
    [{ login: 'ANSA' }, 'An account with this name already exists.'],
    [{ login: 'no spaces' }, 'A login name has up to 100 letters'],
    [{ password: 'short' }, 'It needs at least 8 characters.'],
    [{ called: ' ' }, 'Enter 1 to 80'],
  ] as const) {
    const answer = await visitor.send('/garden/join', { ...joining, called: 'Kept name', login: 'other', ...fields });
    const text = await answer.text();
    expect(answer.status).toBe(422);
    expect(text).toContain(sentence);
    if (!('called' in fields)) expect(text).toContain('value="Kept name"');
    expect(text).not.toContain(joining.password);
  }
});

it('nobody takes an account, a role or a way that the form does not give', async () => {
  const visitor = new Visitor(service.base);
  expect((await visitor.send('/garden/specimens', joining)).status).toBe(409);
  expect((await visitor.send('/garden/join', joining, { 'sec-fetch-site': 'cross-site' })).status).toBe(403);
  const answer = await visitor.send('/garden/join', { ...joining, login: 'sly', roles: 'keeper', '~wanted': '//evil.example' });
  expect(answer.headers.get('location')).toBe('/garden?welcome=true');
  expect((await visitor.get('/garden/care-rounds')).status).toBe(403);
});
