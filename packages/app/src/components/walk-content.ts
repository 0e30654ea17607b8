import type { AppDefinition, Component, PageDefinition } from '../definition/app-schema.ts';
import { innerContent } from './inner-content.ts';
import type { SavingForm } from './kind.ts';
import { kindOf } from './kinds.ts';
import { type Path, References } from './references.ts';

/** Lists a component’s references; the check, what is loaded and sent, and renaming read them from here. */
export function referencesOf(component: Component): References {
  const references = new References();
  kindOf(component)?.refersTo(component as never, references);
  return references;
}

/** Walks a page’s content, inner components too. */
export function* walkContent(
  content: readonly Component[],
  path: Path = ['content'],
): Generator<{ component: Component; path: Path; references: References }> {
  for (const [index, component] of content.entries()) {
    const here = [...path, index];
    yield { component, path: here, references: referencesOf(component) };
    for (const inner of innerContent(component)) yield* walkContent(inner.content, [...here, ...inner.path]);
  }
}

/** What a component saves when its form is sent; undefined where it saves nothing. */
export const formOf = (component: Component, page: PageDefinition, app: Pick<AppDefinition, 'parameters'>): SavingForm | undefined =>
  kindOf(component)?.form?.(component as never, page, app);

/** Names of the pages that a page’s content links to, and that the mails of its forms do. */
export function linksFrom(page: PageDefinition, mails: AppDefinition['mails'] = {}): Set<string> {
  return new Set(
    [...walkContent(page.content)].flatMap(({ references }) => [
      ...references.links.map(({ link }) => link.page),
      ...references.ways.map((way) => way.page),
      ...references.mails.flatMap((name) => Object.values(mails[name]?.links ?? {}).map(({ to }) => to.page)),
    ]),
  );
}
