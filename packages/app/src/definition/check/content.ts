import { pageScopeTypes, recordType } from '../../expressions/page-scope.ts';
import { quote, toPointer } from '@pallmist/address/declare';
import { suggest } from '@pallmist/address/explain';
import type { PageDefinition } from '../app-schema.ts';
import { walkContent } from '../component-facets.ts';
import type { ComponentDefinition } from '../content-schema.ts';
import { report, type CheckContext, type Place } from './context.ts';
import { fixKey, fixName } from './fix-name.ts';
import { ScopeCheck } from './expressions.ts';
import { checkArrival } from './arrival.ts';
import { checkAsk, checkForm } from './forms.ts';
import { checkWithVisit, checkLink } from './links.ts';
import { checkMailOf } from './mails.ts';
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
  const place: Place = ['pages', name];
  scope.text([...place, 'title'], page.title);
  const { rows: _, total: __, label: ___, ...beforeReads } = types;
  checkAdmission(context, place, page, new ScopeCheck(context, beforeReads));
  checkRows(context, place, page, new ScopeCheck(context, beforeReads));
  const { record: ____, ...atArrival } = beforeReads;
  checkArrival(context, place, page, new ScopeCheck(context, atArrival), scope);
  const forms = new Set<string>();
  for (const { component, path, facets } of walkContent(page.content)) {
    const at = [...place, ...path];
    if (component.when !== undefined) scope.condition([...at, 'when'], component.when);
    for (const text of facets.texts) scopeFor(text.row).text([...at, ...text.path], text.text);
    for (const { path: below, value, row } of facets.values) scopeFor(row).value([...at, ...below], value);
    for (const { path: below, link, row, saved } of facets.links) {
      const inSaved =
        saved === undefined ? undefined : new ScopeCheck(context, { ...types, saved: recordType(context.definition, saved, 0) });
      checkLink(context, [...at, ...below], link, inSaved ?? scopeFor(row), page);
    }
    for (const { path: below, name: wanted } of facets.pages) checkPageName(context, [...at, ...below], wanted);
    for (const bind of facets.binds) checkBinding(context, [...at, ...bind.path], page, bind.name, bind.kinds);
    for (const read of facets.rows) {
      if (Object.hasOwn(page.rows ?? {}, read.name)) continue;
      report(context, [...at, ...read.path], {
        code: 'unknown-rows',
        message: `The page has no rows “${read.name}”.`,
        hint: suggest(read.name, Object.keys(page.rows ?? {})),
        ...fixName([...at, ...read.path], read.name, Object.keys(page.rows ?? {})),
      });
    }
    checkComponent(context, at, page, component);
    checkForm(context, at, page, component, forms);
    checkMailOf(context, at, page, component);
    if (component.show === 'ask') checkAsk(context, at, component);
    checkWayOut(context, at, component);
  }
}

