import type { AppDefinition, Component, PageDefinition } from '../definition/app-definition.ts';
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

/** A component of a page, with its place below the page and what it refers to. */
interface WalkedComponent {
  component: Component;
  path: Path;
  references: References;
}

/** Content does not change: what was found in it once is found again. */
const walked = new WeakMap<readonly Component[], readonly WalkedComponent[]>();

/** Lists the components of a page’s content, inner ones too. */
export function walkContent(content: readonly Component[]): readonly WalkedComponent[] {
  let found = walked.get(content);
  if (found === undefined) walked.set(content, (found = [...walk(content, ['content'])]));
  return found;
}

function* walk(content: readonly Component[], path: Path): Generator<WalkedComponent> {
  for (const [index, component] of content.entries()) {
    const here = [...path, index];
    yield { component, path: here, references: referencesOf(component) };
    for (const inner of innerContent(component)) yield* walk(inner.content, [...here, ...inner.path]);
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
