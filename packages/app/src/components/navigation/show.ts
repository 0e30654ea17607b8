import type { navigation } from './definition.ts';
import type { Values } from '@pallmist/address/declare';
import type { Anchor } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';

export interface NavigationNode {
  show: 'navigation';
  label: string;
  links: (Anchor & { current: boolean; change?: Values })[];
}

export function show(component: ComponentOf<typeof navigation>, context: ViewContext): NavigationNode {
  const { bind, links = [] } = component;
  const choices = context.payload.app.choices?.[context.declaration(bind ?? '')?.of ?? ''];
  return {
    show: 'navigation',
    label: context.text(component.label, 'Navigation'),
    links: [
      ...links.map((entry) => ({
        ...context.anchor(context.text(entry.text), entry.to),
        current: entry.to.page === context.payload.name,
      })),
      ...Object.entries(bind === undefined ? {} : (choices ?? {})).map(([choice, label]) => ({
        ...context.changeAnchor(context.choice(label), { [bind ?? '']: choice }),
        current: context.values[bind ?? ''] === choice,
      })),
    ],
  };
}
