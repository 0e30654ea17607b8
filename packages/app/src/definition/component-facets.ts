import type { AppDefinition, PageDefinition } from './app-schema.ts';
import type { FormFieldDefinition } from './content/forms-schema.ts';
import type { ComponentDefinition } from './content-schema.ts';
import { fieldName } from '../records/plan-save.ts';
import { innerContent } from './inner-content.ts';
import type { LinkDefinition } from './schema-parts.ts';

type Path = (string | number)[];
type Value = string | number | boolean;

/** Everything in a component that refers to something else, each with its place below the component. */
export interface Facets {
  texts: { path: Path; text: string; row?: string }[];
  /** Values that are settled on the page itself, or, with `service`, when its form is sent. */
  values: { path: Path; value: string | number | boolean; row?: string; service?: true }[];
  /** `row` names the read in whose rows the link stands, `saved` the collection of the record that a form has saved. */
  links: { path: Path; link: LinkDefinition; row?: string; saved?: string; service?: true }[];
  /** Pages that are led to by other means than a link. */
  pages: { path: Path; name: string }[];
  /** Names of mails. */
  mails: string[];
  binds: { path: Path; name: string; kinds: readonly string[] }[];
  rows: { path: Path; name: string }[];
  /** Fields that are shown, by path: of the record that a parameter names, or of the rows of a read. */
  fields: { root: { of: 'record' | 'rows'; name: string }; path: string }[];
}

/** The types of parameters that each kind of input can change. */
const inputKinds = {
  checkboxes: ['list'],
  toggle: ['boolean'],
  input: ['text', 'date', 'integer', 'number', 'range', 'list'],
  dialog: ['record', 'boolean', 'choice', 'text', 'integer'],
};

