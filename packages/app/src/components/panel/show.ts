import type { panel } from './definition.ts';
import type { ViewContext, AnyNode } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';

export interface PanelNode {
  show: 'panel';
  label: string;
  content: AnyNode[];
}

export const show = (component: ComponentOf<typeof panel>, context: ViewContext): PanelNode => ({
  show: 'panel',
  label: context.text(component.label),
  content: context.showAll(component.content),
});
