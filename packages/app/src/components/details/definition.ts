import { z } from 'zod';
import { link, name, path, text } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';
import { checkFieldPath } from '../shared/check-field-path.ts';

export const details = componentKind({
  name: 'details',
  label: 'Details',
  sentence: 'Shows fields of one record, each with its label.',
  example: { bind: 'specimen', fields: ['name', 'house.name', { label: 'Age', text: '{record.specimen.age} years' }] },
  fields: {
    bind: name.describe('The record parameter whose record is shown'),
    fields: z.array(z.union([path, z.strictObject({ label: text, text, to: link.optional() })])).min(1),
  },
  refersTo({ bind, fields }, references) {
    references.bind(['bind'], bind, ['record']);
    for (const [index, field] of fields.entries()) {
      if (typeof field === 'string') references.shown('record', bind, [field]);
      else {
        references.text(['fields', index, 'label'], field.label);
        references.text(['fields', index, 'text'], field.text);
        references.link(['fields', index, 'to'], field.to);
      }
    }
  },
  check({ bind, fields }, { context, at, page }) {
    const of = page.parameters?.[bind]?.of;
    for (const [index, field] of fields.entries())
      if (typeof field === 'string') checkFieldPath(context, [...at, 'fields', index], field, of);
  },
});
