import type { list } from './definition.ts';
import { display } from '../../expressions/evaluator.ts';
import { recordType } from '../../expressions/page-scope.ts';
import type { Anchor } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';
import { emptyText } from '../shared/empty-text.ts';

export interface ListNode {
  show: 'list';
  label: string;
  entries: { key: string; link: Anchor; detail: string; picture?: string }[];
  empty: string;
}

export function show(component: ComponentOf<typeof list>, context: ViewContext): ListNode {
  const { payload } = context;
  const from = payload.page.rows?.[component.rows]?.from ?? '';
  const key = payload.app.collections?.[from]?.keyField ?? '';
  const data = payload.data.rows[component.rows];
  const rowType = recordType(payload.app, from);
  return {
    show: 'list',
    label: context.text(component.label),
    entries: (data?.rows ?? []).map((row) => {
      const inRow = context.evaluator.with('row', row, rowType);
      const picture = component.image === undefined ? undefined : context.fileAddress(inRow.text(component.image));
      return {
        key: display(row[key]),
        link: context.anchor(inRow.text(component.text), component.link, inRow),
        detail: component.detail === undefined ? '' : inRow.text(component.detail),
        ...(picture === undefined ? {} : { picture }),
      };
    }),
    empty: emptyText(component, data, context),
  };
}
