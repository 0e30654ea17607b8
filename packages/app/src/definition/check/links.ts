import { type ParameterDeclaration, toPointer, withArticle } from '@pallmist/address/declare';
import { suggest } from '@pallmist/address/explain';
import { type CompiledPage, Refusal, valueFrom } from '@pallmist/address/pages';
import { parameterScopeType } from '../../expressions/page-scope.ts';
import { display } from '../../expressions/evaluator.ts';
import type { PageDefinition } from '../app-definition.ts';
import type { LinkDefinition } from '../app-definition.ts';
import { report, type CheckContext, type Place } from './context.ts';
import { checkMaybeAbsent, checkSentKey, type LinkStanding } from './sent-values.ts';
import { fixKey, fixName } from './fix-name.ts';
import type { ScopeCheck } from './expressions.ts';

/** The CEL type that a parameter takes, beside `dyn`; undefined where the check at run time has to do. */
function celTypeOf(declaration: ParameterDeclaration): string | undefined {
  const type = parameterScopeType(declaration);
  if (typeof type === 'string') return type === 'dyn' ? undefined : type;
  return undefined;
}

/** A link: its page is there, sends what the page requires, nothing that it does not know, and the right types. */
export function checkLink(
  context: CheckContext,
  place: Place,
  link: LinkDefinition,
  scope: ScopeCheck,
  from?: PageDefinition,
  standing: LinkStanding = {},
): void {
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
      ...fixName([...place, 'page'], link.page, Object.keys(context.definition.pages)),
    });
    return;
  }
  checkWithVisit(context, [...place, 'withVisit'], link.withVisit);
  const keeps = checkKeep(context, place, link, target, from);
  for (const parameter of target.parameters) {
    if (!parameter.required || Object.hasOwn(values, parameter.name) || keeps.includes(parameter.name)) continue;
    report(context, place, {
      code: 'link-missing-value',
      message: `The link to “${link.page}” lacks “${parameter.name}”, which that page requires.`,
      hint: `Give it under “values”.`,
      ...(parameter.declaration.sample === undefined
        ? {}
        : {
            fix: [
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
        ...fixKey(
          [...place, 'values'],
          name,
          [...target.byName.keys()].filter((key) => !Object.hasOwn(values, key)),
        ),
      });
    } else if (typeof value === 'string' && value.includes('{')) {
      checkSentKey(context, at, value, parameter.declaration, { ...standing, from });
      if (parameter.required) checkMaybeAbsent(context, at, value, link.page, { ...standing, from });
      const wanted = celTypeOf(parameter.declaration);
      if (wanted !== undefined && type !== undefined && type !== 'dyn' && type !== wanted && !type.startsWith('optional')) {
        report(context, at, {
          code: 'link-wrong-type',
          message: `“${name}” of the page “${link.page}” is ${withArticle(parameter.declaration.type)}; ${display(value)} gives ${withArticle(type)}.`,
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
      code: 'unknown-kept',
      message: here.includes(name) ? `The page “${page}” does not declare “${name}”.` : `There is no “${name}” here to be kept.`,
      hint: suggest(name, both),
      fix: [{ op: 'remove', path: toPointer([...place, 'keep', index]) }],
    });
  }
  return keep;
}

/** What is carried along is remembered for the visit. */
export function checkWithVisit(context: CheckContext, place: Place, withVisit: true | readonly string[] | undefined): void {
  const remembered = Object.entries(context.definition.parameters ?? {}).flatMap(([name, { reach }]) => (reach === 'visit' ? [name] : []));
  if (withVisit === undefined) return;
  if (remembered.length === 0 || withVisit !== true) {
    for (const [index, name] of (withVisit === true ? [''] : withVisit).entries()) {
      if (remembered.includes(name)) continue;
      report(context, withVisit === true ? place : [...place, index], {
        code: 'with-visit-unknown',
        message: withVisit === true ? 'Nothing is remembered for the visit.' : `“${name}” is not remembered for the visit.`,
        hint: remembered.length === 0 ? 'Declare a parameter of the app with “reach: visit”.' : suggest(name, remembered),
        fix: [{ op: 'remove', path: toPointer(withVisit === true ? place : [...place, index]) }],
      });
    }
  }
}

/** The sites that the app leads to: what they are told is remembered, and each is one that the file names. */
export function checkSites(context: CheckContext): void {
  for (const [name, { withVisit }] of Object.entries(context.definition.sites ?? {}))
    checkWithVisit(context, ['sites', name, 'withVisit'], withVisit);
}
