import { quote, withArticle } from '@pallmist/address/declare';
import { pageScopeTypes, recordType } from '../../expressions/page-scope.ts';
import { suggest } from '@pallmist/address/explain';
import type { PageDefinition } from '../app-definition.ts';
import { kindOf } from '../../components/kinds.ts';
import { formOf, walkContent } from '../../components/walk-content.ts';
import type { SettingType } from '../../components/references.ts';
import { report, type CheckContext, type Place } from './context.ts';
import { fixName } from './fix-name.ts';
import { ScopeCheck } from './expressions.ts';
import { checkArrival } from './arrival.ts';
import { checkLink } from './links.ts';
import { checkRows } from './rows.ts';

/** Everything on one page that refers to something: texts, conditions, links, bindings, reads. */
export function checkPageContent(context: CheckContext, name: string, page: PageDefinition): void {
  const types = pageScopeTypes(context.definition, page);
  const scope = new ScopeCheck(context, types);
  const rowScopes = new Map<string, ScopeCheck>();
  const scopeFor = (row: string | undefined) => {
    const read = row === undefined ? undefined : page.rows?.[row];
    if (row === undefined || read === undefined) return scope;
    let inRow = rowScopes.get(row);
    if (!inRow) rowScopes.set(row, (inRow = new ScopeCheck(context, { ...types, row: recordType(context.definition, read.from) })));
    return inRow;
  };
  const savedScope = (collection: string) => new ScopeCheck(context, { ...types, saved: recordType(context.definition, collection, 0) });
  const place: Place = ['pages', name];
  scope.text([...place, 'title'], page.title);
  if (page.description !== undefined) scope.text([...place, 'description'], page.description);
  const { rows: _, total: __, label: ___, figures: _____, ...beforeReads } = types;
  checkAdmission(context, place, page, new ScopeCheck(context, beforeReads));
  checkRows(context, place, page, new ScopeCheck(context, beforeReads));
  const { record: ____, ...atArrival } = beforeReads;
  checkArrival(context, place, page, new ScopeCheck(context, atArrival), scope);
  const formNames = new Set<string>();
  for (const { component, path, references } of walkContent(page.content)) {
    const at = [...place, ...path];
    if (component.when !== undefined) scope.condition([...at, 'when'], component.when);
    for (const { path: below, text, row, saved } of references.texts)
      (saved ? savedScope(formOf(component, page, context.definition)?.collection ?? '') : scopeFor(row)).text([...at, ...below], text);
    for (const { path: below, value, row, gives } of references.values)
      checkSetting(context, [...at, ...below], gives, scopeFor(row).value([...at, ...below], value));
    for (const { path: below, link, row, saved } of references.links) {
      checkLink(context, [...at, ...below], link, saved === undefined ? scopeFor(row) : savedScope(saved), page, {
        row,
        when: component.when,
      });
    }
    for (const way of references.ways) checkPageName(context, [...at, 'page'], way.page);
    for (const bind of references.binds) checkBinding(context, [...at, ...bind.path], page, bind.name, bind.types);
    for (const read of references.rows) {
      if (Object.hasOwn(page.rows ?? {}, read.name)) continue;
      report(context, [...at, ...read.path], {
        code: 'unknown-rows',
        message: `The page has no rows “${read.name}”.`,
        hint: suggest(read.name, Object.keys(page.rows ?? {})),
        ...fixName([...at, ...read.path], read.name, Object.keys(page.rows ?? {})),
      });
    }
    kindOf(component)?.check(component as never, { context, at, page, formNames });
  }
}

/** The condition of a page's gate, its own or the one of the app that it names: it has to make sense on this page. */
function checkAdmission(context: CheckContext, place: Place, page: PageDefinition, scope: ScopeCheck): void {
  const { admit } = page;
  if (typeof admit === 'object' && admit.when !== undefined) scope.condition([...place, 'admit', 'when'], admit.when);
  const named = typeof admit === 'string' ? context.definition.gates?.[admit]?.when : undefined;
  if (named !== undefined) scope.condition([...place, 'admit'], named);
}

/** The expression of a setting gives what the setting takes. @param type its CEL type, where that is known */
function checkSetting(context: CheckContext, at: Place, gives: SettingType | undefined, type: string | undefined): void {
  const fitting = gives === 'text' ? ['string'] : ['int', 'double'];
  if (gives === undefined || type === undefined || type === 'dyn' || fitting.includes(type)) return;
  report(context, at, {
    code: 'wrong-kind',
    message: `The expression gives ${withArticle(type)}, and ${quote(String(at.at(-1)))} takes a ${gives}.`,
    hint: gives === 'text' ? "Write one of its words in quotes: \"{param.late ? 'warning' : 'plain'}\"." : 'Let it give a number.',
  });
}

function checkPageName(context: CheckContext, at: Place, name: string): void {
  const pages = Object.keys(context.definition.pages);
  if (pages.includes(name)) return;
  report(context, at, {
    code: 'unknown-page',
    message: `There is no page “${name}”.`,
    hint: suggest(name, pages),
    ...fixName(at, name, pages),
  });
}

function checkBinding(context: CheckContext, at: Place, page: PageDefinition, name: string, types: readonly string[]): void {
  const parameters = Object.entries({ ...context.definition.parameters, ...page.parameters });
  const bound = parameters.find(([key]) => key === name)?.[1];
  const fitting = parameters.filter(([, { type }]) => types.includes(type)).map(([key]) => key);
  if (bound === undefined) {
    report(context, at, {
      code: 'unknown-binding',
      message: `It is bound to “${name}”, which is not a parameter of the page.`,
      hint: fitting.length === 0 ? `The page has no parameter of the type ${types.join(' or ')}; declare one.` : suggest(name, fitting),
      ...fixName(at, name, fitting),
    });
  } else if (!types.includes(bound.type)) {
    report(context, at, {
      code: 'binding-wrong-type',
      message: `“${name}” is ${withArticle(bound.type)}; what stands here binds to ${types.map(withArticle).join(' or ')}.`,
      hint: fitting.length === 0 ? `Declare a parameter of the type ${types.join(' or ')}.` : `It could be: ${fitting.join(', ')}.`,
    });
  }
}
