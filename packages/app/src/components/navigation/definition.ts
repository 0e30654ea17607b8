import { z } from 'zod';
import { toPointer } from '@pallmist/address/declare';
import { report } from '../../definition/check/context.ts';
import { link, name, text } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';

export const navigation = componentKind({
  name: 'navigation',
  label: 'Navigation',
  sentence: 'A row of links, or an entry for each choice of a parameter.',
  example: { label: 'Parts of this page', bind: 'part' },
  fields: {
    label: text.optional().describe('Accessible name of the navigation'),
    links: z
      .array(z.strictObject({ text, to: link }))
      .min(1)
      .optional(),
    bind: name.optional().describe('Instead of links: a choice parameter, each of whose choices becomes an entry'),
  },
  refersTo(component, references) {
    references.text(['label'], component.label);
    references.bind(['bind'], component.bind, ['choice']);
    for (const [index, entry] of (component.links ?? []).entries()) {
      references.text(['links', index, 'text'], entry.text);
      references.link(['links', index, 'to'], entry.to);
    }
  },
  check({ links, bind }, { context, at }) {
    if ((links === undefined) !== (bind === undefined)) return;
    report(context, at, {
      code: 'links-or-bind',
      message: links === undefined ? 'The navigation has neither links nor a parameter.' : 'The navigation has links and a parameter.',
      hint: 'Give it “links”, or “bind” it to a choice parameter.',
      ...(bind === undefined ? {} : { fix: [{ op: 'remove' as const, path: toPointer([...at, 'bind']) }] }),
    });
  },
});
