import { nearest, suggest } from '../explain/near.ts';
import { enterCall, type CallContext } from '../pages/call-context.ts';
import type {
  AddressableApp,
  AddressablePage,
  Claim,
  CompiledApp,
  CompiledPage,
  CompiledParameter,
  GoneClaim,
} from '../pages/compiled-app.ts';
import { PageFinder } from '../pages/page-finder.ts';
import { makeTemplate } from '../template.ts';
import { lastRefusal, Refusal, valueFrom } from '../pages/value-text.ts';
import { compileParameter } from './compile-parameter.ts';
import type { DeclaredTypes, CompileContext } from './declared-type.ts';
import { formatTemplate, parseTemplate, type AddressTemplate } from './parse-template.ts';
import { quote, toPointer, type Problem } from './problem.ts';
import { todayIn } from './relative-date.ts';
import { parameterTypes } from './types.ts';

export interface CompileOptions {
  /** The types of parameters; those that need no other package when left out. */
  types?: DeclaredTypes;
  /** Today's date, YYYY-MM-DD; by the clock and the app's time zone when left out. */
  today?: () => string;
}

type Report = (problem: Problem) => void;

/** What compiling each page needs. */
interface CompileState {
  definition: AddressableApp;
  mount: string;
  compileContext: CompileContext;
  report: Report;
}

/**
 * Prepares an app's addresses for reading and writing.
 * @returns the app without the pages that cannot work, and a problem for each thing that is wrong
 */
