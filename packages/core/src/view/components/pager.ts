import type { ComponentOf } from '../../definition/content-schema.ts';
import type { PagerNode } from '../nodes.ts';
import type { Shower } from '../shower.ts';

export function pager(component: ComponentOf<'pager'>, shower: Shower): PagerNode {
  const { total, page, size, rows } = shower.material.data.reads[component.rows] ?? { total: 0, page: 1, size: 1, rows: [] };
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
    near: nearPages(page, pages).map((number) => ({ ...to(number), current: number === page })),
  };
}

/** The first, the last, and those around the present page. */
function nearPages(page: number, pages: number): number[] {
  const wanted = [1, page - 2, page - 1, page, page + 1, page + 2, pages];
  return [...new Set(wanted)].filter((number) => number >= 1 && number <= pages).sort((a, b) => a - b);
}
