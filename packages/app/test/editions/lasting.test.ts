import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { PatchOperation } from '@pallmist/address/declare';
import {
  AppChecker,
  compareDraft,
  compileApp,
  DraftDocument,
  promisedPages,
  readAddress,
  renameChoice,
  rehearse,
  withContext,
  type AppDefinition,
  type PromisedPage,
  type RepairableFinding,
} from '../../src/index.ts';
import { patchData } from '../../src/editing/patch-data.ts';
import { judge } from '../../src/editions/lasting/judge.ts';
import { openSeals } from '../../src/editions/lasting/open-seals.ts';
import { compileContext, declared } from '../generated-declarations.ts';
import { editsOf, everyAddress } from './oracle.ts';
import { often } from '../../../../test/support/often.ts';

const source = readFileSync(new URL('../../../../demo/quillmoor/app.yaml', import.meta.url), 'utf8');
const demo = new DraftDocument(source).data;
const checker = new AppChecker();
const checked = (data: unknown) => {
  const { definition, compiled, problems } = checker.check(data);
  const error = problems.find(({ severity }) => severity === 'error');
  if (!definition || !compiled || error) throw new Error(JSON.stringify(error ?? problems[0]));
  return { data, definition, compiled };
};
const before = checked(demo).definition;

const promised = (...editions: AppDefinition[]): PromisedPage[] =>
  promisedPages(editions.map((definition, index) => ({ number: index + 1, definition })));

const rehearsed = (data: unknown, editions: AppDefinition[] = [before]): Promise<RepairableFinding[]> =>
  rehearse(checked(data), promised(...editions), { formerly: (edition) => Promise.resolve(editions[edition - 1]) });
const shortly = ({ fate, kind, page, parameter }: RepairableFinding) =>
  [fate, kind, page, parameter].filter((part) => part !== undefined).join(' ');

const tab = '/pages/specimen/parameters/tab';
const tidy = { title: 'Tidy', content: [{ show: 'text', text: 'Tidy' }] };

describe('an edit of the demo', () => {
  it.each<[what: string, patch: PatchOperation[], found: string[]]>([
    ['nothing', [], []],
    ['another title', [{ op: 'replace', path: '/pages/specimen/title', value: 'Plant' }], []],
    [
      'a new parameter with a default',
      [
        { op: 'replace', path: '/pages/membership/address', value: '/membership{?fee}' },
        { op: 'add', path: '/pages/membership/parameters', value: { fee: { type: 'integer', default: 3 } } },
      ],
      [],
    ],
    [
      'a new required parameter',
      [
        { op: 'replace', path: '/pages/bed-plan/address', value: '/bed-plan{?plan,name,zone}' },
        { op: 'add', path: '/pages/houses/content/3/to/values', value: { zone: 'mist-forest' } },
        {
          op: 'add',
          path: '/pages/bed-plan/parameters/zone',
          value: { type: 'record', of: 'zones', required: true, sample: 'mist-forest' },
        },
      ],
      ['refused missing-value bed-plan zone'],
    ],
    ['another default', [{ op: 'replace', path: `${tab}/default`, value: 'care' }], ['silent other-default specimen tab']],
    ['another mount', [{ op: 'replace', path: '/mount', value: '/gardens' }], ['gone app-moved home']],
    ['another address', [{ op: 'replace', path: '/pages/houses/address', value: '/glasshouses{?letters}' }], ['gone no-page houses']],
    ['a former address that is dropped', [{ op: 'remove', path: '/pages/specimen/formerAddresses' }], ['gone no-page specimen']],
    ['a lower limit', [{ op: 'add', path: '/pages/specimens/parameters/q/maxLength', value: 5 }], ['noted value-refused specimens q']],
    [
      'a page that takes a literal',
      [{ op: 'add', path: '/pages/tidy', value: { ...tidy, address: '/climates/B' } }],
      ['silent other-page zone'],
    ],
  ])('%s', async (_, patch, found) => {
    expect((await rehearsed(patchData(demo, patch))).map(shortly)).toEqual(found);
  });
});

/** Applies the first repair of each finding, until there is none. @returns the words of those that were applied */
async function repaired(data: unknown): Promise<string[]> {
  const words: string[] = [];
  for (let round = 0; round < 10; round++) {
    const [first] = await rehearsed(data);
    if (first === undefined) return words;
    const [repair] = first.repairs;
    if (repair === undefined) throw new Error(`No repair: ${first.words}`);
    words.push(repair.words);
    data = patchData(data, repair.patch);
  }
  throw new Error(words.join('\n'));
}

