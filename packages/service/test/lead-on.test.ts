import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startTestService, type TestService } from '../../../test/support/garden-service.ts';
import { littleApp, publishApp } from '../../../test/support/little-app.ts';
import { checkAppFile } from '@pallmist/app';

const pages = `  home: { title: Home, address: /, content: [{ show: heading, text: Home }, { show: link, text: S, to: { page: scores } }] }
  scores:
    title: Scores
    address: /scores{?score,lend,kinds,chosen}
    parameters:
      score: { type: record, of: scores, label: Score }
      lend: { type: boolean, default: false, label: Lend }
      kinds: { type: list, items: { type: choice, of: kind }, label: Kinds }
      chosen: { type: list, items: { type: record, of: scores }, label: Chosen }
    content:
      - { show: heading, level: 1, text: 'Scores {record.?score.title.orValue("")} {param.lend}' }
      - { show: text, text: 'Kinds: {label.kinds}. Chosen: {label.chosen}.' }
  lend:
    title: Lend
    address: /lend/{score}
    parameters: { score: { type: record, of: scores } }
    content: [{ show: lead-on, to: { page: scores, values: { score: '{param.score}', lend: true } } }]
  members:
    title: Members
    address: /members
    admit: choir
    content: [{ show: heading, text: Members }]
  sign-in: { title: Sign in, address: /sign-in, content: [{ show: heading, text: Sign in }, { show: sign-in }] }
`;
const source = littleApp({
  more: `choices: { kind: { mass: Mass, song: Song for one } }
gates: { choir: { roles: [singer], reason: 'Only the choir of {app.title} may see its members.' } }
signIn: { page: sign-in }`,
  collections: '  scores: { keyField: number, titleField: title, fields: { number: { type: text }, title: { type: text } } }',
  pages,
});

let service: TestService;
beforeAll(async () => {
  service = await startTestService();
  await publishApp(service, 'little', source);
  for (const [number, title] of [
    ['S-1', 'Evening song'],
    ['S-2', 'Morning song'],
  ])
    await service.owner('POST', '/apps/little/records/scores', { number, title });
});
afterAll(() => service.stop());

const get = (path: string) => fetch(service.base + path, { redirect: 'manual' });
const text = async (path: string) => (await fetch(service.base + path)).text();

describe('a page that leads on', () => {
  it('opens another page with its values, and never for an address that is wrong', async () => {
    const answer = await get('/little/lend/S-1');
    expect([answer.status, answer.headers.get('location')]).toEqual([303, '/little/scores?score=S-1&lend=true']);
    expect((await get('/little/lend/S-9')).status).toBe(404);
  });

  it('is refused where it would lead in a circle', () => {
    const circle = (to: string) => `{ title: T, address: /${to}, content: [{ show: lead-on, to: { page: ${to === 'a' ? 'b' : 'a'} } }] }`;
    const { problems } = checkAppFile(littleApp({ pages: `  a: ${circle('a')}\n  b: ${circle('b')}\n` }));
    expect(problems.filter(({ code }) => code === 'leads-in-circle').map(({ message }) => message)).toEqual([
      'The page leads in a circle: a, b, a.',
      'The page leads in a circle: b, a, b.',
    ]);
  });
});

it('lists say what their values are called, and which records there are not', async () => {
  expect(await text('/little/scores?kinds=song,mass&chosen=S-2,S-1')).toContain(
    'Kinds: Song for one, Mass. Chosen: Morning song, Evening song.',
  );
  const damaged = await text('/little/scores?chosen=S-2,S-8,S-9');
  expect(damaged).toContain('Chosen: Morning song.');
  expect(damaged).toContain('“Chosen” cannot be “S-8”, “S-9”: There are no such records.');
});

it('a gate gives its own reason on the sign-in page', async () => {
  expect(await text('/little/members')).toContain('Only the choir of Little may see its members.');
});
