import type { heading } from './definition.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';
import { numberSetting } from '../shared/setting.ts';

export interface HeadingNode {
  show: 'heading';
  text: string;
  level: number;
}

export const show = (component: ComponentOf<typeof heading>, context: ViewContext): HeadingNode => ({
  show: 'heading',
  text: context.text(component.text),
  level: numberSetting(component.level, 1, 4, context.evaluator) ?? 2,
});
