import { nearest, suggest } from '../near.ts';
import type { ParameterTypes } from '../parameters/codec.ts';
import type { ParameterSurroundings } from '../parameters/declaration.ts';
import { todayIn } from '../parameters/relative-date.ts';
import { parameterTypes } from '../parameters/types/index.ts';
import { toPointer, type Problem } from '../problem.ts';
import { compileParameter } from './compile-parameter.ts';
import type { AddressableApp, AddressablePage, Claim, CompiledApp, CompiledPage, CompiledParameter } from './compiled-app.ts';
import { PageFinder } from './page-finder.ts';
import type { Seals } from './seals.ts';
import { parseTemplate, type AddressTemplate } from './template.ts';

export interface CompileOptions {
  /** The types of parameters; those that need no other package when left out. */
  types?: ParameterTypes;
  /** Opens and seals the values of parameters that are declared as sealed; without it no such value is read or written. */
  seals?: Seals;
  /** Today's date, YYYY-MM-DD; by the clock and the app's time zone when left out. */
  today?: () => string;
}

type Report = (problem: Problem) => void;

/** What compiling each page needs. */
interface Workshop {
  definition: AddressableApp;
  types: ParameterTypes;
  seals: Seals | undefined;
  surroundings: ParameterSurroundings;
  today: () => string;
  report: Report;
}

/**
 * Prepares an app's addresses for reading and writing.
 * @returns the app without the pages that cannot work, and a problem for each thing that is wrong
 */
export function compileApp(definition: AddressableApp, options: CompileOptions = {}): { app: CompiledApp; problems: Problem[] } {
  const problems: Problem[] = [];
  const workshop: Workshop = {
    definition,
    types: options.types ?? parameterTypes,
    seals: options.seals,
    surroundings: { choices: definition.choices ?? {}, collections: definition.collections ?? {}, pages: Object.keys(definition.pages) },
    today: options.today ?? (() => todayIn(definition.timeZone ?? 'UTC')),
    report: (problem) => problems.push(problem),
  };
  const app: CompiledApp = {
    name: definition.app,
    mount: definition.mount === '/' ? '' : definition.mount,
    pages: new Map(),
    formerPages: new Map(),
    finder: new PageFinder(),
  };
  const former: { page: CompiledPage; declaration: AddressablePage }[] = [];
  for (const [name, declaration] of Object.entries(definition.pages)) {
    const page = compilePage(name, declaration, workshop);
    if (page === undefined) continue;
    app.pages.set(name, page);
    const rival = app.finder.claim(page.template, { page, path: page.path, former: false });
    if (rival !== undefined) {
      problems.push({
        code: 'address-taken',
        severity: 'error',
        message: `The pages “${rival.page.name}” and “${name}” claim the same address.`,
        hint: 'Give one of them a segment of its own.',
        pointer: toPointer(['pages', name, 'address']),
      });
    }
    former.push({ page, declaration });
  }
  // What holds today goes before what held in the past.
  for (const { page, declaration } of former) keepFormer(app, page, declaration, workshop);
  return { app, problems };
}

/** Keeps the names and addresses that a page had in the past. */
function keepFormer(app: CompiledApp, page: CompiledPage, declaration: AddressablePage, { definition, report }: Workshop): void {
  for (const [index, name] of (declaration.formerly ?? []).entries()) {
    const pointer = toPointer(['pages', page.name, 'formerly', index]);
    const holder = Object.hasOwn(definition.pages, name) ? name : app.formerPages.get(name)?.name;
    if (holder === undefined) app.formerPages.set(name, page);
    else report(formerTaken(`The former name “${name}” of the page “${page.name}” belongs to the page “${holder}”.`, pointer));
  }
  for (const [index, text] of (declaration.formerAddresses ?? []).entries()) {
    const pointer = toPointer(['pages', page.name, 'formerAddresses', index]);
    const { template, problems } = parseTemplate(text);
    for (const problem of problems) report({ ...problem, pointer });
    if (problems.length > 0) continue;
    const names = template.segments.flatMap((segment) => ('parameter' in segment ? [segment.parameter] : []));
    const path = names.map((name) => page.byName.get(name));
    const unknown = names.find((name) => !page.byName.has(name));
    if (unknown !== undefined) {
      report({
        code: 'former-address-unknown',
        severity: 'error',
        message: `The former address names “${unknown}”, which the page does not declare today.`,
        hint: `Write it with today’s names. ${suggest(unknown, page.byName.keys())}`,
        pointer,
      });
      continue;
    }
    const claim: Claim = { page, path: path.filter((parameter) => parameter !== undefined), former: true };
    const rival = app.finder.claim(template, claim);
    if (rival !== undefined)
      report(formerTaken(`The former address of the page “${page.name}” belongs to the page “${rival.page.name}”.`, pointer));
  }
}

