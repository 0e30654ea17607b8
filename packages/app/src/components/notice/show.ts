import type { notice } from './definition.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';

export interface NoticeNode {
  show: 'notice';
  text: string;
  tone: 'plain' | 'good' | 'warning';
}

export const show = (component: ComponentOf<typeof notice>, context: ViewContext): NoticeNode => ({
  show: 'notice',
  text: context.text(component.text),
  tone: component.tone ?? 'plain',
});
