import { z } from 'zod';
import { quote } from '@pallmist/address/declare';
import { suggest } from '@pallmist/address/explain';
import { report } from '../../definition/check/context.ts';
import { fixName } from '../../definition/check/fix-name.ts';
import { name, text, value } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';

/** What a path may not have: a query, a fragment, a way up. */
const morePath = /[?#\\\s]|(?:^|\/)\.{1,2}(?:\/|$)/;

export const siteLink = componentKind({
  name: 'site-link',
  label: 'Link to another site',
  sentence: 'Leads to a site that the app names under “sites”.',
  example: { text: 'Order seeds', site: 'seeds', path: 'packets/{record.specimen.accession}', query: { amount: 2 } },
  fields: {
    text,
    site: name.describe('One of the app’s “sites”'),
    path: text.optional().describe('What follows the site’s own beginning; what expressions give is encoded and stays within its segment'),
    query: z.record(z.string().min(1).max(100), value).optional().describe('Query parameters; absent values are left out'),
    window: z.enum(['same', 'new']).optional().describe('Where it opens; in the same window when left out'),
  },
  refersTo(component, references) {
    references.text(['text'], component.text);
    references.text(['path'], component.path, { toSite: true });
    for (const [key, given] of Object.entries(component.query ?? {})) references.value(['query', key], given, { toSite: true });
  },
  check(component, { context, at }) {
    const sites = Object.keys(context.definition.sites ?? {});
    if (!sites.includes(component.site))
      report(context, [...at, 'site'], {
        code: 'unknown-site',
        message: `There is no site “${component.site}”.`,
        hint:
          sites.length === 0
            ? 'Name it under “sites” of the app file, with what its addresses begin with.'
            : suggest(component.site, sites),
        ...fixName([...at, 'site'], component.site, sites),
      });
    if (morePath.test((component.path ?? '').replaceAll(/\{[^}]*\}/g, '')))
      report(context, [...at, 'path'], {
        code: 'bad-path',
        message: `The path ${quote(component.path ?? '')} is more than a path.`,
        hint: 'Write segments parted by “/”; what follows “?” goes under “query”.',
      });
  },
});
