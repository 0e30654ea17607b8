import { suggest } from '../../near.ts';
import { Refusal } from '../../parameters/codec.ts';
import { toPointer } from '../../problem.ts';
import { valueFrom } from '../../address/value-text.ts';
import { parameterScopeType } from '../../expressions/page-scope.ts';
import type { ParameterDeclaration } from '../../parameters/declaration.ts';
import { display } from '../../expressions/evaluator.ts';
import type { CompiledPage } from '../../address/compiled-app.ts';
import type { PageDefinition } from '../app-schema.ts';
import type { LinkDefinition } from '../schema-parts.ts';
import { report, type CheckContext, type Place } from './context.ts';
import { mendKey, mendName } from './mend-name.ts';
import type { ScopeCheck } from './expressions.ts';

/** The CEL type that a parameter takes, beside `dyn`; undefined where the check at run time has to do. */
function celTypeOf(declaration: ParameterDeclaration): string | undefined {
  const type = parameterScopeType(declaration);
  if (typeof type === 'string') return type === 'dyn' ? undefined : type;
  return undefined;
}

/** A link: its page is there, sends what the page requires, nothing that it does not know, and the right types. */
export function checkLink(context: CheckContext, place: Place, link: LinkDefinition, scope: ScopeCheck, from?: PageDefinition): void {
  const values = link.values ?? {};
  const target = context.compiled.pages.get(link.page);
  if (target === undefined) {
    for (const [name, value] of Object.entries(values)) scope.value([...place, 'values', name], value);
    // A page that is there but did not compile has its own problem already.
    if (Object.hasOwn(context.definition.pages, link.page)) return;
    report(context, [...place, 'page'], {
      code: 'unknown-page',
      message: `There is no page “${link.page}”.`,
      hint: suggest(link.page, Object.keys(context.definition.pages)),
      ...mendName([...place, 'page'], link.page, Object.keys(context.definition.pages)),
    });
    return;
  }
  checkCarry(context, [...place, 'carry'], link.carry);
  const keeps = checkKeep(context, place, link, target, from);
  for (const parameter of target.parameters) {
    if (!parameter.required || Object.hasOwn(values, parameter.name) || keeps.includes(parameter.name)) continue;
    report(context, place, {
      code: 'link-misses',
      message: `The link to “${link.page}” lacks “${parameter.name}”, which that page requires.`,
      hint: `Give it under “values”.`,
      ...(parameter.declaration.sample === undefined
        ? {}
        : {
            mend: [
              link.values === undefined
                ? { op: 'add', path: toPointer([...place, 'values']), value: { [parameter.name]: parameter.declaration.sample } }
                : { op: 'add', path: toPointer([...place, 'values', parameter.name]), value: parameter.declaration.sample },
            ],
          }),
    });
  }
  for (const [name, value] of Object.entries(values)) {
    const at = [...place, 'values', name];
    const type = scope.value(at, value);
    const parameter = target.byName.get(name);
    if (parameter === undefined) {
      report(context, at, {
        code: 'link-sends-unknown',
        message: `The page “${link.page}” does not declare “${name}”.`,
        hint: suggest(name, target.byName.keys()),
        ...mendKey(
          [...place, 'values'],
          name,
          [...target.byName.keys()].filter((key) => !Object.hasOwn(values, key)),
        ),
      });
    } else if (typeof value === 'string' && value.includes('{')) {
      const wanted = celTypeOf(parameter.declaration);
      if (wanted !== undefined && type !== undefined && type !== 'dyn' && type !== wanted && !type.startsWith('optional')) {
        report(context, at, {
          code: 'link-wrong-type',
          message: `“${name}” of the page “${link.page}” is a ${parameter.declaration.type}; ${display(value)} gives a ${type}.`,
          hint: type.startsWith('map') || !/^[a-z]/.test(type) ? 'Name the field that holds the key.' : `Convert it, as in {${wanted}(…)}.`,
        });
      }
    } else {
      const taken = valueFrom(value, parameter.plain);
      if (taken instanceof Refusal) {
        report(context, at, {
          code: 'link-wrong-value',
          message: `“${name}” of the page “${link.page}” cannot be ${JSON.stringify(value)}: ${taken.message}`,
        });
      }
    }
  }
}

/** What a link keeps: names that both pages have. @returns the names that are kept */
function checkKeep(
  context: CheckContext,
  place: Place,
  { keep, page }: LinkDefinition,
  target: CompiledPage,
  from: PageDefinition | undefined,
): string[] {
  if (keep === undefined) return [];
  const here = Object.keys({ ...context.definition.parameters, ...from?.parameters });
  const both = here.filter((name) => target.byName.has(name));
  if (keep === true) return both;
  for (const [index, name] of keep.entries()) {
    if (both.includes(name)) continue;
    report(context, [...place, 'keep', index], {
      code: 'keeps-unknown',
      message: here.includes(name) ? `The page “${page}” does not declare “${name}”.` : `There is no “${name}” here to be kept.`,
      hint: suggest(name, both),
      mend: [{ op: 'remove', path: toPointer([...place, 'keep', index]) }],
    });
  }
  return keep;
}

/** What is carried along is remembered for the visit. */
export function checkCarry(context: CheckContext, place: Place, carry: true | readonly string[] | undefined): void {
  const remembered = Object.entries(context.definition.parameters ?? {}).flatMap(([name, { reach }]) => (reach === 'visit' ? [name] : []));
  if (carry === undefined) return;
  if (remembered.length === 0 || carry !== true) {
    for (const [index, name] of (carry === true ? [''] : carry).entries()) {
      if (remembered.includes(name)) continue;
      report(context, carry === true ? place : [...place, index], {
        code: 'carries-unknown',
        message: carry === true ? 'There is nothing to carry.' : `“${name}” is not remembered for the visit.`,
        hint: remembered.length === 0 ? 'Declare a parameter of the app with “reach: visit”.' : suggest(name, remembered),
        mend: [{ op: 'remove', path: toPointer(carry === true ? place : [...place, index]) }],
      });
    }
  }
}

/** The sites that the app leads to: what they carry is there, and each is one that the file names. */
export function checkSites(context: CheckContext): void {
  for (const [name, { carries }] of Object.entries(context.definition.sites ?? {}))
    checkCarry(context, ['sites', name, 'carries'], carries);
}