/** The condition of a page's gate, its own or the one of the app that it names: it has to make sense on this page. */
function checkAdmission(context: CheckContext, place: Place, page: PageDefinition, scope: ScopeCheck): void {
  const { admit } = page;
  if (typeof admit === 'object' && admit.when !== undefined) scope.condition([...place, 'admit', 'when'], admit.when);
  const named = typeof admit === 'string' ? context.definition.gates?.[admit]?.when : undefined;
  if (named !== undefined) scope.condition([...place, 'admit'], named);
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

function checkBinding(context: CheckContext, at: Place, page: PageDefinition, name: string, kinds: readonly string[]): void {
  const parameters = Object.entries({ ...context.definition.parameters, ...page.parameters });
  const bound = parameters.find(([key]) => key === name)?.[1];
  const fitting = parameters.filter(([, { type }]) => kinds.includes(type)).map(([key]) => key);
  if (bound === undefined) {
    report(context, at, {
      code: 'unknown-binding',
      message: `It is bound to “${name}”, which is not a parameter of the page.`,
      hint: fitting.length === 0 ? `The page has no parameter of the type ${kinds.join(' or ')}; declare one.` : suggest(name, fitting),
      ...fixName(at, name, fitting),
    });
  } else if (!kinds.includes(bound.type)) {
    report(context, at, {
      code: 'binding-wrong-type',
      message: `“${name}” is a ${bound.type}; what stands here binds to a ${kinds.join(' or a ')}.`,
      hint: fitting.length === 0 ? `Declare a parameter of the type ${kinds.join(' or ')}.` : `It could be: ${fitting.join(', ')}.`,
    });
  }
}

/** The sites that a page leads to are named in the app file, and what it carries is remembered. */
function checkWayOut(context: CheckContext, at: Place, component: ComponentDefinition): void {
  if (component.show === 'share') checkWithVisit(context, [...at, 'withVisit'], component.withVisit);
  if (component.show !== 'site-link') return;
  const sites = Object.keys(context.definition.sites ?? {});
  if (!sites.includes(component.site)) {
    report(context, [...at, 'site'], {
      code: 'unknown-site',
      message: `There is no site “${component.site}”.`,
      hint:
        sites.length === 0 ? 'Name it under “sites” of the app file, with what its addresses begin with.' : suggest(component.site, sites),
      ...fixName([...at, 'site'], component.site, sites),
    });
  }
  if (/[?#\\\s]|(?:^|\/)\.{1,2}(?:\/|$)/.test((component.path ?? '').replaceAll(/\{[^}]*\}/g, '')))
    report(context, [...at, 'path'], {
      code: 'bad-path',
      message: `The path ${quote(component.path ?? '')} is more than a path.`,
      hint: 'Write segments parted by “/”; what follows “?” goes under “query”.',
    });
}

/** What only one kind of component can get wrong. */
function checkComponent(context: CheckContext, at: Place, page: PageDefinition, component: ComponentDefinition): void {
  const fieldsOf = (collection: string | undefined) => Object.keys(context.definition.collections?.[collection ?? '']?.fields ?? {});
  const needField = (place: Place, path: string, collection: string | undefined) => {
    const [field = '', inner] = path.split('.');
    const declared = context.definition.collections?.[collection ?? '']?.fields[field];
    if (inner !== undefined && declared !== undefined) {
      if (declared.type === 'record') needField(place, inner, declared.of);
      else {
        report(context, place, {
          code: 'unknown-field',
          message: `“${field}” is a ${declared.type} and has no field “${inner}”.`,
          hint: `Write “${field}” alone.`,
          fix: [{ op: 'replace', path: toPointer(place), value: field }],
        });
      }
      return;
    }
    const fields = fieldsOf(collection);
    if (collection === undefined || fields.length === 0 || fields.includes(field)) return;
    report(context, place, {
      code: 'unknown-field',
      message: `The collection “${collection}” has no field “${field}”.`,
      hint: suggest(field, fields),
      ...fixName(place, field, fields),
    });
  };
  if (component.show === 'tabs' || component.show === 'views') {
    const declaration = page.parameters?.[component.bind] ?? context.definition.parameters?.[component.bind];
    const choices = Object.keys(context.definition.choices?.[declaration?.of ?? ''] ?? {});
    for (const choice of choices) {
      if (Object.hasOwn(component.panes, choice)) continue;
      report(context, [...at, 'panes'], {
        code: 'choice-without-view',
        message: `The choice “${choice}” has no view.`,
        hint: `Add “${choice}” under views.`,
        fix: [{ op: 'add', path: toPointer([...at, 'panes', choice]), value: [] }],
      });
    }
    for (const view of Object.keys(component.panes)) {
      if (choices.length === 0 || choices.includes(view)) continue;
      report(context, [...at, 'panes', view], {
        code: 'view-without-choice',
        message: `The view “${view}” belongs to no choice.`,
        hint: suggest(view, choices),
        ...fixKey(
          [...at, 'panes'],
          view,
          choices.filter((choice) => !Object.hasOwn(component.panes, choice)),
        ),
      });
    }
    if (declaration && declaration.default === undefined) {
      report(context, [...at, 'bind'], {
        code: 'tabs-without-default',
        severity: 'warning',
        message: `“${component.bind}” has no default, so no ${component.show === 'tabs' ? 'tab' : 'view'} is open at first.`,
        hint: 'Give the parameter a default.',
      });
    }
  } else if (component.show === 'checkboxes') {
    const items = page.parameters?.[component.bind]?.items;
    if (items && items.type !== 'choice' && items.type !== 'record') {
      report(context, [...at, 'bind'], {
        code: 'binding-wrong-type',
        message: `“${component.bind}” is a list of ${items.type}; there is nothing to choose from.`,
        hint: 'Make its items a choice or a record.',
      });
    }
  } else if (component.show === 'navigation') {
    if ((component.links === undefined) === (component.bind === undefined)) {
      report(context, at, {
        code: 'links-or-bind',
        message:
          component.links === undefined ? 'The navigation has neither links nor a parameter.' : 'The navigation has links and a parameter.',
        hint: 'Give it “links”, or “bind” it to a choice parameter.',
        ...(component.bind === undefined ? {} : { fix: [{ op: 'remove' as const, path: toPointer([...at, 'bind']) }] }),
      });
    }
  } else if (component.show === 'language') {
    if (context.definition.language === undefined) {
      report(context, at, {
        code: 'no-language',
        message: 'The app does not say which parameter holds the language.',
        hint: 'Name it under “language”: a choice that the app declares for every page.',
      });
    }
  } else if (component.show === 'sign-up') {
    if (context.definition.signIn?.newcomers === undefined) {
      report(context, at, {
        code: 'no-newcomers',
        message: 'The app does not let people make accounts themselves.',
        hint: 'Say so by “newcomers” under “signIn”.',
      });
    }
  } else if (component.show === 'dialog') {
    if (page.parameters?.[component.bind]?.default !== undefined && page.parameters[component.bind]?.default !== false) {
      report(context, [...at, 'bind'], {
        code: 'dialog-with-default',
        severity: 'warning',
        message: `“${component.bind}” has a default, so the dialog can never be closed.`,
        hint: 'Take the default out.',
        fix: [{ op: 'remove', path: toPointer([...at.slice(0, 2), 'parameters', component.bind, 'default']) }],
      });
    }
  } else if (component.show === 'table') {
    const chosen = page.parameters?.[component.bind?.tick ?? '']?.items;
    const wanted = page.rows?.[component.rows]?.from;
    if (chosen && wanted !== undefined && (chosen.type !== 'record' || chosen.of !== wanted)) {
      report(context, [...at, 'bind', 'tick'], {
        code: 'binding-wrong-type',
        message: `“${component.bind?.tick ?? ''}” is no list of records of “${wanted}”.`,
        hint: `Make its items { type: record, of: ${wanted} }.`,
        fix: [
          {
            op: 'replace',
            path: toPointer([...at.slice(0, 2), 'parameters', component.bind?.tick ?? '', 'items']),
            value: { type: 'record', of: wanted },
          },
        ],
      });
    }
    const from = page.rows?.[component.rows]?.from;
    for (const [index, column] of component.columns.entries()) {
      if (column.field !== undefined) needField([...at, 'columns', index, 'field'], column.field, from);
      else if (column.text === undefined) {
        report(context, [...at, 'columns', index], {
          code: 'empty-column',
          message: 'The column shows nothing.',
          hint: 'Give it a field or a text.',
        });
      }
    }
  } else if (component.show === 'details') {
    const of = page.parameters?.[component.bind]?.of;
    for (const [index, field] of component.fields.entries()) {
      if (typeof field === 'string') needField([...at, 'fields', index], field, of);
    }
  }
}
