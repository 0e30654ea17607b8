import type { block } from './definition.ts';
import type { ViewContext, AnyNode } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';

export interface BlockNode {
  show: 'block';
  content: AnyNode[];
}

export const show = (component: ComponentOf<typeof block>, context: ViewContext): BlockNode => ({
  show: 'block',
  content: context.showAll(component.content),
});
