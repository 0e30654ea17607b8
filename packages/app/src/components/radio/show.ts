import { show as showSelect } from '../select/show.ts';
import type { radio } from './definition.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';
import type { SelectNode } from '../select/show.ts';

/** As a select, every choice in sight. */
export interface RadioNode extends Omit<SelectNode, 'show'> {
  show: 'radio';
}

export const show = (component: ComponentOf<typeof radio>, context: ViewContext): RadioNode => ({
  ...showSelect({ ...component, show: 'select' }, context),
  show: 'radio',
});
