import type { ComponentDefinition } from './content-schema.ts';

type Path = (string | number)[];

/** The content that stands inside a component, with its place below it. */
export function innerContent(component: ComponentDefinition): { path: Path; content: ComponentDefinition[] }[] {
  switch (component.show) {
    case 'panel':
    case 'dialog':
      return [{ path: ['content'], content: component.content }];
    case 'tabs':
    case 'views':
      return Object.entries(component.views).map(([name, content]) => ({ path: ['views', name], content }));
    default:
      return [];
  }
}

/** Every component of a page, inner ones too. */
export function* componentsIn(content: readonly ComponentDefinition[]): Generator<ComponentDefinition> {
  for (const component of content) {
    yield component;
    for (const inner of innerContent(component)) yield* componentsIn(inner.content);
  }
}
