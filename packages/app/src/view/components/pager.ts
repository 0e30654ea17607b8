import type { ComponentOf } from '../../definition/content-schema.ts';
import type { PagerNode, SelectNode } from '../nodes.ts';
import type { Shower } from '../shower.ts';

export function pager(component: ComponentOf<'pager'>, shower: Shower): PagerNode {
  const { total, page, size, rows } = shower.material.data.rows[component.rows] ?? { total: 0, page: 1, size: 1, rows: [] };
  const pages = Math.max(1, Math.ceil(total / size));
  const to = (number: number) => shower.changeAnchor(String(number), { [component.bind]: number });
  return {
    show: 'pager',
    page,
    pages,
    total,
    from: rows.length === 0 ? 0 : (page - 1) * size + 1,
    to: rows.length === 0 ? 0 : (page - 1) * size + rows.length,
    ...(page > 1 ? { previous: to(Math.min(page - 1, pages)) } : {}),
    ...(page < pages ? { next: to(page + 1) } : {}),
    ...(component.size === undefined ? {} : { size: sizeSelect(component.size, component.sizes ?? [10, 25, 50, 100], size, shower) }),
    near: nearPages(page, pages).map((number) => ({ ...to(number), current: number === page })),
  };
}

/** How many records a page has, to choose. */
function sizeSelect(bind: string, sizes: readonly number[], present: number, shower: Shower): SelectNode {
  const all = [...new Set([...sizes, present])].sort((a, b) => a - b);
  return {
    show: 'select',
    name: bind,
    label: 'On a page',
    value: String(present),
    options: all.map((size) => ({ value: String(size), text: String(size) })),
    form: shower.keepingForm(bind),
  };
}

/** The first, the last, and those around the present page. */
function nearPages(page: number, pages: number): number[] {
  const wanted = [1, page - 2, page - 1, page, page + 1, page + 2, pages];
  return [...new Set(wanted)].filter((number) => number >= 1 && number <= pages).sort((a, b) => a - b);
}
