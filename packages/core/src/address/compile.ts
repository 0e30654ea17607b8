import { suggest } from '../near.ts';
import { Corrected, DeclarationError, Refusal, type Codec } from '../parameters/codec.ts';
import type { ParameterDeclaration, ParameterSurroundings, ParameterValue } from '../parameters/declaration.ts';
import { parameterTypes } from '../parameters/types/index.ts';
import { toPointer, type Problem } from '../problem.ts';
import type { AddressableApp, AddressablePage, CompiledApp, CompiledPage, CompiledParameter } from './compiled-app.ts';
import { PageFinder } from './page-finder.ts';
import { parseTemplate } from './template.ts';

/** Attributes that every type understands. */
const commonAttributes = new Set<string>([
  'type',
  'required',
  'default',
  'otherwise',
  'history',
  'resets',
  'share',
  'formerly',
  'sample',
  'label',
  'help',
]);

/**
 * Prepares an app's addresses for reading and writing.
 * @returns the app without the pages that cannot work, and a problem for each thing that is wrong
 */
export function compileApp(definition: AddressableApp): { app: CompiledApp; problems: Problem[] } {
  const problems: Problem[] = [];
  const surroundings: ParameterSurroundings = {
    choices: definition.choices ?? {},
    collections: definition.collections ?? {},
  };
  const app: CompiledApp = {
    name: definition.app,
    mount: definition.mount === '/' ? '' : definition.mount,
    pages: new Map(),
    finder: new PageFinder(),
  };
  for (const [name, declaration] of Object.entries(definition.pages)) {
    const page = compilePage(name, declaration, surroundings, problems);
    if (page === undefined) continue;
    app.pages.set(name, page);
    const rival = app.finder.claim(page.template, page);
    if (rival !== undefined) {
      problems.push({
        code: 'address-taken',
        severity: 'error',
        message: `The pages “${rival.name}” and “${name}” claim the same address.`,
        hint: 'Give one of them a segment of its own.',
        pointer: toPointer(['pages', name, 'address']),
      });
    }
  }
  return { app, problems };
}

function compilePage(
  name: string,
  declaration: AddressablePage,
  surroundings: ParameterSurroundings,
  problems: Problem[],
): CompiledPage | undefined {
  const { template, problems: found } = parseTemplate(declaration.address);
  const addressPointer = toPointer(['pages', name, 'address']);
  problems.push(...found.map((problem) => ({ ...problem, pointer: addressPointer })));
  if (found.length > 0) return undefined;

  const declarations = declaration.parameters ?? {};
  const optionalPath = new Set<string>();
  const pathNames: string[] = [];
  for (const segment of template.segments) {
    if ('literal' in segment) continue;
    pathNames.push(segment.parameter);
    if (segment.optional) optionalPath.add(segment.parameter);
  }
  const inTemplate = [...pathNames, ...template.query];
  for (const parameter of Object.keys(declarations)) {
    if (inTemplate.includes(parameter)) continue;
    const longer =
      template.query.length > 0 ? declaration.address.replace(/\}$/, `,${parameter}}`) : `${declaration.address}{?${parameter}}`;
    problems.push({
      code: 'not-in-template',
      severity: 'error',
      message: `The parameter “${parameter}” has no place in the page’s address.`,
      hint: `Write the address as ${longer}`,
      pointer: toPointer(['pages', name, 'parameters', parameter]),
      mend: [{ op: 'replace', path: addressPointer, value: longer }],
    });
  }

  const page: CompiledPage = { name, template, parameters: [], byName: new Map(), path: [], query: [], queryIndex: new Map() };
  for (const parameterName of inTemplate) {
    const inPath = pathNames.includes(parameterName);
    const given = Object.hasOwn(declarations, parameterName) ? declarations[parameterName] : undefined;
    if (given === undefined) {
      problems.push({
        code: 'not-declared',
        severity: 'error',
        message: `The address names “${parameterName}”, which the page does not declare.`,
        hint: 'Declare it under the page’s parameters.',
        pointer: addressPointer,
        mend: declaration.parameters
          ? [{ op: 'add', path: toPointer(['pages', name, 'parameters', parameterName]), value: { type: 'text' } }]
          : [{ op: 'add', path: toPointer(['pages', name, 'parameters']), value: { [parameterName]: { type: 'text' } } }],
      });
    }
    const compiled = compileParameter(
      parameterName,
      given ?? { type: 'text' },
      inPath,
      optionalPath.has(parameterName),
      surroundings,
      (problem) => problems.push(below(toPointer(['pages', name, 'parameters', parameterName]), problem)),
    );
    if (compiled === undefined) return undefined;
    page.parameters.push(compiled);
    page.byName.set(parameterName, compiled);
    if (inPath) page.path.push(compiled);
    else page.queryIndex.set(parameterName, page.query.push(compiled) - 1);
  }
  for (const parameter of page.parameters) {
    const pointer = toPointer(['pages', name, 'parameters', parameter.name]);
    for (const [index, other] of parameter.resets.entries()) {
      if (page.byName.has(other) && other !== parameter.name) continue;
      problems.push({
        code: 'unknown-reset',
        severity: 'error',
        message: `“${parameter.name}” resets “${other}”, which is not another parameter of the page.`,
        hint: suggest(
          other,
          inTemplate.filter((candidate) => candidate !== parameter.name),
        ),
        pointer: `${pointer}/resets/${String(index)}`,
      });
    }
    for (const [index, former] of (parameter.declaration.formerly ?? []).entries()) {
      const taken = page.byName.has(former) || page.queryIndex.has(former);
      if (!taken && parameter.place === 'query') {
        page.queryIndex.set(former, page.queryIndex.get(parameter.name) ?? 0);
      } else if (taken) {
        problems.push({
          code: 'former-name-taken',
          severity: 'error',
          message: `The former name “${former}” of “${parameter.name}” is in use on this page.`,
          hint: 'Take it out: an address with that name cannot mean both.',
          pointer: `${pointer}/formerly/${String(index)}`,
          mend: [{ op: 'remove', path: `${pointer}/formerly/${String(index)}` }],
        });
      }
    }
  }
  return page;
}

