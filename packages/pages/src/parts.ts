import { componentsIn, isTranslated, languageOf, type PagePayload } from '@pallmist/app/view';
import { commonRenderers } from './components/common-components.ts';
import type { formRenderers } from './components/form-components.ts';

/** What only some pages need, each loaded by itself. */
export type Part = 'cel' | 'packed' | 'forms' | 'lazy' | 'phrases';

const forms: Record<keyof typeof formRenderers, true> = { ask: true, filters: true, form: true, 'sign-in': true, 'sign-up': true };

/** The parts that a page needs. */
export function partsFor({ app, cel, packed, page, reading }: PagePayload): Set<Part> {
  const parts = new Set<Part>();
  if (isTranslated(languageOf(app, reading.values))) parts.add('phrases');
  if (cel) parts.add('cel');
  if (packed) parts.add('packed');
  for (const { show, edit } of componentsIn(page.content)) {
    // A table with a row to edit draws a form.
    if (show in forms || edit !== undefined) parts.add('forms');
    else if (!(show in commonRenderers)) parts.add('lazy');
  }
  return parts;
}
