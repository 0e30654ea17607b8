import { z } from 'zod';
import { suggest } from '@pallmist/address/explain';
import { report } from '../../definition/check/context.ts';
import { fixName } from '../../definition/check/fix-name.ts';
import { name } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';
import { nothingElse } from '../kind.ts';

export const block = componentKind({
  name: 'block',
  label: 'Block',
  sentence: 'Shows a block of the app file, with the values that you give it.',
  example: { of: 'plant-facts', values: { plant: '{param.specimen}', heading: 'Facts' }, content: [] },
  fields: {
    of: name.describe('The block'),
    values: z.record(name, z.unknown()).optional().describe('What it takes, by name: texts, expressions in braces, or names'),
  },
  inner: 'content',
  filledIn: true,
  refersTo: nothingElse,
  check({ of, values = {} }, { context, at }) {
    const { blocks = {} } = context.definition;
    const declared = Object.hasOwn(blocks, of) ? blocks[of] : undefined;
    if (declared === undefined) {
      report(context, [...at, 'of'], {
        code: 'unknown-block',
        message: `There is no block “${of}”.`,
        hint: suggest(of, Object.keys(blocks)),
        ...fixName([...at, 'of'], of, Object.keys(blocks)),
      });
      return;
    }
    const { takes = {} } = declared;
    for (const [input, { required, label }] of Object.entries(takes))
      if (required === true && values[input] === undefined)
        report(context, at, {
          code: 'missing-input',
          message: `The block “${of}” needs “${input}”${label === undefined ? '' : ` (${label})`}.`,
          hint: 'Add it under “values”.',
        });
    for (const given of Object.keys(values))
      if (!Object.hasOwn(takes, given))
        report(context, [...at, 'values', given], {
          code: 'unknown-input',
          message: `The block “${of}” takes no “${given}”.`,
          hint: suggest(given, Object.keys(takes)),
        });
  },
  toSend: ({ values: _, ...rest }) => rest,
});
