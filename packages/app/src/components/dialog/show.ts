import type { dialog } from './definition.ts';
import type { ChangeAnchor } from '../../view/node-parts.ts';
import type { ViewContext, AnyNode } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';

/** An open dialog; a closed dialog gives no node. */
export interface DialogNode {
  show: 'dialog';
  id: string;
  label: string;
  close: ChangeAnchor;
  content: AnyNode[];
}

/** An open dialog; undefined while nothing opens it. */
export function show(component: ComponentOf<typeof dialog>, context: ViewContext): DialogNode | undefined {
  const { bind } = component;
  const value = context.values[bind];
  if (value === undefined || value === false || value === '') return undefined;
  return {
    show: 'dialog',
    id: context.newId(),
    label: context.text(component.label),
    close: context.changeAnchor(context.say('Close'), { [bind]: undefined }),
    content: context.showAll(component.content),
  };
}
