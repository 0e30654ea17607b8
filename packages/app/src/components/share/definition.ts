import { z } from 'zod';
import { checkWithVisit } from '../../definition/check/links.ts';
import { text, withVisit } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';

const defaultDays = 90;

export const share = componentKind({
  name: 'share',
  label: 'Share',
  sentence: 'Copies the address of the page for sharing, also as a QR code or a short address.',
  example: { text: 'Share this view', qr: true, short: { days: 30 } },
  fields: {
    text: text.optional().describe('“Share this view” when left out'),
    withVisit,
    qr: z.boolean().optional().describe('Also a link to the address as a QR code, to print'),
    short: z
      .union([z.literal(true), z.strictObject({ days: z.number().int().min(1).max(3650) })])
      .optional()
      .describe('Also a button that makes a short address, which leads here for so many days; 90 when it says true'),
  },
  refersTo({ text: label, short }, references) {
    references.text(['text'], label);
    if (short !== undefined) references.shortAddressDays = short === true ? defaultDays : short.days;
  },
  check: (component, { context, at }) => {
    checkWithVisit(context, [...at, 'withVisit'], component.withVisit);
  },
});
