import { z } from 'zod';
import { withVisit, link, name, text, value } from '../schema-parts.ts';
import { when } from './when.ts';

export const heading = z.strictObject({
  show: z.literal('heading'),
  text,
  level: z.number().int().min(1).max(4).optional().describe('1 is the page’s own heading; 2 when left out'),
  when,
});

export const paragraph = z.strictObject({ show: z.literal('text'), text, when });

export const notice = z.strictObject({
  show: z.literal('notice'),
  text,
  tone: z.enum(['plain', 'good', 'warning']).optional(),
  when,
});

export const image = z.strictObject({
  show: z.literal('image'),
  file: text.describe('Name of a file in the folder “images” beside the app file'),
  alt: text.describe('What it shows, for those who do not see it; empty where it is mere decoration'),
  width: z.number().int().min(1).max(4000).optional().describe('In CSS pixels, at most as wide as the page'),
  when,
});

export const anchor = z.strictObject({
  show: z.literal('link'),
  text,
  to: link,
  look: z.enum(['link', 'button']).optional().describe('A link in the text, or a button; “link” when left out'),
  when,
});

export const navigation = z.strictObject({
  show: z.literal('navigation'),
  label: text.optional().describe('What the links have in common, for those who do not see them'),
  links: z
    .array(z.strictObject({ text, to: link }))
    .min(1)
    .optional(),
  bind: name.optional().describe('Instead of links: a choice parameter, each of whose choices becomes an entry'),
  when,
});

export const back = z.strictObject({
  show: z.literal('back'),
  text,
  to: link.describe('The page to lead back to: as it was left, or, where the visitor came from elsewhere, as it stands here'),
  when,
});

export const share = z.strictObject({
  show: z.literal('share'),
  text: text.optional().describe('“Share this view” when left out'),
  withVisit,
  qr: z.boolean().optional().describe('Also a link to the address as a QR code, to print'),
  short: z
    .union([z.literal(true), z.strictObject({ days: z.number().int().min(1).max(3650) })])
    .optional()
    .describe('Also a button that makes a short address, which leads here for so many days; 90 when it says true'),
  when,
});

export const language = z.strictObject({
  show: z.literal('language'),
  label: text.optional().describe('“Language” when left out'),
  when,
});

export const siteLink = z.strictObject({
  show: z.literal('site-link'),
  text,
  site: name.describe('One of the app’s “sites”'),
  path: text.optional().describe('What follows the site’s own beginning; what expressions give is encoded and stays within its segment'),
  query: z.record(z.string().min(1).max(100), value).optional().describe('Query parameters; absent values are left out'),
  window: z.enum(['same', 'new']).optional().describe('Where it opens; in the same window when left out'),
  when,
});
