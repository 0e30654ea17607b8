import { z } from 'zod';
import { name, orExpression, text } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';
import { nothingElse } from '../kind.ts';

export const input = componentKind({
  name: 'input',
  label: 'Input',
  sentence: 'A box for a text, number, date, moment, colour or JSON value; two for a range, one for each item of a list.',
  example: { bind: 'planted', label: 'Planted' },
  fields: {
    bind: name.describe(
      'A text, number, date, datetime (in the app’s time zone), colour or packed value (as JSON), a range (two boxes), or a list (a box for each item)',
    ),
    label: text,
    lines: orExpression(z.number().int().min(1).max(40)).optional().describe('For a text: how many lines the box has; 1 when left out'),
  },
  refersTo(component, references) {
    references.text(['label'], component.label);
    references.bind(['bind'], component.bind, ['text', 'date', 'datetime', 'colour', 'packed', 'integer', 'number', 'range', 'list']);
    references.setting(['lines'], component.lines, 'number');
  },
  check: nothingElse,
});
