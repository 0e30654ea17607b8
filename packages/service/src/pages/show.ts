import { randomBytes } from 'node:crypto';
import { renderPage, type Assets } from '@pallmist/pages/server';
import { formNamesOf, type FormState } from '@pallmist/app';
import { KeptPage } from './kept-page.ts';
import { tools, type AskedAs, type Loaded } from './steps.ts';

/** What stands in a page, while it is kept, for the one-time mark of its forms; no visitor can know and write it. */
const onceMark = `once-${randomBytes(16).toString('hex')}`;

/** A page as it is sent: a document, or data for a browser that draws it itself. @param base where the public reaches the service */
export function show(
  { payload, page }: Loaded,
  as: AskedAs,
  { assets, base }: { assets: Assets; base: () => string },
  again?: Record<string, FormState>,
): string {
  const marked = formNamesOf(page).size > 0 ? { once: onceMark } : {};
  const shown = { ...payload, ...marked, ...(again ? { forms: { ...payload.forms, ...again } } : {}) };
  return as === 'document' ? renderPage(shown, tools, assets, base()) : JSON.stringify(shown);
}

/** A page as it is kept: ready to be sent where each visitor gets the same bytes. */
export const toKeep = (body: string): string | KeptPage => (body.includes(onceMark) ? body : new KeptPage(body));

/** Puts a mark into a page’s forms that no other answer has: by it a form that is sent twice is known. */
export const withOnce = (body: string): string =>
  body.includes(onceMark) ? body.replaceAll(onceMark, randomBytes(16).toString('base64url')) : body;
