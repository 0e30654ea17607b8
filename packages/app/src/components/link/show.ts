import type { link } from './definition.ts';
import type { Anchor } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';
import { wordSetting } from '../shared/setting.ts';

export interface LinkNode {
  show: 'link';
  link: Anchor;
  look?: 'button';
}

export const show = (component: ComponentOf<typeof link>, context: ViewContext): LinkNode => ({
  show: 'link',
  link: context.anchor(context.text(component.text), component.to),
  ...(wordSetting(component.look, ['link', 'button'], context.evaluator) === 'button' ? { look: 'button' } : {}),
});
