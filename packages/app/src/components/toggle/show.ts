import type { toggle } from './definition.ts';
import type { ChangeAnchor } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';

export interface ToggleNode {
  show: 'toggle';
  on: boolean;
  /** Turns it over. */
  turn: ChangeAnchor;
}

export function show(component: ComponentOf<typeof toggle>, context: ViewContext): ToggleNode {
  const on = context.values[component.bind] === true;
  return { show: 'toggle', on, turn: context.changeAnchor(context.text(component.label), { [component.bind]: !on }) };
}
