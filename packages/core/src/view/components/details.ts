import type { ComponentOf } from '../../definition/content-schema.ts';
import type { DetailsNode } from '../nodes.ts';
import type { Shower } from '../shower.ts';

export function details(component: ComponentOf<'details'>, shower: Shower): DetailsNode {
  const from = shower.material.page.parameters?.[component.record]?.of ?? '';
  const record = shower.material.data.records[component.record] ?? {};
  const fields = shower.material.app.collections?.[from]?.fields;
  return {
    show: 'details',
    entries: component.fields.map((field) =>
      typeof field === 'string'
        ? { label: shower.fieldLabel(from, field), value: { text: shower.field(fields?.[field], record[field]) } }
        : { label: shower.text(field.label), value: shower.anchor(shower.text(field.text), field.to) },
    ),
  };
}
