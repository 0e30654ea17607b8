import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import type { PatchOperation } from '@pallmist/address/declare';
import { withContext } from '@pallmist/address/declare';
import {
  changeAddress,
  checkAppFile,
  compareDraft,
  compileApp,
  FormerPages,
  promisedPages,
  readAddress,
  renameChoice,
  renamePage,
  renameParameter,
  writeAddress,
  type AppDefinition,
  type Values,
} from '../../src/index.ts';
import { patchData } from '../../src/editing/patch-data.ts';
import { openSeals } from '../../src/editions/lasting/open-seals.ts';
import { valuesToTry } from '../../src/editions/lasting/values-to-try.ts';

const source = readFileSync(new URL('../../../../demo/quillmoor/app.yaml', import.meta.url), 'utf8');

/** The same numbers for every run (a linear congruential generator). */
function generator(seed: number): (below: number) => number {
  let state = seed;
  return (below) => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return Math.floor((state / 2 ** 32) * below);
  };
}

/** A change as a builder makes it in the console: what it renames or moves is recorded. */
function recordedEdit(definition: AppDefinition, step: number, pick: (below: number) => number): PatchOperation[] {
  const names = Object.keys(definition.pages);
  const page = names[pick(names.length)] ?? '';
  const { address = '', parameters = {} } = definition.pages[page] ?? {};
  const inQuery = Object.keys(parameters).filter((name) => new RegExp(`\\{\\?[^{}]*\\b${name}\\b`).test(address));
  const parameter = inQuery[pick(inQuery.length)];
  const lists = Object.entries(definition.choices ?? {});
  const [list = '', values = {}] = lists[pick(lists.length)] ?? [];
  const value = Object.keys(values)[pick(Object.keys(values).length)] ?? '';
  switch (pick(5)) {
    case 0:
      return renamePage(definition, page, `${page.replace(/-\d+$/, '')}-${String(step)}`);
    case 1:
      return changeAddress(definition, page, `/moved-${String(step)}${address.replace(/^\/moved-\d+/, '').replace(/^\/(?=\{\?|$)/, '')}`);
    case 2:
      return parameter === undefined
        ? []
        : renameParameter(definition, page, parameter, `${parameter.replace(/_\d+$/, '')}_${String(step)}`);
    case 3:
      // The names of languages are those of BCP 47.
      return list === 'languages' ? [] : renameChoice(definition, list, value, `${value.replace(/-\d+$/, '')}-${String(step)}`);
    default:
      return [
        { op: 'replace', path: '/mount', value: `/garden-${String(step)}` },
        definition.formerMounts === undefined
          ? { op: 'add', path: '/formerMounts', value: [definition.mount] }
          : { op: 'add', path: '/formerMounts/-', value: definition.mount },
      ];
  }
}

it('the demo goes through 100 editions, and every address of the first still arrives', () => {
  const first = checkAppFile(source).definition as AppDefinition;
  const pick = generator(2026);
  const editions = [{ number: 1, definition: first }];
  while (editions.length < 100) {
    const { definition } = editions.at(-1) as { definition: AppDefinition };
    const patch = recordedEdit(definition, editions.length, pick);
    if (patch.length > 0) editions.push({ number: editions.length + 1, definition: patchData(definition, patch) as AppDefinition });
  }
  const last = (editions.at(-1) as { definition: AppDefinition }).definition;
  const [then, now] = [first, last].map((definition) => withContext(compileApp(definition).app, { seals: openSeals }));
  if (then === undefined || now === undefined) throw new Error('not compiled');

  const followed: string[] = [];
  for (const [name, page] of then.pages) {
    const tried = page.parameters.map((parameter) => ({ parameter, values: valuesToTry(parameter, undefined, first).slice(0, 8) }));
    const needed = Object.fromEntries(tried.flatMap(({ parameter, values }) => (parameter.required ? [[parameter.name, values[0]]] : [])));
    for (const { parameter, values } of tried)
      for (const value of values) {
        const { address } = writeAddress(then, name, { ...needed, [parameter.name]: value } as Values);
        if (address === undefined) continue;
        const reading = readAddress(now, address);
        const { formerNames = [] } = last.pages[reading.page ?? ''] ?? {};
        expect([reading.status, [reading.page, ...formerNames]], address).toEqual(['found', expect.arrayContaining([name])]);
        expect(reading.problems.filter(({ severity }) => severity !== 'note')).toEqual([]);
        const to = writeAddress(now, reading.page ?? '', reading.values).address;
        expect(readAddress(now, to ?? '')).toMatchObject({ status: 'found', values: reading.values, former: false });
        followed.push(address);
      }
  }
  expect(followed.length).toBeGreaterThan(300);

  // What the editions themselves say about it.
  const versions = promisedPages(editions);
  expect(compareDraft({ definition: last, compiled: compileApp(last).app }, versions).map(({ words }) => words)).toEqual([]);

  // Where a builder has thrown the former addresses away, the editions that knew them still read them.
  const forgotten = structuredClone(last);
  for (const page of Object.values(forgotten.pages)) delete page.formerAddresses;
  const today = { definition: forgotten, compiled: withContext(compileApp(forgotten).app, { seals: openSeals }), seals: openSeals };
  const former = new FormerPages(versions, new Set());
  const unknown = followed.filter((address) => readAddress(today.compiled, address).status === 'unknown-page');
  expect(unknown.length).toBeGreaterThan(100);
  for (const address of unknown) {
    const found = former.find(address, today);
    expect(readAddress(today.compiled, typeof found === 'object' ? found.to : ''), address).toMatchObject({ status: 'found' });
  }
});
