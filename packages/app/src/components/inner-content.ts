import type { Component } from '../definition/app-definition.ts';

type Path = (string | number)[];

/** The content that stands inside a component, with its place below it: under `content`, or under `panes` for each choice. */
export function innerContent({ content, panes }: Component): { path: Path; content: Component[] }[] {
  if (content !== undefined) return [{ path: ['content'], content: content as Component[] }];
  return Object.entries((panes ?? {}) as Record<string, Component[]>).map(([name, inner]) => ({ path: ['panes', name], content: inner }));
}

/** Every component of a page, inner ones too. */
export function* componentsIn(content: readonly Component[]): Generator<Component> {
  for (const component of content) {
    yield component;
    for (const inner of innerContent(component)) yield* componentsIn(inner.content);
  }
}

/** Content whose components know where they stand, inner ones too. */
export function withPlaces(content: readonly Component[], at = 'content'): Component[] {
  return content.map((component, index) => {
    const place = `${at}/${String(index)}`;
    const inner = innerContent(component);
    if (inner.length === 0) return { ...component, place };
    if (component['content'] !== undefined)
      return { ...component, place, content: withPlaces(inner[0]?.content ?? [], `${place}/content`) };
    const panes = inner.map(({ path, content: held }) => [path[1], withPlaces(held, `${place}/panes/${String(path[1])}`)]);
    return { ...component, place, panes: Object.fromEntries(panes) as object };
  });
}

/** A component with its inner content replaced. */
export function mapInnerContent(component: Component, replace: (content: readonly Component[]) => Component[]): Component {
  const { content, panes } = component;
  if (content !== undefined) return { ...component, content: replace(content as Component[]) };
  if (panes === undefined) return component;
  const entries = Object.entries(panes as Record<string, Component[]>);
  return { ...component, panes: Object.fromEntries(entries.map(([name, inner]) => [name, replace(inner)])) };
}
