import type { back } from './definition.ts';
import type { Anchor } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';

/** Leads back to where the visitor came from; with JavaScript through the history, so that everything is as it was left. */
export interface BackNode {
  show: 'back';
  link: Anchor;
  /** Whether the visitor came from there. */
  cameFrom: boolean;
}

export function show(component: ComponentOf<typeof back>, context: ViewContext): BackNode {
  const { previous } = context.payload;
  const cameFrom = previous?.page === component.to.page;
  const text = context.text(component.text);
  return { show: 'back', cameFrom, link: cameFrom ? { text, href: previous.address } : context.anchor(text, component.to) };
}
