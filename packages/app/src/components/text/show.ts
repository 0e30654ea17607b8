import type { text } from './definition.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';

export interface TextNode {
  show: 'text';
  text: string;
}

export const show = (component: ComponentOf<typeof text>, context: ViewContext): TextNode => ({
  show: 'text',
  text: context.text(component.text),
});
