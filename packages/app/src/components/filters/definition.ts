import { z } from 'zod';
import { report } from '../../definition/check/context.ts';
import { name, text } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';

/** What people can type or choose. */
const typed = ['text', 'integer', 'number', 'boolean', 'date', 'datetime', 'choice', 'record', 'page', 'sort', 'range', 'list', 'colour'];

export const filters = componentKind({
  name: 'filters',
  label: 'Filter form',
  sentence: 'Several boxes with one button: all values of the page change at once, in one step of the history.',
  example: { label: 'Filter the specimens', boxes: ['q', 'house', 'planted'], submit: 'Show', clear: 'Clear' },
  fields: {
    label: text.describe('What is filtered'),
    boxes: z.array(name).min(1).describe('Parameters of the page, in the path too, each of which gets a box'),
    keep: z.array(name).optional().describe('Other values to keep. By default, all except those that a box resets'),
    submit: text.optional().describe('What the button says'),
    clear: text.optional().describe('What the link says that empties all boxes'),
  },
  refersTo({ label, submit, clear, boxes, keep }, references) {
    references.text(['label'], label);
    references.text(['submit'], submit);
    references.text(['clear'], clear);
    for (const [index, box] of boxes.entries()) {
      references.bind(['boxes', index], box, typed);
      references.chosen.push(box);
    }
    for (const [index, kept] of (keep ?? []).entries()) references.bind(['keep', index], kept, [...typed, 'packed']);
  },
  check({ boxes }, { context, at, page }) {
    const declared = { ...context.definition.parameters, ...page.parameters };
    for (const [index, box] of boxes.entries()) {
      if (declared[box]?.sealed === undefined) continue;
      report(context, [...at, 'boxes', index], {
        code: 'binding-wrong-type',
        message: `“${box}” is sealed; nobody can type it.`,
        hint: 'Leave it out of the boxes; it stays as it is.',
      });
    }
  },
});
