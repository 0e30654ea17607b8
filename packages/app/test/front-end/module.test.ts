import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { checkAppFile, frontEndModule, pagesFromCode, type AppDefinition } from '@pallmist/app';
import { readAddress, writeAddress, type CompiledApp } from '@pallmist/app/address';
import { read, write, type Page } from '@pallmist/address';
import fc from 'fast-check';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';
import { often } from '../../../../test/support/often.ts';

const appOf = (source: string) => {
  const { definition, compiled, problems } = checkAppFile(source);
  if (definition === undefined || compiled === undefined) throw new Error(JSON.stringify(problems));
  return { definition, compiled };
};
const garden = appOf(readFileSync(new URL('../../../../demo/quillmoor/app.yaml', import.meta.url), 'utf8'));
const odd = appOf(`
pallmist: 1
app: odd
title: Odd
mount: /
timeZone: Europe/London
choices: { new: { a: "It's", b: { label: "*/ end", formerValues: ["x y"] } } }
collections:
  things: { keyField: code, fields: { code: { type: text, unique: true, pattern: "[A-Z]\\\\d{2}" } } }
pages:
  delete: { title: Delete, address: "/{?new,day,where}", content: [],
    parameters: { new: { type: choice, of: new, default: b }, day: { type: date, default: today-7d }, where: { type: page } } }
  list-of-things: { title: Things, address: "/things{/thing}{?shape,stamp,tint,heights,odd-name,n}", content: [],
    parameters: {
      thing: { type: record, of: things },
      shape: { type: packed, schema: { type: object, required: [w], properties: { w: { type: integer }, names: { type: array, items: { type: string } } } } },
      stamp: { type: datetime }, tint: { type: colour, default: "#aabbcc" },
      heights: { type: range, of: number, min: 0 }, odd-name: { type: text, required: true, label: "What */ it is" }, n: { type: number, min: -1.5 } } }
`);

/** The pages that the module of an app exports. */
async function pagesOf({ definition, compiled }: { definition: AppDefinition; compiled: CompiledApp }): Promise<Record<string, Page>> {
  const { outputText } = ts.transpileModule(frontEndModule(definition, compiled), {
    compilerOptions: { module: ts.ModuleKind.ESNext, target: ts.ScriptTarget.ES2023 },
  });
  // Beside this file, so that it finds the packages.
  const file = new URL(`./${definition.app}.tmp.mjs`, import.meta.url);
  writeFileSync(file, outputText);
  try {
    return ((await import(file.href)) as { pages: Record<string, Page> }).pages;
  } finally {
    rmSync(file);
  }
}

const defined = (values: object) => Object.fromEntries(Object.entries(values).filter(([, value]) => value !== undefined));

describe.each([
  ['the garden', garden],
  ['an app of odd names and every type', odd],
])('the module of %s', (_, app) => {
  it('put back into the app changes nothing', async () => {
    const { definition, added, changed, collections } = pagesFromCode(app.definition, await pagesOf(app));
    expect(definition).toEqual(app.definition);
    expect([added, changed, collections]).toEqual([[], [], []]);
  });

  it('has every page, and reads and writes every address as the service does', async () => {
    const pages = await pagesOf(app);
    expect(Object.keys(pages)).toEqual([...app.compiled.pages.keys()]);
    const texts = fc.oneof(
      fc.string({ maxLength: 5 }),
      fc.constantFrom(
        'a',
        'b',
        'x%20y',
        '7',
        '-1',
        '2026-03-21',
        '2026-07-01T08:00',
        'QM-0412',
        'A12',
        'true',
        '1..9',
        '-name',
        'poorly',
        'home',
        'abc',
        '1q1bKMlKyUqoFAA',
      ),
    );
    for (const [name, page] of Object.entries(pages)) {
      const compiled = app.compiled.pages.get(name);
      if (compiled === undefined || compiled.parameters.some(({ sealed }) => sealed)) continue;
      const query = fc.array(fc.tuple(fc.constantFrom(...compiled.query.map((one) => one.name), 'x'), texts), { maxLength: 6 });
      const path = fc.tuple(...compiled.path.map(() => fc.constantFrom('QM-0412', 'palm', 'N-0001', 'A12', 'zz')));
      fc.assert(
        fc.property(path, query, (segments, pairs) => {
          let at = 0;
          const own = compiled.template.segments
            .map((segment) => `/${'literal' in segment ? segment.literal : (segments[at++] ?? '')}`)
            .join('');
          const address = `${app.compiled.mount}${own}?${pairs.map(([key, text]) => `${key}=${text}`).join('&')}`;
          const whole = readAddress(app.compiled, address);
          if (whole.page !== name) return;
          const reading = read(page, address);
          expect([address, reading.status, defined(reading.values)]).toEqual([address, whole.status, whole.values]);
          if (reading.status === 'found') expect(write(page, reading.values)).toBe(writeAddress(app.compiled, name, whole.values).address);
        }),
        { numRuns: often(200) },
      );
    }
  });

  it('compiles, and is the same each time', () => {
    const module = frontEndModule(app.definition, app.compiled);
    expect(frontEndModule(app.definition, app.compiled)).toBe(module);
    const file = fileURLToPath(new URL(`./${app.definition.app}.tmp.ts`, import.meta.url));
    writeFileSync(file, module);
    try {
      const program = ts.createProgram([file], {
        strict: true,
        noEmit: true,
        skipLibCheck: true,
        target: ts.ScriptTarget.ES2023,
        module: ts.ModuleKind.ESNext,
        moduleResolution: ts.ModuleResolutionKind.Bundler,
        customConditions: ['source'],
        allowImportingTsExtensions: true,
        types: [],
      });
      const source = program.getSourceFile(file);
      const found = [...program.getSyntacticDiagnostics(source), ...program.getSemanticDiagnostics(source)];
      expect(found.map(({ messageText }) => ts.flattenDiagnosticMessageText(messageText, '\n'))).toEqual([]);
    } finally {
      rmSync(file);
    }
  });
});

it('the names, labels and helps of the app file are in the module as names and comments', () => {
  const module = frontEndModule(odd.definition, odd.compiled);
  expect(module).toContain('/** Delete */\nexport const deletePage = page(');
  expect(module).toContain('export const listOfThingsPage = page(');
  expect(module).toContain("/** What *\\/ it is */\n  'odd-name': text({ required: true }),");
  expect(module).toContain('{ w: number; names?: readonly (string)[] }');
  expect(module).toContain("() => resolveRelativeDate('today-7d', todayIn('Europe/London', Date.now()))");
});

it('the module of an app reads a time without an offset by the clocks of the app, as the service does', async () => {
  const stamp = (await pagesOf(odd))['list-of-things'];
  const address = '/things/A12?odd-name=x&stamp=2026-07-01T08:00';
  expect(readAddress(odd.compiled, address).values['stamp']).toBe('2026-07-01T07:00:00Z');
  expect(stamp === undefined ? undefined : read(stamp, address).values).toMatchObject({ stamp: '2026-07-01T07:00:00Z' });
});
