import type { ComponentOf } from '../../definition/content-schema.ts';
import type { Node, TabsNode } from '../nodes.ts';
import { choiceLabel } from '../tools.ts';
import type { Shower } from '../shower.ts';
import type { ComponentDefinition } from '../../definition/content-schema.ts';

export function tabs(component: ComponentOf<'tabs'>, shower: Shower, showAll: (content: ComponentDefinition[]) => Node[]): TabsNode {
  const { bind } = component;
  const labels = shower.material.app.choices?.[shower.material.page.parameters?.[bind]?.of ?? ''] ?? {};
  const open = shower.values[bind];
  return {
    show: 'tabs',
    id: shower.newId(),
    label: shower.text(component.label),
    tabs: Object.entries(labels).map(([choice, label]) => ({
      ...shower.changeAnchor(choiceLabel(label), { [bind]: choice }),
      current: choice === open,
    })),
    content: typeof open === 'string' ? showAll(component.panes[open] ?? []) : [],
  };
}