it('tells what else would change where the app has moved', async () => {
  const patch: PatchOperation[] = [
    { op: 'replace', path: '/mount', value: '/gardens' },
    { op: 'replace', path: `${tab}/default`, value: 'care' },
  ];
  const found = await rehearsed(patchData(demo, patch));
  expect(found.map(shortly)).toEqual(['silent other-default specimen tab', 'gone app-moved home']);
  expect(found.map(({ repairs }) => repairs[0]?.kind)).toEqual(['repair', 'repair']);
});

describe('a repair', () => {
  it.each<[what: string, patch: PatchOperation[], words: RegExp]>([
    ['another default', [{ op: 'replace', path: `${tab}/default`, value: 'care' }], /Keep “overview” .* write “care” into new links/],
    ['another mount', [{ op: 'replace', path: '/mount', value: '/gardens' }], /Keep \/garden as a former place/],
    [
      'another address',
      [{ op: 'replace', path: '/pages/houses/address', value: '/glasshouses{?letters}' }],
      /Keep \/houses\S* as a former address/,
    ],
    ['a lower limit', [{ op: 'add', path: '/pages/specimens/parameters/q/maxLength', value: 5 }], /Put “maxLength” of “q” back/],
    [
      'a choice of another name',
      [...renameChoice(before, 'health', 'poorly', 'struggling', false)],
      /Note “poorly” as a former value of “struggling”/,
    ],
    [
      'another key',
      [
        { op: 'remove', path: '/pages/zone/parameters/zone/by' },
        { op: 'replace', path: '/pages/zone/parameters/zone/sample', value: 'mist-forest' },
        { op: 'replace', path: '/pages/zones/content/1/link/values/zone', value: '{row.code}' },
        { op: 'replace', path: '/pages/specimen/content/4/panes/overview/0/fields/2/to/values/zone', value: '{record.specimen.zone.code}' },
      ],
      /Keep “letter” as a former key of the collection “zones”/,
    ],
  ])('of %s', async (_, patch, words) => {
    expect((await repaired(patchData(demo, patch))).join('\n')).toMatch(words);
  });
});

it('offers to declare a choice as gone, and takes it', async () => {
  const without = patchData(demo, [
    { op: 'remove', path: '/choices/workspace-view/notes' },
    { op: 'remove', path: '/pages/workspace/content/2/panes/notes' },
  ]);
  const [finding] = await rehearsed(without);
  const gone = finding?.repairs.find(({ words }) => words.startsWith('Declare “notes” as gone'));
  const after = patchData(without, gone?.patch ?? []);
  expect((await rehearsed(after)).map(shortly)).toEqual([]);
  const { problems } = checker.check(patchData(demo, gone?.patch ?? []));
  expect(problems.map(({ code }) => code)).toContain('gone-value-in-use');
});

it('compares with every edition, not only with the last', async () => {
  const second = patchData(demo, [{ op: 'add', path: '/pages/tidy', value: { ...tidy, address: '/tidy' } }]);
  const third = demo;
  const taken = patchData(demo, [{ op: 'add', path: '/pages/plain', value: { ...tidy, address: '/tidy' } }]);
  const editions = [before, checked(second).definition, checked(third).definition];
  expect((await rehearsed(taken, editions)).map((finding) => [shortly(finding), finding.editions])).toEqual([
    ['silent other-page tidy', [2]],
  ]);
});

it('does not tell again of what was given up with consent', () => {
  const draft = checked(patchData(demo, [{ op: 'replace', path: `${tab}/default`, value: 'care' }]));
  const [finding] = compareDraft(draft, promised(before));
  expect(compareDraft(draft, promised(before), new Set(finding?.promises))).toEqual([]);
  const other = checked(patchData(demo, [{ op: 'replace', path: `${tab}/default`, value: 'notes' }]));
  expect(compareDraft(other, promised(before, draft.definition), new Set(finding?.promises)).map(({ editions }) => editions)).toEqual([
    [2],
  ]);
});

