import { nearest } from '../explain/near.ts';
import { joinItems } from '../joins.ts';
import { presentDay } from '../pages/call-context.ts';
import type { CompiledParameter } from '../pages/compiled-app.ts';
import { withFormerValues } from './former-values.ts';
import { withGoneValues } from './gone-values.ts';
import { sealedParameter, type Names } from '../pages/seals.ts';
import { lastRefusal, Refusal, valueFrom } from '../pages/value-text.ts';
import type { CommonOptions, Parameter } from '../parameter.ts';
import type { ParameterDeclaration, ParameterValue } from './declaration.ts';
import { DeclarationError, type CompileContext } from './declared-type.ts';
import { withArticle, type Problem } from './problem.ts';
import { isRelativeDate, resolveRelativeDate } from './relative-date.ts';

/** Attributes that every type understands. */
const commonAttributes = new Set<string>([
  'type',
  'required',
  'default',
  'ifWrong',
  'step',
  'resets',
  'reach',
  'once',
  'share',
  'formerNames',
  'formerValues',
  'goneValues',
  'inNewLinks',
  'lasting',
  'sample',
  'label',
  'help',
  'sealed',
]);

interface Given {
  /** The page's names. */
  page: Names;
  name: string;
  declaration: ParameterDeclaration;
  place: 'path' | 'query';
  optional: boolean;
  repeated: boolean;
  /** Declared by the app, for every page. */
  ofApp: boolean;
}

interface Compiling {
  compileContext: CompileContext;
  report: (problem: Problem) => void;
}

/** Prepares one parameter. @returns undefined where it cannot work; why has been reported, with pointers below the declaration */
export function compileParameter(given: Given, { compileContext, report }: Compiling): CompiledParameter | undefined {
  const { name, declaration, place, optional, repeated, ofApp } = given;
  const type = compileContext.types[declaration.type];
  let plain: Parameter;
  try {
    if (type === undefined)
      throw new DeclarationError(
        'type',
        'type-not-loaded',
        `The type ${declaration.type} is not at hand.`,
        'Compile with the types of @pallmist/app.',
      );
    plain = type.make(declaration, compileContext);
  } catch (error) {
    if (!(error instanceof DeclarationError)) throw error;
    report({
      code: error.code,
      severity: 'error',
      message: error.message,
      ...(error.hint === undefined ? {} : { hint: error.hint }),
      pointer: declaration[error.attribute] === undefined ? '' : `/${error.attribute}`,
      ...fixOf(declaration, error.code, compileContext),
    });
    return undefined;
  }
  for (const attribute of Object.keys(declaration) as (keyof ParameterDeclaration)[]) {
    if (commonAttributes.has(attribute) || type.attributes.includes(attribute) || declaration[attribute] === undefined) continue;
    report({
      code: 'attribute-without-effect',
      severity: 'error',
      message: `“${attribute}” says nothing about ${withArticle(declaration.type)}.`,
      hint: `${withArticle(declaration.type).replace('a', 'A')} understands: ${type.attributes.join(', ') || 'only what every parameter does'}.`,
      pointer: `/${attribute}`,
      fix: [{ op: 'remove', path: `/${attribute}` }],
    });
  }
  if (repeated && plain.joins !== joinItems) {
    report({
      code: 'repeated-single',
      severity: 'error',
      message: `The address repeats “${name}” (with “*”), which is no list.`,
      hint: 'Take the “*” out, or make it a list.',
      pointer: '/address',
    });
    return undefined;
  }
  plain = withGoneValues(withFormerValues(plain, declaration.formerValues, report), declaration, report);
  const fallback = prepareFallback(declaration, plain, report);
  const inNewLinks = declaredValue('inNewLinks', declaration.inNewLinks, plain, declaration.type, report);
  if (!isRelativeSample(declaration)) declaredValue('sample', declaration.sample, plain, declaration.type, report);
  reportContradictions(given, report);
  const isSealed = declaration.sealed !== undefined && declaration.sealed !== false;
  return {
    name,
    place,
    declaration,
    parameter: {
      ...(isSealed ? sealedParameter(plain, given.page, [name, ...(declaration.formerNames ?? [])]) : plain),
      options: { ...(declaration as CommonOptions<unknown>), default: fallback },
    },
    plain,
    sealed: isSealed,
    required: !optional || (declaration.required === true && fallback === undefined),
    fallback: typeof fallback === 'function' ? fallback : fallback === undefined ? undefined : () => fallback,
    refuses: declaration.ifWrong === 'refuse' || !optional,
    inNewLinks,
    resets: declaration.resets ?? [],
    step: declaration.step !== false,
    carried: ofApp && declaration.reach !== 'visit',
    remembered: ofApp && declaration.reach === 'visit',
  };
}