const formerTaken = (message: string, pointer: string): Problem => ({
  code: 'former-name-taken',
  severity: 'error',
  message,
  hint: 'Take it out: an address cannot mean both.',
  pointer,
  mend: [{ op: 'remove', path: pointer }],
});

function compilePage(name: string, declaration: AddressablePage, workshop: Workshop): CompiledPage | undefined {
  const { definition, report } = workshop;
  const addressPointer = toPointer(['pages', name, 'address']);
  const { template, problems: found } = parseTemplate(declaration.address);
  for (const problem of found) report({ ...problem, pointer: addressPointer });
  if (found.length > 0) return undefined;

  const page: CompiledPage = {
    name,
    template,
    parameters: [],
    byName: new Map(),
    path: [],
    query: [],
    queryIndex: new Map(),
    leavesAddress: false,
  };
  const add = (parameter: CompiledParameter | undefined) => {
    if (parameter === undefined) return false;
    page.parameters.push(parameter);
    page.byName.set(parameter.name, parameter);
    if (parameter.place === 'path') page.path.push(parameter);
    else page.queryIndex.set(parameter.name, page.query.push(parameter) - 1);
    page.leavesAddress ||= parameter.declaration.once === true || parameter.remembered;
    return true;
  };
  const declarations = declaration.parameters ?? {};
  reportStrays(name, declaration, template, report);

  const optionalPath = template.segments.find((segment) => 'parameter' in segment && segment.optional);
  const inPath = template.segments.flatMap((segment) => ('parameter' in segment ? [segment.parameter] : []));
  for (const parameterName of [...inPath, ...template.query]) {
    const place = inPath.includes(parameterName) ? 'path' : 'query';
    const given = Object.hasOwn(declarations, parameterName) ? declarations[parameterName] : undefined;
    const compiled = compileParameter(
      {
        page: name,
        name: parameterName,
        declaration: given ?? { type: 'text' },
        place,
        optional:
          place === 'query' || (optionalPath !== undefined && 'parameter' in optionalPath && optionalPath.parameter === parameterName),
        repeated: template.repeated.has(parameterName),
        ofApp: false,
      },
      { ...workshop, report: below(toPointer(['pages', name, 'parameters', parameterName]), addressPointer, report) },
    );
    if (!add(compiled)) return undefined;
  }
  for (const [parameterName, given] of Object.entries(definition.parameters ?? {})) {
    if (page.byName.has(parameterName)) {
      report({
        code: 'name-of-app',
        severity: 'error',
        message: `The app declares “${parameterName}” for every page, so the page “${name}” cannot declare it too.`,
        hint: 'Take one of the two out, or rename it.',
        pointer: toPointer(['pages', name, 'parameters', parameterName]),
      });
      continue;
    }
    // What is wrong with it is said once, for the app, and not again for each page.
    const silent =
      name === Object.keys(definition.pages)[0] ? below(toPointer(['parameters', parameterName]), '', report) : () => undefined;
    add(
      compileParameter(
        { page: name, name: parameterName, declaration: given, place: 'query', optional: true, repeated: false, ofApp: true },
        { ...workshop, report: silent },
      ),
    );
  }
  settleNeighbours(page, report);
  return page;
}

