import type { pager } from './definition.ts';
import type { ChangeAnchor } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';
import type { SelectNode } from '../select/show.ts';

export interface PagerNode {
  show: 'pager';
  page: number;
  pages: number;
  total: number;
  /** First and last record of this page, from 1. */
  from: number;
  to: number;
  previous?: ChangeAnchor;
  next?: ChangeAnchor;
  near: (ChangeAnchor & { current: boolean })[];
  size?: SelectNode;
}

export function show(component: ComponentOf<typeof pager>, context: ViewContext): PagerNode {
  const { total, page, size, rows } = context.payload.data.rows[component.rows] ?? { total: 0, page: 1, size: 1, rows: [] };
  const pages = Math.max(1, Math.ceil(total / size));
  const to = (number: number) => context.changeAnchor(String(number), { [component.bind]: number });
  return {
    show: 'pager',
    page,
    pages,
    total,
    from: rows.length === 0 ? 0 : (page - 1) * size + 1,
    to: rows.length === 0 ? 0 : (page - 1) * size + rows.length,
    ...(page > 1 ? { previous: to(Math.min(page - 1, pages)) } : {}),
    ...(page < pages ? { next: to(page + 1) } : {}),
    ...(component.size === undefined ? {} : { size: sizeSelect(component.size, component.sizes ?? [10, 25, 50, 100], size, context) }),
    near: nearPages(page, pages).map((number) => ({ ...to(number), current: number === page })),
  };
}

/** How many records a page has, to choose. */
function sizeSelect(bind: string, sizes: readonly number[], present: number, context: ViewContext): SelectNode {
  const all = [...new Set([...sizes, present])].sort((a, b) => a - b);
  return {
    show: 'select',
    name: bind,
    label: context.say('On a page'),
    value: String(present),
    options: all.map((size) => ({ value: String(size), text: String(size) })),
    form: context.keepingForm(bind),
  };
}

/** The first, the last, and those around the present page. */
function nearPages(page: number, pages: number): number[] {
  const wanted = [1, page - 2, page - 1, page, page + 1, page + 2, pages];
  return [...new Set(wanted)].filter((number) => number >= 1 && number <= pages).sort((a, b) => a - b);
}
