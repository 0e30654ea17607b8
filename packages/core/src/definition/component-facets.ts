import type { PageDefinition } from './app-schema.ts';
import type { ComponentDefinition } from './content-schema.ts';
import type { LinkDefinition } from './schema-parts.ts';

type Path = (string | number)[];

/** Everything in a component that refers to something else, each with its place below the component. */
export interface Facets {
  texts: { path: Path; text: string; row?: string }[];
  links: { path: Path; link: LinkDefinition; row?: string }[];
  binds: { path: Path; name: string; kinds: readonly string[] }[];
  reads: { path: Path; name: string }[];
  children: { path: Path; content: ComponentDefinition[] }[];
}

/** The types of parameters that each kind of input can change. */
const inputKinds = { choices: ['list'], toggle: ['boolean'], input: ['date', 'integer', 'number'] };

/** Lists a component's references; the check and the closure of links read them from here. */
export function facetsOf(component: ComponentDefinition): Facets {
  const facets: Facets = { texts: [], links: [], binds: [], reads: [], children: [] };
  const text = (path: Path, given: string | undefined, row?: string) => {
    if (given !== undefined) facets.texts.push(row === undefined ? { path, text: given } : { path, text: given, row });
  };
  switch (component.show) {
    case 'heading':
    case 'text':
    case 'notice':
      text(['text'], component.text);
      break;
    case 'link':
      text(['text'], component.text);
      facets.links.push({ path: ['to'], link: component.to });
      break;
    case 'navigation':
      text(['label'], component.label);
      for (const [index, entry] of component.links.entries()) {
        text(['links', index, 'text'], entry.text);
        facets.links.push({ path: ['links', index, 'to'], link: entry.to });
      }
      break;
    case 'search':
      text(['label'], component.label);
      text(['hint'], component.hint);
      facets.binds.push({ path: ['bind'], name: component.bind, kinds: ['text'] });
      break;
    case 'select':
      text(['label'], component.label);
      text(['anything'], component.anything);
      facets.binds.push({ path: ['bind'], name: component.bind, kinds: ['choice', 'record'] });
      break;
    case 'choices':
    case 'toggle':
    case 'input':
      text(['label'], component.label);
      facets.binds.push({ path: ['bind'], name: component.bind, kinds: inputKinds[component.show] });
      break;
    case 'panel':
      text(['label'], component.label);
      facets.children.push({ path: ['content'], content: component.content });
      break;
    case 'tabs':
      text(['label'], component.label);
      facets.binds.push({ path: ['bind'], name: component.bind, kinds: ['choice'] });
      for (const [name, content] of Object.entries(component.views)) facets.children.push({ path: ['views', name], content });
      break;
    case 'table': {
      const row = component.rows;
      text(['label'], component.label);
      text(['empty'], component.empty);
      facets.reads.push({ path: ['rows'], name: row });
      if (component.sort !== undefined) facets.binds.push({ path: ['sort'], name: component.sort, kinds: ['sort'] });
      if (component.link) facets.links.push({ path: ['link'], link: component.link, row });
      for (const [index, column] of component.columns.entries()) {
        text(['columns', index, 'text'], column.text, row);
        text(['columns', index, 'label'], column.label);
      }
      break;
    }
    case 'pager':
      facets.reads.push({ path: ['rows'], name: component.rows });
      facets.binds.push({ path: ['bind'], name: component.bind, kinds: ['integer'] });
      break;
    case 'details':
      facets.binds.push({ path: ['record'], name: component.record, kinds: ['record'] });
      for (const [index, field] of component.fields.entries()) {
        if (typeof field === 'string') continue;
        text(['fields', index, 'label'], field.label);
        text(['fields', index, 'text'], field.text);
        if (field.to) facets.links.push({ path: ['fields', index, 'to'], link: field.to });
      }
      break;
    case 'sign-in':
      text(['name'], component.name);
      text(['password'], component.password);
      text(['button'], component.button);
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
    for (const child of facets.children) yield* walkContent(child.content, [...here, ...child.path]);
  }
}

/** Names of the pages that a page’s content links to. */
export function linksFrom(page: PageDefinition): Set<string> {
  return new Set([...walkContent(page.content)].flatMap(({ facets }) => facets.links.map(({ link }) => link.page)));
}
