import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import {
  audit,
  checkAppFile,
  compileApp,
  probablePage,
  readAddress,
  secondClassChanges,
  writeAddress,
  type AppDefinition,
} from '../../src/index.ts';
import { addFormerAddress, patchData } from '../../src/editing/index.ts';

const source = readFileSync(new URL('../../../../demo/quillmoor/app.yaml', import.meta.url), 'utf8');
const { definition: demo, compiled } = checkAppFile(source) as {
  definition: AppDefinition;
  compiled: ReturnType<typeof compileApp>['app'];
};

it.each([
  ['/garden/specimen/QM-0412', { page: 'specimen', address: '/garden/specimens/QM-0412', template: '/specimen/{specimen}' }],
  ['/garden/hoses/palm/', { page: 'house', address: '/garden/houses/palm', template: '/hoses/{house}' }],
  ['/garden/membershp', { page: 'membership', address: '/garden/membership', template: '/membershp' }],
  // Not a slip in a literal: the value is wrong, the page is right, or nothing is near.
  ['/garden/specimens/nothing', undefined],
  ['/garden/specimens/QM-0412', undefined],
  ['/garden/specimen/nothing', undefined],
  ['/garden/orchestra', undefined],
  ['/elsewhere/specimen/QM-0412', undefined],
  ['/garden', undefined],
])('%s probably meant %j', (path, meant) => {
  expect(probablePage(path, demo, compiled)).toEqual(meant);
});

/** Paths of pages with a letter left out, put in twice, or exchanged with the next one. */
const slip = fc
  .tuple(
    fc.constantFrom('specimens/QM-0412', 'houses/palm', 'climates/C', 'labels/QM-0412', 'care-rounds'),
    fc.nat(4),
    fc.constantFrom(0, 1, 2),
  )
  .map(([path, at, kind]) => {
    const [before, letter, next, after] = [path.slice(0, at), path.charAt(at), path.charAt(at + 1), path.slice(at + 2)];
    const changed = [next, letter + letter + next, next + letter][kind] ?? '';
    return { right: `/garden/${path}`, wrong: `/garden/${before}${changed}${after}` };
  });

it('as a former address of the page that was meant, an address with a slip leads to it', () => {
  fc.assert(
    fc.property(slip, ({ right, wrong }) => {
      const meant = probablePage(wrong, demo, compiled);
      if (readAddress(compiled, wrong).status === 'found') return;
      expect(meant?.address, wrong).toBe(right);
      const patched = patchData(demo, addFormerAddress(demo, meant?.page ?? '', meant?.template ?? '')) as AppDefinition;
      const { app, problems } = compileApp(patched);
      expect(problems.filter(({ severity }) => severity === 'error')).toEqual([]);
      const reading = readAddress(app, wrong);
      expect(reading).toMatchObject({ status: 'found', former: true });
      expect(writeAddress(app, reading.page ?? '', reading.values).address).toBe(right);
      expect(audit(wrong, patched, app)).toMatchObject({ verdict: 'moved', to: right });
    }),
  );
});

it('tells who may see a page, and how it looks, apart from what its addresses mean', () => {
  const told = (path: string, value: unknown) =>
    secondClassChanges(demo, patchData(demo, [{ op: 'add', path, value }]) as AppDefinition).map(
      ({ group, words }) => `${group}: ${words}`,
    );
  expect(told('/pages/houses/admit', 'members')).toEqual(['who-may-see: “Glasshouses” admits others than before.']);
  expect(told('/pages/houses/title', 'All houses')).toEqual(['how-it-looks: The title of “All houses” was “Glasshouses”.']);
  expect(told('/pages/houses/parameters/letters/share', false)).toEqual(['how-it-looks: “letters” of “Glasshouses” changes its “share”.']);
  expect(told('/parameters/lang/label', 'Tongue')).toEqual(['how-it-looks: “lang” of the app changes its “label”.']);
  expect(told('/pages/houses/description', 'Where plants grow')).toEqual([]);
});
