import type { AppDefinition, Component } from '../definition/app-definition.ts';

/** The collection whose fields a component shows or saves. */
export function collectionShownBy(definition: AppDefinition | undefined, page: string, component: Component): string | undefined {
  if (definition === undefined) return undefined;
  const { collection, rows, bind } = component as { collection?: unknown; rows?: unknown; bind?: unknown };
  const declared = definition.pages[page];
  if (typeof collection === 'string') return collection;
  if (typeof rows === 'string') return declared?.rows?.[rows]?.from;
  return typeof bind === 'string' ? (declared?.parameters?.[bind] ?? definition.parameters?.[bind])?.of : undefined;
}
