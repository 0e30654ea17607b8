import type { ComponentOf } from '../../definition/content-schema.ts';
import { display } from '../../expressions/evaluator.ts';
import { recordType } from '../../expressions/page-scope.ts';
import type { ReadData } from '../material.ts';
import type { ListNode } from '../nodes.ts';
import type { Shower } from '../shower.ts';

/** What to say in the place of rows: none, none on this page of the list, or none asked for. */
export function emptyText(
  component: { empty?: string | undefined; beforeSearch?: string | undefined },
  data: ReadData | undefined,
  shower: Shower,
): string {
  if (data?.rows.length === 0 && data.total > 0) return 'The list does not have so many pages.';
  if (data?.unasked) return shower.text(component.beforeSearch, 'Nothing was searched for yet.');
  return shower.text(component.empty, 'Nothing found.');
}

export function list(component: ComponentOf<'list'>, shower: Shower): ListNode {
  const { material } = shower;
  const from = material.page.rows?.[component.rows]?.from ?? '';
  const key = material.app.collections?.[from]?.keyField ?? '';
  const data = material.data.rows[component.rows];
  const rowType = recordType(material.app, from);
  return {
    show: 'list',
    label: shower.text(component.label),
    entries: (data?.rows ?? []).map((row) => {
      const inRow = shower.evaluator.with('row', row, rowType);
      const picture = component.image === undefined ? undefined : shower.fileAddress(inRow.text(component.image));
      return {
        key: display(row[key]),
        link: shower.anchor(inRow.text(component.text), component.link, inRow),
        detail: component.detail === undefined ? '' : inRow.text(component.detail),
        ...(picture === undefined ? {} : { picture }),
      };
    }),
    empty: emptyText(component, data, shower),
  };
}
