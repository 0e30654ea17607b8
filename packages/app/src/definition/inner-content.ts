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
      return Object.entries(component.panes).map(([name, content]) => ({ path: ['panes', name], content }));
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

/** A component with its inner content replaced. */
export function mapInnerContent(
  component: ComponentDefinition,
  replace: (content: readonly ComponentDefinition[]) => ComponentDefinition[],
): ComponentDefinition {
  switch (component.show) {
    case 'panel':
    case 'dialog':
      return { ...component, content: replace(component.content) };
    case 'tabs':
    case 'views':
      return {
        ...component,
        panes: Object.fromEntries(Object.entries(component.panes).map(([name, content]) => [name, replace(content)])),
      };
    default:
      return component;
  }
}
