import type { image } from './definition.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';
import { numberSetting } from '../shared/setting.ts';

export interface ImageNode {
  show: 'image';
  source: string;
  alt: string;
  width?: number;
}

export function show(component: ComponentOf<typeof image>, context: ViewContext): ImageNode {
  const width = numberSetting(component.width, 1, 4000, context.evaluator);
  return {
    show: 'image',
    source: context.fileAddress(context.text(component.file)) ?? '',
    alt: context.text(component.alt),
    ...(width === undefined ? {} : { width }),
  };
}
