import type { language } from './definition.ts';
import type { ChangeAnchor } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';

export interface LanguageNode {
  show: 'language';
  label: string;
  languages: (ChangeAnchor & { tag: string; current: boolean })[];
}

export function show(component: ComponentOf<typeof language>, context: ViewContext): LanguageNode {
  const name = context.payload.app.language ?? '';
  return {
    show: 'language',
    label: context.text(component.label, 'Language'),
    languages: Object.entries(context.payload.app.choices?.[context.declaration(name)?.of ?? ''] ?? {}).map(([tag, label]) => ({
      ...context.changeAnchor(context.choice(label), { [name]: tag }),
      tag,
      current: context.language === tag,
    })),
  };
}