export function compileApp(definition: AddressableApp, options: CompileOptions = {}): { app: CompiledApp; problems: Problem[] } {
  const problems: Problem[] = [];
  const mount = definition.mount === '/' ? '' : definition.mount;
  const context: CompileState = {
    definition,
    mount,
    compileContext: {
      choices: definition.choices ?? {},
      collections: definition.collections ?? {},
      pages: Object.keys(definition.pages),
      timeZone: definition.timeZone,
      types: options.types ?? parameterTypes,
    },
    report: (problem) => problems.push(problem),
  };
  const app: CompiledApp = {
    name: definition.app,
    mount,
    formerMounts: (definition.formerMounts ?? []).map((one) => (one === '/' ? '' : one)),
    pages: new Map(),
    formerPages: new Map(),
    finder: new PageFinder(),
    gone: definition.gone ?? [],
    context: { today: options.today ?? (() => todayIn(definition.timeZone ?? 'UTC', Date.now())) },
  };
  enterCall(app);
  const former: { page: CompiledPage; declaration: AddressablePage }[] = [];
  for (const [name, declaration] of Object.entries(definition.pages)) {
    const page = compilePage(name, declaration, context);
    if (page === undefined) continue;
    app.pages.set(name, page);
    const rival = app.finder.claim(page.template, { page, path: page.path.map((parameter) => parameter.name), former: false });
    if (rival !== undefined && 'page' in rival) {
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
  for (const { page, declaration } of former) keepFormer(app, page, declaration, context);
  for (const [index, { address }] of app.gone.entries()) keepGone(app, index, address, context);
  return { app, problems };
}

/** Keeps the names and addresses that a page had in the past. */
function keepFormer(app: CompiledApp, page: CompiledPage, declaration: AddressablePage, { definition, report }: CompileState): void {
  for (const [index, name] of (declaration.formerNames ?? []).entries()) {
    const pointer = toPointer(['pages', page.name, 'formerNames', index]);
    const holder = Object.hasOwn(definition.pages, name) ? name : app.formerPages.get(name)?.name;
    if (holder === undefined) app.formerPages.set(name, page);
    else report(formerTaken(`The former name “${name}” of the page “${page.name}” belongs to the page “${holder}”.`, pointer));
  }
  for (const [index, given] of (declaration.formerAddresses ?? []).entries()) {
    const pointer = toPointer(['pages', page.name, 'formerAddresses', index]);
    const [text, values] = typeof given === 'string' ? [given, {}] : [given.address, given.values];
    const { template, problems } = parseTemplate(text);
    for (const problem of problems) report({ ...problem, pointer });
    if (problems.length > 0) continue;
    const names = template.segments.flatMap((segment) => ('parameter' in segment ? [segment.parameter] : []));
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
    const implied = impliedTexts(page, values, pointer, report);
    const said = new Set([...names, ...template.query, ...Object.keys(implied)]);
    const lost = page.path.find((parameter) => parameter.required && !said.has(parameter.name));
    if (lost !== undefined)
      report({
        code: 'former-address-incomplete',
        severity: 'error',
        message: `The former address does not say what “${lost.name}” is, without which there is no page.`,
        hint: `Write it as the address was, with {${lost.name}} or {?${lost.name}} where its value stood.`,
        pointer,
      });
    const claim: Claim = { page, path: names, former: true, ...(Object.keys(implied).length > 0 ? { implied } : {}) };
    const rival = app.finder.claim(template, claim);
    if (rival !== undefined && 'page' in rival)
      report(formerTaken(`The former address of the page “${page.name}” belongs to the page “${rival.page.name}”.`, pointer));
  }
}

/** The texts of the values that a former address implies. */
function impliedTexts(
  page: CompiledPage,
  values: Readonly<Record<string, unknown>>,
  pointer: string,
  report: Report,
): Record<string, string> {
  const texts: Record<string, string> = {};
  for (const [name, given] of Object.entries(values)) {
    const parameter = page.byName.get(name);
    const value = parameter && valueFrom(given, parameter.plain);
    const text = value === undefined || value instanceof Refusal ? undefined : parameter?.plain.write(value);
    if (parameter !== undefined && !parameter.sealed && text !== undefined) texts[name] = text;
    else
      report({
        code: 'former-address-value',
        severity: 'error',
        message:
          parameter === undefined
            ? `The former address of “${page.name}” implies a value for “${name}”, which the page does not declare.`
            : parameter.sealed
              ? `The former address of “${page.name}” implies a value for “${name}”, which is sealed and never stands readable in a file.`
              : `The former address of “${page.name}” implies ${quote(given)} for “${name}”, which the parameter does not accept.`,
        hint: parameter === undefined ? suggest(name, page.byName.keys()) : lastRefusal().message,
        pointer: `${pointer}/values/${name}`,
      });
  }
  return texts;
}

/** Keeps an address that is gone from being taken. */
function keepGone(app: CompiledApp, index: number, address: string, { report }: CompileState): void {
  const pointer = toPointer(['gone', index, 'address']);
  const { template, problems } = parseTemplate(address);
  for (const problem of problems) report({ ...problem, pointer });
  const claim: GoneClaim = { gone: index };
  const rival = problems.length > 0 ? undefined : app.finder.claim({ ...template, query: [] }, claim);
  if (rival === undefined) return;
  report({
    code: 'gone-address-taken',
    severity: 'error',
    message:
      'gone' in rival
        ? `The address ${quote(address)} is declared as gone twice.`
        : `The address ${quote(address)} is declared as gone, and the page “${rival.page.name}” has it.`,
    hint: 'gone' in rival ? 'Remove one of the two.' : 'Give the page another address: people who follow an old link must not land on it.',
    pointer,
  });
}

const formerTaken = (message: string, pointer: string): Problem => ({
  code: 'former-name-taken',
  severity: 'error',
  message,
  hint: 'Take it out: an address cannot mean both.',
  pointer,
  fix: [{ op: 'remove', path: pointer }],
});

function compilePage(name: string, declaration: AddressablePage, context: CompileState): CompiledPage | undefined {
  const { definition, report } = context;
  const addressPointer = toPointer(['pages', name, 'address']);
  const { template, problems: found } = parseTemplate(declaration.address);
  for (const problem of found) report({ ...problem, pointer: addressPointer });
  if (found.length > 0) return undefined;

  const page: Omit<CompiledPage, 'page'> = {
    name,
    template,
    parameters: [],
    byName: new Map(),
    path: [],
    query: [],
    leavesAddress: false,
  };
  const add = (parameter: CompiledParameter | undefined) => {
    if (parameter === undefined) return false;
    page.parameters.push(parameter);
    page.byName.set(parameter.name, parameter);
    if (parameter.place === 'path') page.path.push(parameter);
    else page.query.push(parameter);
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
        page: [name, ...(declaration.formerNames ?? [])],
        name: parameterName,
        declaration: given ?? { type: 'text' },
        place,
        optional:
          place === 'query' || (optionalPath !== undefined && 'parameter' in optionalPath && optionalPath.parameter === parameterName),
        repeated: template.repeated.has(parameterName),
        ofApp: false,
      },
      { ...context, report: below(toPointer(['pages', name, 'parameters', parameterName]), addressPointer, report) },
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
        {
          page: [name, ...(declaration.formerNames ?? [])],
          name: parameterName,
          declaration: given,
          place: 'query',
          optional: true,
          repeated: false,
          ofApp: true,
        },
        { ...context, report: silent },
      ),
    );
  }
  settleNeighbours(page, report);
  const parameters = Object.fromEntries(page.parameters.map(({ name: parameter, parameter: read }) => [parameter, read]));
  // With the app's own parameters. What is sealed is one text, also where a list would be repeated.
  const whole = formatTemplate({
    segments: template.segments,
    query: page.query.map((parameter) => parameter.name),
    repeated: new Set([...template.repeated].filter((repeated) => page.byName.get(repeated)?.sealed === false)),
  });
  return { ...page, page: makeTemplate(whole, parameters, context.mount) };
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
      fix: [{ op: 'replace', path: addressPointer, value: longer }],
    });
  }
  for (const parameter of inTemplate) {
    if (declared.includes(parameter)) continue;
    report({
      code: 'undeclared',
      severity: 'error',
      message: `The address names “${parameter}”, which the page does not declare.`,
      hint: 'Declare it under the page’s parameters.',
      pointer: addressPointer,
      fix: declaration.parameters
        ? [{ op: 'add', path: toPointer(['pages', name, 'parameters', parameter]), value: { type: 'text' } }]
        : [{ op: 'add', path: toPointer(['pages', name, 'parameters']), value: { [parameter]: { type: 'text' } } }],
    });
  }
}