describe('all generated addresses find nothing that the comparison does not', () => {
  it('for each edit of each declaration of the demo', () => {
    const versions = promised(before);
    let broken = 0;
    // A third of them is enough: each kind of edit is made to many pages and parameters.
    const edits = editsOf(before).filter((_, index) => index % 3 === 0);
    for (const [what, definition] of edits) {
      const { app: compiled } = compileApp(definition);
      const found = compareDraft({ definition, compiled }, versions);
      for (const { address, page, differences } of everyAddress(versions, before, { definition, compiled })) {
        broken++;
        for (const { fate, kind, parameter } of differences)
          if (!found.some((one) => one.page === page && one.fate === fate && one.parameter === parameter)) {
            const told = found.map((one) => `${one.fate} ${one.kind} ${one.page} ${one.parameter ?? ''}`);
            expect.fail(`${what}: ${address} ${fate} ${kind} ${parameter ?? ''}, and found was only ${told.join('; ')}`);
          }
      }
    }
    expect(edits.length).toBeGreaterThan(60);
    expect(broken).toBeGreaterThan(500);
  });

  it('for any two declarations of a parameter', () => {
    fc.assert(
      fc.property(declared, declared, fc.boolean(), fc.gen(), (then, now, isChanged, generate) => {
        const edition = ({ declaration, repeated }: typeof then, more: object = {}): AppDefinition =>
          ({
            ...compileContext,
            pallmist: 1,
            app: 'any',
            title: 'Any',
            mount: '/',
            pages: {
              here: {
                title: 'Here',
                address: repeated ? '/here{?x*}' : '/here{?x}',
                parameters: { x: { ...declaration, ...more } },
                content: [],
              },
              elsewhere: { title: 'Elsewhere', address: '/elsewhere', content: [] },
            },
          }) as AppDefinition;
        const was = edition(then);
        // A limit of the same type is what builders change most.
        const is = isChanged ? edition(now) : edition(then, now.declaration.type === then.declaration.type ? now.declaration : {});
        const [draft, versions] = [{ definition: is, compiled: compileApp(is).app }, promised(was)];
        const found = compareDraft(draft, versions);
        const former = {
          page: 'here',
          compiled: withContext(compileApp(was).app, { seals: openSeals }),
          collections: was.collections ?? {},
        };
        for (let times = 0; times < 5; times++) {
          const text = former.compiled.pages
            .get('here')
            ?.byName.get('x')
            ?.plain.write(generate(() => then.value));
          const address = `/here?x=${text ?? ''}`;
          const differences = judge(former, draft, address) ?? [];
          // The comparison finds each change of type, but its examples do not cover every text.
          const [before, after] = [was, is].map(({ pages }) => pages['here']?.parameters?.['x']);
          const isRetyped = before?.type !== after?.type || before?.items?.type !== after?.items?.type;
          for (const { fate } of differences)
            if (isRetyped) expect(found, `${address} is ${fate}`).not.toEqual([]);
            else
              expect(
                found.map((one) => one.fate),
                `${address} is ${fate}`,
              ).toContain(fate);
        }
      }),
      { numRuns: often(250) },
    );
  });
});

it('reads an address of each kind of declaration as it was meant', () => {
  const draft = checked(
    patchData(demo, [
      { op: 'replace', path: '/mount', value: '/gardens' },
      { op: 'add', path: '/formerMounts', value: ['/garden'] },
      { op: 'add', path: '/gone', value: [{ address: '/climates/polar', reason: 'The polar house was taken down.' }] },
      { op: 'add', path: '/pages/specimen/formerAddresses', value: [{ address: '/care-of/{specimen}', values: { tab: 'care' } }] },
      { op: 'add', path: '/pages/specimens/parameters/size/formerValues', value: { many: 100 } },
    ]),
  );
  const read = (address: string) => readAddress(draft.compiled, address);
  expect(read('/garden/houses')).toMatchObject({ status: 'found', page: 'houses', former: true });
  expect(read('/gardens/climates/polar')).toMatchObject({ status: 'gone', problems: [{ message: 'The polar house was taken down.' }] });
  expect(read('/gardens/care-of/QM-0412')).toMatchObject({ page: 'specimen', values: { specimen: 'QM-0412', tab: 'care' }, former: true });
  expect(read('/gardens/care-of/QM-0412?tab=notes').values).toMatchObject({ tab: 'notes' });
  expect(read('/gardens/specimens?size=many')).toMatchObject({ values: { size: 100 }, former: true });
});
