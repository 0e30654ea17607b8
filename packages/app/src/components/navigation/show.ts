import type { navigation } from './definition.ts';
import type { Values } from '@pallmist/address/declare';
import type { Anchor } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';

export interface NavigationNode {
  show: 'navigation';
  label: string;
  /** `current` as in `aria-current`: the page itself, or a part of the app in which it is. */
  links: (Anchor & { current?: 'page' | 'true'; change?: Values })[];
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
        ...currentOf(entry.to.page, context),
      })),
      ...Object.entries(bind === undefined ? {} : (choices ?? {})).map(([choice, label]) => ({
        ...context.changeAnchor(context.choice(label), { [bind ?? '']: choice }),
        ...(context.values[bind ?? ''] === choice ? { current: 'page' as const } : {}),
      })),
    ],
  };
}

/** A link is current on its own page, and on the pages whose addresses go on from its own. */
function currentOf(page: string, { app, payload }: ViewContext): { current?: 'page' | 'true' } {
  if (page === payload.name) return { current: 'page' };
  const segments = (name: string) => (app.pages.get(name)?.template.segments ?? []).map((segment) => JSON.stringify(segment));
  const [above, here] = [segments(page), segments(payload.name)];
  return above.length > 0 && above.length < here.length && above.every((segment, index) => segment === here[index])
    ? { current: 'true' }
    : {};
}