/** Lists a component's references; the check and the closure of links read them from here. */
export function facetsOf(component: ComponentDefinition): Facets {
  const facets: Facets = { texts: [], values: [], links: [], pages: [], mails: [], binds: [], rows: [], fields: [] };
  const text = (path: Path, given: string | undefined, row?: string) => {
    if (given !== undefined) facets.texts.push(row === undefined ? { path, text: given } : { path, text: given, row });
  };
  const fields = (path: Path, given: readonly FormFieldDefinition[] | undefined, set: Record<string, Value> | undefined, row?: string) => {
    for (const [index, field] of (given ?? []).entries()) {
      if (typeof field === 'string') continue;
      text([...path, 'fields', index, 'label'], field.label);
      text([...path, 'fields', index, 'help'], field.help);
      if (field.value !== undefined) facets.values.push({ path: [...path, 'fields', index, 'value'], value: field.value });
    }
    for (const [name, value] of Object.entries(set ?? {}))
      facets.values.push({ path: [...path, 'set', name], value, service: true, ...(row === undefined ? {} : { row }) });
  };
  const shown = (of: 'record' | 'rows', name: string, paths: readonly string[]) => {
    for (const path of paths) facets.fields.push({ root: { of, name }, path });
  };
  switch (component.show) {
    case 'image':
      text(['file'], component.file);
      text(['alt'], component.alt);
      break;
    case 'share':
      text(['text'], component.text);
      break;
    case 'language':
      text(['label'], component.label);
      break;
    case 'heading':
    case 'text':
    case 'notice':
      text(['text'], component.text);
      break;
    case 'link':
    case 'back':
      text(['text'], component.text);
      facets.links.push({ path: ['to'], link: component.to });
      break;
    case 'site-link':
      text(['text'], component.text);
      text(['path'], component.path);
      for (const [name, value] of Object.entries(component.query ?? {})) facets.values.push({ path: ['query', name], value });
      break;
    case 'navigation':
      text(['label'], component.label);
      if (component.bind !== undefined) facets.binds.push({ path: ['bind'], name: component.bind, kinds: ['choice'] });
      for (const [index, entry] of (component.links ?? []).entries()) {
        text(['links', index, 'text'], entry.text);
        facets.links.push({ path: ['links', index, 'to'], link: entry.to });
      }
      break;
    case 'search':
      text(['label'], component.label);
      text(['placeholder'], component.placeholder);
      facets.binds.push({ path: ['bind'], name: component.bind, kinds: ['text'] });
      break;
    case 'select':
    case 'radio':
      text(['label'], component.label);
      text(['anyLabel'], component.anyLabel);
      facets.binds.push({ path: ['bind'], name: component.bind, kinds: ['choice', 'record'] });
      break;
    case 'checkboxes':
    case 'toggle':
    case 'input':
      text(['label'], component.label);
      facets.binds.push({ path: ['bind'], name: component.bind, kinds: inputKinds[component.show] });
      break;
    case 'panel':
      text(['label'], component.label);
      break;
    case 'dialog':
      text(['label'], component.label);
      facets.binds.push({ path: ['bind'], name: component.bind, kinds: inputKinds.dialog });
      break;
    case 'tabs':
    case 'views':
      if (component.show === 'tabs') text(['label'], component.label);
      facets.binds.push({ path: ['bind'], name: component.bind, kinds: ['choice'] });
      break;
    case 'table': {
      const row = component.rows;
      text(['label'], component.label);
      text(['empty'], component.empty);
      text(['beforeSearch'], component.beforeSearch);
      if (component.bind?.tick !== undefined) facets.binds.push({ path: ['bind', 'tick'], name: component.bind.tick, kinds: ['list'] });
      if (component.edit) {
        facets.binds.push({ path: ['edit', 'bind'], name: component.edit.bind, kinds: ['record'] });
        text(['edit', 'submit'], component.edit.submit);
        fields(['edit'], component.edit.fields, component.edit.set, row);
        shown('record', component.edit.bind, component.edit.fields.map(fieldName));
      }
      shown(
        'rows',
        row,
        component.columns.flatMap(({ field }) => (field === undefined ? [] : [field])),
      );
      facets.rows.push({ path: ['rows'], name: row });
      if (component.bind?.sort !== undefined) facets.binds.push({ path: ['bind', 'sort'], name: component.bind.sort, kinds: ['sort'] });
      if (component.link) facets.links.push({ path: ['link'], link: component.link, row });
      for (const [index, column] of component.columns.entries()) {
        text(['columns', index, 'text'], column.text, row);
        text(['columns', index, 'label'], column.label);
        if (column.to) facets.links.push({ path: ['columns', index, 'to'], link: column.to, row });
      }
      break;
    }
    case 'list': {
      const row = component.rows;
      text(['label'], component.label);
      for (const key of ['text', 'detail', 'image'] as const) text([key], component[key], row);
      for (const key of ['empty', 'beforeSearch'] as const) text([key], component[key]);
      facets.rows.push({ path: ['rows'], name: row });
      if (component.link) facets.links.push({ path: ['link'], link: component.link, row });
      break;
    }
    case 'pager':
      facets.rows.push({ path: ['rows'], name: component.rows });
      facets.binds.push({ path: ['bind'], name: component.bind, kinds: ['integer'] });
      if (component.size !== undefined) facets.binds.push({ path: ['size'], name: component.size, kinds: ['integer'] });
      break;
    case 'form': {
      text(['label'], component.label);
      text(['submit'], component.submit);
      if (component.bind !== undefined) facets.binds.push({ path: ['bind'], name: component.bind, kinds: ['record'] });
      fields([], component.fields, component.set);
      if (component.bind !== undefined) shown('record', component.bind, (component.fields ?? []).map(fieldName));
      if (component.mail !== undefined) facets.mails.push(component.mail);
      if (component.then)
        facets.links.push({
          path: ['then'],
          link: component.then,
          service: true,
          ...(component.collection === undefined ? {} : { saved: component.collection }),
        });
      break;
    }
    case 'ask':
      text(['label'], component.label);
      text(['submit'], component.submit);
      facets.pages.push({ path: ['page'], name: component.page });
      for (const [name, value] of Object.entries(component.values ?? {})) facets.values.push({ path: ['values', name], value });
      break;
    case 'details':
      facets.binds.push({ path: ['bind'], name: component.bind, kinds: ['record'] });
      shown(
        'record',
        component.bind,
        component.fields.filter((field) => typeof field === 'string'),
      );
      for (const [index, field] of component.fields.entries()) {
        if (typeof field === 'string') continue;
        text(['fields', index, 'label'], field.label);
        text(['fields', index, 'text'], field.text);
        if (field.to) facets.links.push({ path: ['fields', index, 'to'], link: field.to });
      }
      break;
    case 'sign-up':
    case 'sign-in':
      if (component.show === 'sign-up') text(['nameLabel'], component.nameLabel);
      else {
        text(['mail'], component.mail);
        text(['mailButton'], component.mailButton);
      }
      text(['loginLabel'], component.loginLabel);
      text(['password'], component.password);
      text(['submit'], component.submit);
      break;
  }
  return facets;
}

/** Walks a page's content, inner components too. */
export function* walkContent(
  content: readonly ComponentDefinition[],
  path: Path = ['content'],
): Generator<{ component: ComponentDefinition; path: Path; facets: Facets }> {
  for (const [index, component] of content.entries()) {
    const here = [...path, index];
    const facets = facetsOf(component);
    yield { component, path: here, facets };
    for (const inner of innerContent(component)) yield* walkContent(inner.content, [...here, ...inner.path]);
  }
}

/** Names of the pages that a page’s content links to, and that the mails of its forms do. */
export function linksFrom(page: PageDefinition, mails: AppDefinition['mails'] = {}): Set<string> {
  return new Set(
    [...walkContent(page.content)].flatMap(({ facets }) => [
      ...facets.links.map(({ link }) => link.page),
      ...facets.pages.map(({ name }) => name),
      ...facets.mails.flatMap((name) => Object.values(mails[name]?.links ?? {}).map(({ to }) => to.page)),
    ]),
  );
}
