import type { notice } from './definition.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';
import { wordSetting } from '../shared/setting.ts';
import { tones, type Tone } from './tones.ts';

export interface NoticeNode {
  show: 'notice';
  text: string;
  tone: Tone;
}

export const show = (component: ComponentOf<typeof notice>, context: ViewContext): NoticeNode => ({
  show: 'notice',
  text: context.text(component.text),
  tone: wordSetting(component.tone, tones, context.evaluator) ?? 'plain',
});