/** Declared but not in the template, and the other way round. */
function reportStrays(name: string, declaration: AddressablePage, template: AddressTemplate, report: Report): void {
  const addressPointer = toPointer(['pages', name, 'address']);
  const declared = Object.keys(declaration.parameters ?? {});
  const inTemplate = [...template.segments.flatMap((segment) => ('parameter' in segment ? [segment.parameter] : [])), ...template.query];
  for (const parameter of declared) {
    if (inTemplate.includes(parameter)) continue;
    const longer =
      template.query.length > 0 ? declaration.address.replace(/\}$/, `,${parameter}}`) : `${declaration.address}{?${parameter}}`;
    report({
      code: 'not-in-template',
      severity: 'error',
      message: `The parameter “${parameter}” has no place in the page’s address.`,
      hint: `Write the address as ${longer}`,
      pointer: toPointer(['pages', name, 'parameters', parameter]),
      mend: [{ op: 'replace', path: addressPointer, value: longer }],
    });
  }
  for (const parameter of inTemplate) {
    if (declared.includes(parameter)) continue;
    report({
      code: 'not-declared',
      severity: 'error',
      message: `The address names “${parameter}”, which the page does not declare.`,
      hint: 'Declare it under the page’s parameters.',
      pointer: addressPointer,
      mend: declaration.parameters
        ? [{ op: 'add', path: toPointer(['pages', name, 'parameters', parameter]), value: { type: 'text' } }]
        : [{ op: 'add', path: toPointer(['pages', name, 'parameters']), value: { [parameter]: { type: 'text' } } }],
    });
  }
}

/** What parameters say of one another: resets and former names. */
function settleNeighbours(page: CompiledPage, report: Report): void {
  for (const parameter of page.parameters) {
    const ofApp = parameter.carried || parameter.remembered;
    const pointer = ofApp ? toPointer(['parameters', parameter.name]) : toPointer(['pages', page.name, 'parameters', parameter.name]);
    for (const [index, other] of parameter.resets.entries()) {
      if (ofApp || (page.byName.has(other) && other !== parameter.name)) continue;
      report({
        code: 'unknown-reset',
        severity: 'error',
        message: `“${parameter.name}” resets “${other}”, which is not another parameter of the page.`,
        hint: suggest(
          other,
          [...page.byName.keys()].filter((candidate) => candidate !== parameter.name),
        ),
        pointer: `${pointer}/resets/${String(index)}`,
        ...mendTo(
          `${pointer}/resets/${String(index)}`,
          nearest(
            other,
            [...page.byName.keys()].filter((candidate) => candidate !== parameter.name),
          ),
        ),
      });
    }
    for (const [index, former] of (parameter.declaration.formerly ?? []).entries()) {
      const taken = page.byName.has(former) || page.queryIndex.has(former);
      if (!taken) {
        if (parameter.place === 'query') page.queryIndex.set(former, page.queryIndex.get(parameter.name) ?? 0);
      } else {
        report(
          formerTaken(
            `The former name “${former}” of “${parameter.name}” is in use on the page “${page.name}”.`,
            `${pointer}/formerly/${String(index)}`,
          ),
        );
      }
    }
  }
}

const mendTo = (path: string, value: string | undefined): Pick<Problem, 'mend'> =>
  value === undefined ? {} : { mend: [{ op: 'replace', path, value }] };

/** Reports a parameter's problem with its places told from the root of the app file. */
function below(pointer: string, addressPointer: string, report: Report): Report {
  return (problem) => {
    const mend = problem.mend?.map((operation) => ({ ...operation, path: pointer + operation.path }));
    const place = problem.pointer === '/address' ? addressPointer : pointer + (problem.pointer ?? '');
    report({ ...problem, pointer: place, ...(mend === undefined ? {} : { mend }) });
  };
}
