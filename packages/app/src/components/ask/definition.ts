import { z } from 'zod';
import { suggest } from '@pallmist/address/explain';
import { report } from '../../definition/check/context.ts';
import { fixName } from '../../definition/check/fix-name.ts';
import { name, text, value } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';

export const ask = componentKind({
  name: 'ask',
  label: 'Form that leads to a page',
  sentence: 'Asks for parameters of another page and leads there; it saves nothing.',
  example: { label: 'Find a specimen', page: 'specimens', boxes: ['q', 'house'], submit: 'Search' },
  fields: {
    label: text.describe('What is asked for'),
    page: name.describe('The page that the answers are sent to'),
    boxes: z.array(name).min(1).describe('Parameters of that page, in its path too, each of which gets a box'),
    values: z.record(name, value).optional().describe('Values for other parameters of that page'),
    submit: text.optional().describe('What the button says'),
  },
  refersTo({ label, submit, page, boxes, values }, references) {
    references.text(['label'], label);
    references.text(['submit'], submit);
    references.ways.push({ page, boxes, values });
    for (const [key, given] of Object.entries(values ?? {})) references.value(['values', key], given);
  },
  check({ page, boxes, values }, { context, at }) {
    const target = context.compiled.pages.get(page);
    if (target === undefined) return;
    const known = target.parameters.map((parameter) => parameter.name);
    for (const [index, box] of boxes.entries()) {
      if (known.includes(box)) continue;
      report(context, [...at, 'boxes', index], {
        code: 'undeclared',
        message: `The page “${page}” has no parameter “${box}”.`,
        hint: suggest(box, known),
        ...fixName([...at, 'boxes', index], box, known),
      });
    }
    for (const parameter of target.parameters) {
      if (!parameter.required || boxes.includes(parameter.name) || values?.[parameter.name] !== undefined) continue;
      report(context, at, {
        code: 'link-missing-value',
        message: `The page “${page}” requires “${parameter.name}”, which is not asked for.`,
        hint: 'Give it under “values”.',
      });
    }
  },
});
