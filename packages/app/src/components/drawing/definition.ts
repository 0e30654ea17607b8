import { z } from 'zod';
import { report } from '../../definition/check/context.ts';
import { name, text } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';

/** Most cells that can be drawn: what they hold has to fit into an address. */
const mostCells = 1024;

export const drawing = componentKind({
  name: 'drawing',
  label: 'Drawing grid',
  sentence: 'A grid of cells to paint in colours; what is painted is in the address.',
  example: { bind: 'plan', label: 'Plan of the bed', columns: 12, rows: 8, colours: { soil: '#d9cbb4', lavender: '#7a5ea8' } },
  fields: {
    bind: name.describe('A packed parameter: a list with a text for each row, which has a digit for each cell, the number of its colour'),
    label: text.describe('What is drawn'),
    columns: z.number().int().min(1).max(64),
    rows: z.number().int().min(1).max(64),
    colours: z
      .record(name, z.string().regex(/^#[0-9a-f]{6}$/i, 'a colour as in #17695a'))
      .refine((colours) => Object.keys(colours).length >= 2 && Object.keys(colours).length <= 10, 'from 2 to 10 colours')
      .describe('Colours by name, at most 10; an empty cell has the first'),
  },
  refersTo(component, references) {
    references.text(['label'], component.label);
    references.bind(['bind'], component.bind, ['packed']);
  },
  check({ columns, rows }, { context, at }) {
    if (columns * rows <= mostCells) return;
    report(context, at, {
      code: 'too-large',
      message: `The grid has ${String(columns * rows)} cells, and an address has room for ${String(mostCells)}.`,
      hint: 'Give it fewer columns or rows.',
    });
  },
});
