import {
  compileApp,
  withContext,
  writeAddress,
  type AppDefinition,
  type CompiledApp,
  type PromisedPage,
  type Values,
} from '../../src/index.ts';
import type { ParameterDeclaration } from '@pallmist/address/declare';
import { judge, type Difference } from '../../src/editions/lasting/judge.ts';
import { openSeals } from '../../src/editions/lasting/open-seals.ts';
import { valuesToTry } from '../../src/editions/lasting/values-to-try.ts';

/** States of an app that differ from it in one declaration each, by what was done. */
export function editsOf(app: AppDefinition): [what: string, definition: AppDefinition][] {
  const edits: [string, AppDefinition][] = [];
  const add = (what: string, change: (draft: AppDefinition) => void) => {
    const draft = structuredClone(app);
    change(draft);
    edits.push([what, draft]);
  };
  for (const [name, page] of Object.entries(app.pages)) {
    add(`remove ${name}`, (draft) => Reflect.deleteProperty(draft.pages, name));
    add(`move ${name}`, (draft) => (pageOf(draft, name).address = `/moved${page.address}`));
    add(`rename ${name}`, (draft) => {
      draft.pages = Object.fromEntries(Object.entries(draft.pages).map(([one, held]) => [one === name ? 'renamed' : one, held]));
    });
    for (const [parameter, declaration] of Object.entries(page.parameters ?? {})) {
      const declare = (what: string, change: (declaration: ParameterDeclaration) => ParameterDeclaration) => {
        add(`${what} of ${name} ${parameter}`, (draft) => (parametersOf(draft, name)[parameter] = change(declaration)));
      };
      add(`rename ${name} ${parameter}`, (draft) => rename(draft, name, parameter));
      declare('as text', ({ label }) => ({ type: 'text', label }));
      declare('as integer', ({ label }) => ({ type: 'integer', label }));
      declare('seal', (given) => ({ ...given, sealed: given.sealed === undefined }));
      declare('refuse', (given) => ({ ...given, ifWrong: 'refuse', maxLength: given.type === 'text' ? 2 : undefined }));
      if (declaration.type === 'text') declare('pattern', (given) => ({ ...given, pattern: '[a-m]*' }));
      if (declaration.type === 'integer') declare('limit', (given) => ({ ...given, min: 3, max: 5 }));
      if (declaration.default !== undefined) declare('no default', (given) => ({ ...given, default: undefined }));
    }
  }
  for (const [list, values] of Object.entries(app.choices ?? {}))
    for (const value of Object.keys(values))
      add(`remove the choice ${value}`, (draft) => Reflect.deleteProperty(draft.choices?.[list] ?? {}, value));
  return edits;
}

const pageOf = (draft: AppDefinition, name: string) => draft.pages[name] as AppDefinition['pages'][string];
const parametersOf = (draft: AppDefinition, name: string) => pageOf(draft, name).parameters as Record<string, ParameterDeclaration>;

function rename(draft: AppDefinition, name: string, parameter: string): void {
  const page = pageOf(draft, name);
  page.address = page.address.replaceAll(/\{[^{}]*\}/g, (part) => part.replaceAll(new RegExp(`\\b${parameter}\\b`, 'g'), 'renamed'));
  page.parameters = Object.fromEntries(
    Object.entries(parametersOf(draft, name)).map(([one, held]) => [one === parameter ? 'renamed' : one, held]),
  ) as typeof page.parameters;
}

const compiledVersions = new Map<unknown, CompiledApp>();

/** Each address of earlier versions that does not mean the same any more: all values that are tried, alone and in pairs. */
export function* everyAddress(
  versions: readonly PromisedPage[],
  before: AppDefinition,
  now: { definition: AppDefinition; compiled: CompiledApp },
): Generator<{ address: string; page: string; differences: Difference[] }> {
  const sealed = { ...now, compiled: withContext(now.compiled, { seals: openSeals }) };
  for (const { page: name, app } of versions) {
    let compiled = compiledVersions.get(app);
    if (compiled === undefined) compiledVersions.set(app, (compiled = withContext(compileApp(app).app, { seals: openSeals })));
    const page = compiled.pages.get(name);
    const today = now.definition.pages[name];
    // Where nothing of the page is edited, one address for each page shows whether another takes it.
    const isEdited = JSON.stringify([today, now.definition.choices]) !== JSON.stringify([before.pages[name], before.choices]);
    if (page === undefined) continue;
    const values = page.parameters.map((parameter) => ({
      parameter,
      tried: valuesToTry(parameter, today?.parameters?.[parameter.name], app).slice(0, 6),
    }));
    const needed = Object.fromEntries(
      values.flatMap(({ parameter, tried }) => (parameter.required ? [[parameter.name, tried[0]]] : [])),
    ) as Values;
    const pairs = values.flatMap(({ parameter: one, tried }, index) =>
      tried.flatMap((value) => [
        { ...needed, [one.name]: value },
        ...values
          .slice(index + 1)
          .flatMap(({ parameter: other, tried: others }) =>
            others.slice(0, 2).map((second) => ({ ...needed, [one.name]: value, [other.name]: second })),
          ),
      ]),
    );
    for (const given of isEdited ? [needed, ...pairs] : [needed]) {
      const { address } = writeAddress(compiled, name, given as Values);
      const former = { page: name, compiled, collections: app.collections ?? {} };
      const differences = address === undefined ? undefined : judge(former, sealed, address);
      if (address !== undefined && differences !== undefined && differences.length > 0) yield { address, page: name, differences };
    }
  }
}
