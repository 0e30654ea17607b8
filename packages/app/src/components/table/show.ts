import type { table } from './definition.ts';
import type { SortKey } from '@pallmist/address';
import { display, type Evaluator } from '../../expressions/evaluator.ts';
import { recordType } from '../../expressions/page-scope.ts';
import type { RecordData } from '../../view/page-payload.ts';
import type { Anchor, ChangeAnchor, KeepingForm } from '../../view/node-parts.ts';
import { spoken } from '../../view/spoken.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { FormNode } from '../form/show.ts';
import type { ComponentOf } from '../kind.ts';
import { wordSetting } from '../shared/setting.ts';
import { emptyText } from '../shared/empty-text.ts';

export interface TableNode {
  show: 'table';
  label: string;
  columns: {
    label: string;
    align: 'start' | 'end';
    whole: boolean;
    sort?: ChangeAnchor & { direction: 'ascending' | 'descending' | 'none' };
  }[];
  rows: { key: string; cells: Anchor[]; href?: string; chosen?: boolean; edit?: ChangeAnchor }[];
  total: number;
  /** In a narrow window each row becomes a card. */
  cards?: true;
  empty: string;
  /** Rows can be chosen. */
  choose?: { name: string; chosen: string[]; form: KeepingForm };
  /** The row that is being edited. */
  edited?: { key: string; /** What the row is called. */ title: string; form: FormNode; cancel: ChangeAnchor };
}

export function show(component: ComponentOf<typeof table>, context: ViewContext): TableNode {
  const { payload } = context;
  const from = payload.page.rows?.[component.rows]?.from ?? '';
  const collection = payload.app.collections?.[from];
  const data = payload.data.rows[component.rows];
  const rowType = recordType(payload.app, from);
  const columns = component.columns.map((column): TableNode['columns'][number] => {
    const at = column.field === undefined ? undefined : context.fieldAt(from, column.field, {});
    const field = at?.definition;
    const label = column.label === undefined ? (at?.label ?? '') : context.text(column.label);
    const align =
      wordSetting(column.align, ['start', 'end'], context.evaluator) ??
      (field?.type === 'integer' || field?.type === 'number' ? 'end' : 'start');
    const sort = sortAnchor(component.bind?.sort, column.field, label, context);
    return {
      label: label || spoken(column.field ?? ''),
      align,
      whole: field !== undefined && ['date', 'integer', 'number', 'boolean'].includes(field.type),
      ...(sort ? { sort } : {}),
    };
  });
  const chosen =
    component.bind?.tick === undefined
      ? undefined
      : ((context.values[component.bind.tick] ?? []) as unknown[]).map((value) => display(value));
  const rows = (data?.rows ?? []).map((row): TableNode['rows'][number] => {
    const inRow = context.evaluator.with('row', row, rowType);
    const href = component.link && context.href(component.link, inRow);
    const key = display(row[collection?.keyField ?? '']);
    return {
      key,
      cells: component.columns.map((column) => cell(column, from, row, inRow, context)),
      ...(href === undefined ? {} : { href }),
      ...(chosen ? { chosen: chosen.includes(key) } : {}),
      ...(component.edit ? { edit: context.changeAnchor(context.say('Edit'), { [component.edit.bind]: key }) } : {}),
    };
  });
  return {
    show: 'table',
    label: context.text(component.label),
    columns,
    rows,
    total: data?.total ?? 0,
    ...(component.narrow === 'cards' ? { cards: true } : {}),
    empty: emptyText(component, data, context),
    ...(component.bind?.tick === undefined || chosen === undefined
      ? {}
      : { choose: { name: component.bind.tick, chosen, form: context.keepingForm(component.bind.tick) } }),
    ...editedRow(component, rows, from, context),
  };
}

/** The row that is being edited, as a form, even if it is on another page of the list. */
function editedRow(
  { edit, label, columns }: ComponentOf<typeof table>,
  rows: TableNode['rows'],
  from: string,
  context: ViewContext,
): Pick<TableNode, 'edited'> {
  const key = edit && context.values[edit.bind];
  const record = context.payload.data.records[edit?.bind ?? ''];
  const row = rows.find((one) => one.key === key);
  if (edit === undefined || typeof key !== 'string' || record === undefined) return {};
  // Another row's record, until this one has come: what is typed meanwhile would be lost.
  const shown = record[context.payload.app.collections?.[from]?.keyField ?? ''];
  if (shown !== undefined && display(shown) !== key) return {};
  const form = context.show({ ...edit, show: 'form', action: 'change', collection: from, label }) as FormNode | undefined;
  if (form === undefined) return {};
  const title = row?.cells[0]?.text ?? (columns[0]?.field === undefined ? '' : context.fieldAt(from, columns[0].field, record).value.text);
  return { edited: { key, title: title || key, form, cancel: context.changeAnchor(context.say('Leave it'), { [edit.bind]: undefined }) } };
}

function cell(
  { field = '', text, to }: ComponentOf<typeof table>['columns'][number],
  from: string,
  row: RecordData,
  inRow: Evaluator,
  context: ViewContext,
): Anchor {
  if (text !== undefined) return context.anchor(inRow.text(text), to, inRow);
  const { value } = context.fieldAt(from, field, row);
  return to === undefined ? value : context.anchor(value.text, to, inRow);
}

/** A heading that sorts: first ascending, then descending. Undefined where the column cannot be sorted by. */
function sortAnchor(
  bind: string | undefined,
  field: string | undefined,
  label: string,
  context: ViewContext,
): TableNode['columns'][number]['sort'] {
  const parameter = bind === undefined ? undefined : context.app.pages.get(context.payload.name)?.byName.get(bind);
  if (bind === undefined || field === undefined || parameter === undefined) return undefined;
  const present = (context.values[bind] ?? []) as readonly SortKey[];
  const first = present[0]?.field === field ? present[0] : undefined;
  const next: SortKey[] = [{ field, descending: first !== undefined && !first.descending }];
  if (parameter.parameter.write(next) === undefined) return undefined;
  const direction = first === undefined ? 'none' : first.descending ? 'descending' : 'ascending';
  return { ...context.changeAnchor(label, { [bind]: next }), direction };
}