/** A misspelt choices list or collection is fixed by the name that was meant. */
function fixOf({ of = '' }: ParameterDeclaration, code: string, { choices, collections }: CompileContext): Pick<Problem, 'fix'> {
  const among = code === 'unknown-choices' ? choices : code === 'unknown-collection' ? collections : {};
  const near = nearest(of, Object.keys(among));
  return near === undefined ? {} : { fix: [{ op: 'replace', path: '/of', value: near }] };
}

const isRelativeSample = ({ type, sample }: ParameterDeclaration) => type === 'date' && isRelativeDate(sample);

function reportContradictions({ name, declaration, place, optional, ofApp }: Given, report: Compiling['report']): void {
  const contradict = (
    attribute: keyof ParameterDeclaration,
    code: string,
    severity: Problem['severity'],
    message: string,
    hint: string,
  ) => {
    report({ code, severity, message, hint, pointer: `/${attribute}`, fix: [{ op: 'remove', path: `/${attribute}` }] });
  };
  if (declaration.reach !== undefined && (declaration.reach === 'page') === ofApp) {
    const hint = ofApp
      ? 'Declare it on the page, or take “reach” out.'
      : 'Declare it once under the app’s own parameters: then every page has it.';
    contradict(
      'reach',
      'reach-elsewhere',
      'error',
      `“${name}” cannot reach ${ofApp ? 'one page' : 'beyond its page'} from where it is declared.`,
      hint,
    );
  }
  if (declaration.required === true && declaration.default !== undefined) {
    contradict(
      'required',
      'required-with-default',
      'warning',
      `“${name}” is required and yet has a default, so it is never missing.`,
      'Leave out one of the two.',
    );
  }
  if (declaration.sealed !== undefined && declaration.sealed !== false && declaration.default !== undefined) {
    contradict(
      'default',
      'default-of-sealed',
      'error',
      `“${name}” is sealed, so an address without it would tell that it has its default.`,
      'Take the default out, or the seal.',
    );
  }
  if (declaration.reach === 'visit' && declaration.once === true) {
    contradict('once', 'once-and-visit', 'warning', `“${name}” leaves the address anyway, to be remembered.`, 'Leave “once” out.');
  }
  if (!optional && declaration.default !== undefined) {
    contradict(
      'default',
      'default-in-path',
      'error',
      `“${name}” always stands in the path, so its default can never be used.`,
      'Make it the optional last segment, {/name}, or take the default out.',
    );
  }
  if (place === 'path') {
    for (const attribute of ['once', 'share', 'formerNames', 'inNewLinks'] as const) {
      if (declaration[attribute] === undefined) continue;
      contradict(
        attribute,
        `${attribute.replaceAll(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)}-in-path`,
        'error',
        `“${name}” stands in the path, where “${attribute}” has no meaning.`,
        'Move it to the query, or take the attribute out.',
      );
    }
  }
}

/** Settles the default: once, or, where it is relative to today, whenever it is asked for. */
function prepareFallback(
  declaration: ParameterDeclaration,
  plain: Parameter,
  report: Compiling['report'],
): ParameterValue | (() => ParameterValue | undefined) | undefined {
  const { default: given, type } = declaration;
  if (type !== 'date' || !isRelativeDate(given)) return declaredValue('default', given, plain, type, report);
  let settled: { day: string; value: string | undefined } | undefined;
  return () => {
    const day = presentDay();
    if (settled?.day !== day) {
      const value = resolveRelativeDate(given, day);
      // Beyond its limits it is no default; the days between are.
      settled = { day, value: value === undefined || plain.write(value) === undefined ? undefined : value };
    }
    return settled.value;
  };
}

/** Reads a default or a sample: either the value itself or, as people write it in YAML, its text in an address. */
function declaredValue(
  attribute: 'default' | 'sample' | 'inNewLinks',
  given: unknown,
  plain: Parameter,
  type: string,
  report: Compiling['report'],
): ParameterValue | undefined {
  if (given === undefined) return undefined;
  const value = valueFrom(given, plain);
  if (!(value instanceof Refusal) && plain.write(value) !== undefined) return value;
  report({
    code: attribute === 'inNewLinks' ? 'bad-in-new-links' : `bad-${attribute}`,
    severity: 'error',
    message: `The ${attribute === 'inNewLinks' ? 'value for new links' : attribute} ${JSON.stringify(given)} is not ${withArticle(type)} that the parameter accepts.`,
    hint: (value instanceof Refusal ? value : lastRefusal()).message,
    pointer: `/${attribute}`,
    fix: [{ op: 'remove', path: `/${attribute}` }],
  });
  return undefined;
}
