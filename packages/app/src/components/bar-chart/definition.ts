import { z } from 'zod';
import { report } from '../../definition/check/context.ts';
import { name, orExpression, text } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';
import { checkFieldPath } from '../shared/check-field-path.ts';

export const barChart = componentKind({
  name: 'bar-chart',
  label: 'Bar chart',
  sentence: 'Counts rows by the values of a field, on all pages of the list; a bar can set a parameter.',
  example: { rows: 'found', field: 'health', label: 'Specimens by health', bind: 'health' },
  fields: {
    rows: name.describe('The rows of the page that are counted'),
    field: name.describe('The field by whose values they are counted'),
    label: text.describe('What the chart shows'),
    bind: name.optional().describe('The parameter that a click on a bar sets to its value, and clears when it has it'),
    most: orExpression(z.number().int().min(2).max(40))
      .optional()
      .describe('How many bars it has; the others are added up. 12 when left out'),
    empty: text.optional().describe('The text to show when there are no rows'),
  },
  refersTo({ rows, field, label, bind, empty, most }, references) {
    references.setting(['most'], most, 'number');
    references.text(['label'], label);
    references.text(['empty'], empty);
    references.bind(['bind'], bind, ['choice', 'record', 'text', 'integer', 'boolean', 'date']);
    references.rowsOf(rows);
    references.shown('rows', rows, [field]);
    references.counted.push({ rows, field });
  },
  check({ rows, field, bind }, { context, at, page }) {
    const from = page.rows?.[rows]?.from;
    checkFieldPath(context, [...at, 'field'], field, from);
    const declared = context.definition.collections?.[from ?? '']?.fields[field];
    const bound = page.parameters?.[bind ?? ''] ?? context.definition.parameters?.[bind ?? ''];
    if (declared === undefined || bound === undefined || (bound.type === declared.type && bound.of === declared.of)) return;
    const what = declared.of === undefined ? `a ${declared.type}` : `a ${declared.type} of “${declared.of}”`;
    report(context, [...at, 'bind'], {
      code: 'binding-wrong-type',
      message: `“${bind ?? ''}” cannot have the values of “${field}”, which is ${what}.`,
      hint: `Bind it to a parameter that is ${what}.`,
    });
  },
});
