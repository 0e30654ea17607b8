import type { ComponentDefinition, ComponentOf } from '../../definition/content-schema.ts';
import type { DialogNode, Node } from '../nodes.ts';
import type { Shower } from '../shower.ts';

/** An open dialog; undefined while nothing opens it. */
export function dialog(
  component: ComponentOf<'dialog'>,
  shower: Shower,
  showAll: (content: readonly ComponentDefinition[]) => Node[],
): DialogNode | undefined {
  const { bind } = component;
  const value = shower.values[bind];
  if (value === undefined || value === false || value === '') return undefined;
  return {
    show: 'dialog',
    id: shower.newId(),
    label: shower.text(component.label),
    close: shower.changeAnchor('Close', { [bind]: undefined }),
    content: showAll(component.content),
  };
}