/** What parameters say of one another: resets and former names. */
function settleNeighbours(page: Omit<CompiledPage, 'page'>, report: Report): void {
  const formerNames = new Set<string>();
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
        ...fixTo(
          `${pointer}/resets/${String(index)}`,
          nearest(
            other,
            [...page.byName.keys()].filter((candidate) => candidate !== parameter.name),
          ),
        ),
      });
    }
    for (const [index, former] of (parameter.declaration.formerNames ?? []).entries()) {
      if (!page.byName.has(former) && !formerNames.has(former)) formerNames.add(former);
      else
        report(
          formerTaken(
            `The former name “${former}” of “${parameter.name}” is in use on the page “${page.name}”.`,
            `${pointer}/formerNames/${String(index)}`,
          ),
        );
    }
  }
}

const fixTo = (path: string, value: string | undefined): Pick<Problem, 'fix'> =>
  value === undefined ? {} : { fix: [{ op: 'replace', path, value }] };

/** Reports a parameter's problem with its places told from the root of the app file. */
function below(pointer: string, addressPointer: string, report: Report): Report {
  return (problem) => {
    const fix = problem.fix?.map((operation) => ({ ...operation, path: pointer + operation.path }));
    const place = problem.pointer === '/address' ? addressPointer : pointer + (problem.pointer ?? '');
    report({ ...problem, pointer: place, ...(fix === undefined ? {} : { fix }) });
  };
}

/** The same app for calls that know other sealed values, or another day: nothing is compiled again. */
export const withContext = (app: CompiledApp, context: Partial<CallContext>): CompiledApp => ({
  ...app,
  context: { ...app.context, ...context },
});
