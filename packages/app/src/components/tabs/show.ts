import type { tabs } from './definition.ts';
import type { ChangeAnchor } from '../../view/node-parts.ts';
import type { ViewContext, AnyNode } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';

export interface TabsNode {
  show: 'tabs';
  /** Unique on the page, for naming its parts. */
  id: string;
  label: string;
  tabs: (ChangeAnchor & { current: boolean })[];
  content: AnyNode[];
}

export function show(component: ComponentOf<typeof tabs>, context: ViewContext): TabsNode {
  const { bind } = component;
  const labels = context.payload.app.choices?.[context.payload.page.parameters?.[bind]?.of ?? ''] ?? {};
  const open = context.values[bind];
  return {
    show: 'tabs',
    id: context.newId(),
    label: context.text(component.label),
    tabs: Object.entries(labels).map(([choice, label]) => ({
      ...context.changeAnchor(context.choice(label), { [bind]: choice }),
      current: choice === open,
    })),
    content: typeof open === 'string' ? context.showAll(component.panes[open] ?? []) : [],
  };
}