/** A parameter's problem, with its places told from the root of the app file. */
function below(pointer: string, problem: Problem): Problem {
  const mend = problem.mend?.map((operation) => ({ ...operation, path: pointer + operation.path }));
  return { ...problem, pointer: pointer + (problem.pointer ?? ''), ...(mend === undefined ? {} : { mend }) };
}

type Report = (problem: Problem) => void;

function compileParameter(
  name: string,
  declaration: ParameterDeclaration,
  inPath: boolean,
  optional: boolean,
  surroundings: ParameterSurroundings,
  report: Report,
): CompiledParameter | undefined {
  const type = parameterTypes[declaration.type];
  let codec: Codec;
  try {
    codec = type.prepare(declaration, surroundings);
  } catch (error) {
    if (!(error instanceof DeclarationError)) throw error;
    report({
      code: error.code,
      severity: 'error',
      message: error.message,
      ...(error.hint === undefined ? {} : { hint: error.hint }),
      pointer: declaration[error.attribute] === undefined ? '' : `/${error.attribute}`,
    });
    return undefined;
  }
  for (const attribute of Object.keys(declaration)) {
    if (commonAttributes.has(attribute) || type.attributes.includes(attribute as keyof ParameterDeclaration)) continue;
    if (declaration[attribute as keyof ParameterDeclaration] === undefined) continue;
    report({
      code: 'attribute-without-effect',
      severity: 'error',
      message: `“${attribute}” says nothing about a ${declaration.type}.`,
      hint: `A ${declaration.type} understands: ${type.attributes.join(', ') || 'only what every parameter does'}.`,
      pointer: `/${attribute}`,
      mend: [{ op: 'remove', path: `/${attribute}` }],
    });
  }
  const fallback = declaredValue('default', declaration.default, codec, declaration.type, report);
  declaredValue('sample', declaration.sample, codec, declaration.type, report);
  if (declaration.required === true && declaration.default !== undefined) {
    report({
      code: 'required-with-default',
      severity: 'warning',
      message: `“${name}” is required and yet has a default, so it is never missing.`,
      hint: 'Leave out one of the two.',
      pointer: '/required',
    });
  }
  if (inPath && !optional && declaration.default !== undefined) {
    report({
      code: 'default-in-path',
      severity: 'error',
      message: `“${name}” always stands in the path, so its default can never be used.`,
      hint: 'Make it the optional last segment, {/name}, or take the default out.',
      pointer: '/default',
      mend: [{ op: 'remove', path: '/default' }],
    });
  }
  return {
    name,
    place: inPath ? 'path' : 'query',
    declaration,
    codec,
    required: (inPath && !optional) || (declaration.required === true && fallback === undefined),
    default: fallback?.value,
    defaultText: fallback?.text,
    refuses: declaration.otherwise === 'refuse' || (inPath && !optional),
    resets: declaration.resets ?? [],
    step: declaration.history !== 'replace',
  };
}

/** Reads a default or a sample: either the value itself or, as people write it in YAML, its text in an address. */
function declaredValue(
  attribute: 'default' | 'sample',
  given: unknown,
  codec: Codec,
  type: string,
  report: Report,
): { value: ParameterValue; text: string } | undefined {
  if (given === undefined) return undefined;
  const value = readDeclared(given, codec);
  const text = value instanceof Refusal ? value : codec.write(value);
  if (!(value instanceof Refusal) && !(text instanceof Refusal)) return { value, text };
  report({
    code: `bad-${attribute}`,
    severity: 'error',
    message: `The ${attribute} ${JSON.stringify(given)} is not a ${type} that the parameter accepts.`,
    hint: (value instanceof Refusal ? value : (text as Refusal)).message,
    pointer: `/${attribute}`,
    mend: [{ op: 'remove', path: `/${attribute}` }],
  });
  return undefined;
}

function readDeclared(given: unknown, codec: Codec): ParameterValue | Refusal {
  if (typeof given !== 'string') {
    const refused = codec.write(given);
    return refused instanceof Refusal ? refused : (given as ParameterValue);
  }
  if (given === '' && codec.readsBlank !== true) return new Refusal('blank', 'It is empty.');
  const value = codec.read(given);
  return value instanceof Corrected ? value.value : value;
}
