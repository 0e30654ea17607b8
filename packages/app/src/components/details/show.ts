import type { details } from './definition.ts';
import type { Anchor } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';

export interface DetailsNode {
  show: 'details';
  entries: { label: string; value: Anchor }[];
}

export function show(component: ComponentOf<typeof details>, context: ViewContext): DetailsNode {
  const from = context.declaration(component.bind)?.of ?? '';
  const record = context.payload.data.records[component.bind] ?? {};
  return {
    show: 'details',
    entries: component.fields.map((field) => {
      if (typeof field !== 'string') return { label: context.text(field.label), value: context.anchor(context.text(field.text), field.to) };
      const { label, value } = context.fieldAt(from, field, record);
      return { label, value };
    }),
  };
}
