import { nearest } from '../near.ts';
import { DeclarationError, Refusal, type Codec, type ParameterTypes } from '../parameters/codec.ts';
import type { ParameterDeclaration, ParameterSurroundings } from '../parameters/declaration.ts';
import { isRelativeDate, resolveRelativeDate } from '../parameters/relative-date.ts';
import type { Problem } from '../problem.ts';
import type { CompiledParameter, Fallback } from './compiled-app.ts';
import { sealedCodec, type Seals } from './seals.ts';
import { encodeValue, valueFrom } from './value-text.ts';

/** Attributes that every type understands. */
const commonAttributes = new Set<string>([
  'type',
  'required',
  'default',
  'otherwise',
  'history',
  'resets',
  'reach',
  'once',
  'share',
  'formerly',
  'sample',
  'label',
  'help',
  'sealed',
]);

interface Given {
  page: string;
  name: string;
  declaration: ParameterDeclaration;
  place: 'path' | 'query';
  optional: boolean;
  repeated: boolean;
  /** Declared by the app, for every page. */
  ofApp: boolean;
}

interface Surroundings {
  types: ParameterTypes;
  seals: Seals | undefined;
  surroundings: ParameterSurroundings;
  today: () => string;
  report: (problem: Problem) => void;
}

/** Prepares one parameter. @returns undefined where it cannot work; why has been reported, with pointers below the declaration */
export function compileParameter(given: Given, { types, seals, surroundings, today, report }: Surroundings): CompiledParameter | undefined {
  const { name, declaration, place, optional, repeated, ofApp } = given;
  const type = types[declaration.type];
  let codec: Codec;
  try {
    if (type === undefined)
      throw new DeclarationError(
        'type',
        'type-not-loaded',
        `The type ${declaration.type} is not at hand.`,
        'Compile with the types of @pallmist/core.',
      );
    codec = sameShape(type.prepare(declaration, surroundings));
  } catch (error) {
    if (!(error instanceof DeclarationError)) throw error;
    report({
      code: error.code,
      severity: 'error',
      message: error.message,
      ...(error.hint === undefined ? {} : { hint: error.hint }),
      pointer: declaration[error.attribute] === undefined ? '' : `/${error.attribute}`,
      ...mendOf(declaration, error.code, surroundings),
    });
    return undefined;
  }
  for (const attribute of Object.keys(declaration) as (keyof ParameterDeclaration)[]) {
    if (commonAttributes.has(attribute) || type.attributes.includes(attribute) || declaration[attribute] === undefined) continue;
    report({
      code: 'attribute-without-effect',
      severity: 'error',
      message: `“${attribute}” says nothing about a ${declaration.type}.`,
      hint: `A ${declaration.type} understands: ${type.attributes.join(', ') || 'only what every parameter does'}.`,
      pointer: `/${attribute}`,
      mend: [{ op: 'remove', path: `/${attribute}` }],
    });
  }
  if (repeated && codec.several?.joins !== true) {
    report({
      code: 'repeated-single',
      severity: 'error',
      message: `The address repeats “${name}” (with “*”), which is no list.`,
      hint: 'Take the “*” out, or make it a list.',
      pointer: '/address',
    });
    return undefined;
  }
  const fallback = prepareFallback(declaration, codec, repeated, today, report);
  if (!isRelativeSample(declaration)) declaredValue('sample', declaration.sample, codec, declaration.type, report);
  reportContradictions(given, report);
  const isSealed = declaration.sealed !== undefined && declaration.sealed !== false;
  return {
    name,
    place,
    declaration,
    codec: isSealed ? sameShape(sealedCodec(codec, seals, given.page, name)) : codec,
    plain: codec,
    sealed: isSealed,
    repeated: repeated && !isSealed,
    required: !optional || (declaration.required === true && fallback === undefined),
    fallback,
    refuses: declaration.otherwise === 'refuse' || !optional,
    resets: declaration.resets ?? [],
    step: declaration.history !== 'replace',
    carried: ofApp && declaration.reach !== 'visit',
    remembered: ofApp && declaration.reach === 'visit',
  };
}

/** A misspelt choices list or collection is mended by the name that was meant. */
function mendOf({ of = '' }: ParameterDeclaration, code: string, { choices, collections }: ParameterSurroundings): Pick<Problem, 'mend'> {
  const among = code === 'unknown-choices' ? choices : code === 'unknown-collection' ? collections : {};
  const near = nearest(of, Object.keys(among));
  return near === undefined ? {} : { mend: [{ op: 'replace', path: '/of', value: near }] };
}

/** Gives every codec the same hidden shape: reading calls them in turn, and V8 is quicker when they look alike. */
function sameShape({ read, write, readsBlank, several }: Codec): Codec {
  return { read, write, readsBlank: readsBlank === true, several };
}

const isRelativeSample = ({ type, sample }: ParameterDeclaration) => type === 'date' && isRelativeDate(sample);

function reportContradictions({ name, declaration, place, optional, ofApp }: Given, report: Surroundings['report']): void {
  const contradict = (
    attribute: keyof ParameterDeclaration,
    code: string,
    severity: Problem['severity'],
    message: string,
    hint: string,
  ) => {
    report({ code, severity, message, hint, pointer: `/${attribute}`, mend: [{ op: 'remove', path: `/${attribute}` }] });
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
    for (const attribute of ['once', 'share', 'formerly'] as const) {
      if (declaration[attribute] === undefined) continue;
      contradict(
        attribute,
        `${attribute}-in-path`,
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
  codec: Codec,
  repeated: boolean,
  today: () => string,
  report: Surroundings['report'],
): CompiledParameter['fallback'] {
  const { default: given, type } = declaration;
  if (type === 'date' && isRelativeDate(given)) {
    let settled: { day: string; fallback: Fallback | undefined } | undefined;
    return () => {
      const day = today();
      if (settled?.day !== day) {
        const value = resolveRelativeDate(given, day);
        // Beyond its limits it is no default; the days between are.
        const text = value === undefined ? undefined : codec.write(value);
        settled = { day, fallback: value === undefined || typeof text !== 'string' ? undefined : { value, text } };
      }
      return settled.fallback;
    };
  }
  const value = declaredValue('default', given, codec, type, report);
  if (value === undefined) return undefined;
  const fallback: Fallback = { value: value.value, text: encodeValue(codec, repeated, value.value) as string };
  return () => fallback;
}

/** Reads a default or a sample: either the value itself or, as people write it in YAML, its text in an address. */
function declaredValue(
  attribute: 'default' | 'sample',
  given: unknown,
  codec: Codec,
  type: string,
  report: Surroundings['report'],
): { value: Fallback['value'] } | undefined {
  if (given === undefined) return undefined;
  const value = valueFrom(given, codec);
  const refused = value instanceof Refusal ? value : codec.write(value);
  if (!(value instanceof Refusal) && !(refused instanceof Refusal)) return { value };
  report({
    code: `bad-${attribute}`,
    severity: 'error',
    message: `The ${attribute} ${JSON.stringify(given)} is not a ${type} that the parameter accepts.`,
    hint: (refused as Refusal).message,
    pointer: `/${attribute}`,
    mend: [{ op: 'remove', path: `/${attribute}` }],
  });
  return undefined;
}
