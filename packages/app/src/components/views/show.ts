import type { views } from './definition.ts';
import type { ViewContext, AnyNode } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';

export interface ViewsNode {
  show: 'views';
  content: AnyNode[];
}

export function show(component: ComponentOf<typeof views>, context: ViewContext): ViewsNode {
  const open = context.values[component.bind];
  return { show: 'views', content: typeof open === 'string' ? context.showAll(component.panes[open] ?? []) : [] };
}
