import type { AnyNode, ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';
import type { columns } from './definition.ts';

export interface ColumnsNode {
  show: 'columns';
  widths: 'equal' | 'side-first' | 'side-last';
  content: AnyNode[];
}

export const show = (component: ComponentOf<typeof columns>, context: ViewContext): ColumnsNode => ({
  show: 'columns',
  widths: component.widths ?? 'equal',
  content: context.showAll(component.content),
});
