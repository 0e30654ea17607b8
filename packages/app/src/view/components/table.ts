import type { ComponentOf } from '../../definition/content-schema.ts';
import { recordType } from '../../expressions/page-scope.ts';
import type { SortKey } from '@pallmist/address';
import { display, type Evaluator } from '../../expressions/evaluator.ts';
import type { RecordData } from '../material.ts';
import type { Anchor, TableNode } from '../nodes.ts';
import { emptyText } from './list.ts';
import { spoken, type Shower } from '../shower.ts';

export function table(component: ComponentOf<'table'>, shower: Shower): TableNode {
  const { material } = shower;
  const from = material.page.rows?.[component.rows]?.from ?? '';
  const collection = material.app.collections?.[from];
  const data = material.data.rows[component.rows];
  const rowType = recordType(material.app, from);
  const columns = component.columns.map((column): TableNode['columns'][number] => {
    const at = column.field === undefined ? undefined : shower.fieldAt(from, column.field, {});
    const field = at?.definition;
    const label = column.label === undefined ? (at?.label ?? '') : shower.text(column.label);
    const align = column.align ?? (field?.type === 'integer' || field?.type === 'number' ? 'end' : 'start');
    const sort = sortAnchor(component.bind?.sort, column.field, label, shower);
    return {
      label: label || spoken(column.field ?? ''),
      align,
      whole: field !== undefined && ['date', 'integer', 'number', 'boolean'].includes(field.type),
      ...(sort ? { sort } : {}),
    };
  });
  const chosen = component.bind?.tick === undefined ? undefined : ((shower.values[component.bind.tick] ?? []) as unknown[]).map(display);
  const rows = (data?.rows ?? []).map((row): TableNode['rows'][number] => {
    const inRow = shower.evaluator.with('row', row, rowType);
    const href = component.link && shower.href(component.link, inRow);
    const key = display(row[collection?.keyField ?? '']);
    return {
      key,
      cells: component.columns.map((column) => cell(column, from, row, inRow, shower)),
      ...(href === undefined ? {} : { href }),
      ...(chosen ? { chosen: chosen.includes(key) } : {}),
      ...(component.edit ? { edit: shower.changeAnchor('Edit', { [component.edit.bind]: key }) } : {}),
    };
  });
  return {
    show: 'table',
    label: shower.text(component.label),
    columns,
    rows,
    total: data?.total ?? 0,
    empty: emptyText(component, data, shower),
    ...(component.bind?.tick === undefined || chosen === undefined
      ? {}
      : { choose: { name: component.bind.tick, chosen, form: shower.keepingForm(component.bind.tick) } }),
    ...editedRow(component, rows, from, shower),
  };
}

/** The row that is being edited, as a form. */
function editedRow(
  { edit, label }: ComponentOf<'table'>,
  rows: TableNode['rows'],
  from: string,
  shower: Shower,
): Pick<TableNode, 'edited'> {
  const key = edit && shower.values[edit.bind];
  if (edit === undefined || shower.formParts === undefined || typeof key !== 'string' || !rows.some((row) => row.key === key)) return {};
  const record = shower.material.data.records[edit.bind] ?? {};
  return {
    edited: {
      key,
      form: shower.formParts.recordForm({ ...edit, action: 'change', collection: from, label: shower.text(label) }, record, shower),
      cancel: shower.changeAnchor('Leave it', { [edit.bind]: undefined }),
    },
  };
}

function cell(
  { field = '', text, to }: ComponentOf<'table'>['columns'][number],
  from: string,
  row: RecordData,
  inRow: Evaluator,
  shower: Shower,
): Anchor {
  if (text !== undefined) return shower.anchor(inRow.text(text), to, inRow);
  const { value } = shower.fieldAt(from, field, row);
  return to === undefined ? value : shower.anchor(value.text, to, inRow);
}

/** A heading that sorts: first ascending, then descending. Undefined where the column cannot be sorted by. */
function sortAnchor(
  bind: string | undefined,
  field: string | undefined,
  label: string,
  shower: Shower,
): TableNode['columns'][number]['sort'] {
  const parameter = bind === undefined ? undefined : shower.app.pages.get(shower.material.name)?.byName.get(bind);
  if (bind === undefined || field === undefined || parameter === undefined) return undefined;
  const present = (shower.values[bind] ?? []) as readonly SortKey[];
  const first = present[0]?.field === field ? present[0] : undefined;
  const next: SortKey[] = [{ field, descending: first !== undefined && !first.descending }];
  if (parameter.parameter.write(next) === undefined) return undefined;
  const direction = first === undefined ? 'none' : first.descending ? 'descending' : 'ascending';
  return { ...shower.changeAnchor(label, { [bind]: next }), direction };
}
