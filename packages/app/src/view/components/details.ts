import type { ComponentOf } from '../../definition/content-schema.ts';
import type { DetailsNode } from '../nodes.ts';
import type { Shower } from '../shower.ts';

export function details(component: ComponentOf<'details'>, shower: Shower): DetailsNode {
  const from = shower.declaration(component.bind)?.of ?? '';
  const record = shower.material.data.records[component.bind] ?? {};
  return {
    show: 'details',
    entries: component.fields.map((field) => {
      if (typeof field !== 'string') return { label: shower.text(field.label), value: shower.anchor(shower.text(field.text), field.to) };
      const { label, value } = shower.fieldAt(from, field, record);
      return { label, value };
    }),
  };
}
