import { componentsIn, type PageMaterial } from '@pallmist/app/view';

/** What only some pages need, each loaded by itself. */
export type Part = 'cel' | 'packed' | 'forms' | 'seldom';

const forms = new Set(['form', 'ask', 'sign-in', 'sign-up']);
const seldom = new Set(['share', 'language', 'list', 'input']);

/** The parts that a page needs. */
export function partsFor({ cel, packed, page }: PageMaterial): Set<Part> {
  const parts = new Set<Part>();
  if (cel) parts.add('cel');
  if (packed) parts.add('packed');
  for (const component of componentsIn(page.content)) {
    if (forms.has(component.show) || (component.show === 'table' && component.edit)) parts.add('forms');
    if (seldom.has(component.show)) parts.add('seldom');
  }
  return parts;
}
