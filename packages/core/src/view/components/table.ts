import type { ComponentOf } from '../../definition/content-schema.ts';
import { recordType } from '../../expressions/page-scope.ts';
import type { SortKey } from '../../parameters/declaration.ts';
import { display } from '../../expressions/evaluator.ts';
import type { TableNode } from '../nodes.ts';
import { spoken, type Shower } from '../shower.ts';

export function table(component: ComponentOf<'table'>, shower: Shower): TableNode {
  const { material } = shower;
  const from = material.page.reads?.[component.rows]?.from ?? '';
  const collection = material.app.collections?.[from];
  const data = material.data.reads[component.rows];
  const rowType = recordType(material.app, from);
  const columns = component.columns.map((column): TableNode['columns'][number] => {
    const field = column.field === undefined ? undefined : collection?.fields[column.field];
    const label = column.label === undefined ? shower.fieldLabel(from, column.field ?? '') : shower.text(column.label);
    const align = column.align ?? (field?.type === 'integer' || field?.type === 'number' ? 'end' : 'start');
    const sort = sortAnchor(component.sort, column.field, label, shower);
    return {
      label: label || spoken(column.field ?? ''),
      align,
      whole: field !== undefined && ['date', 'integer', 'number', 'boolean'].includes(field.type),
      ...(sort ? { sort } : {}),
    };
  });
  const rows = (data?.rows ?? []).map((row) => {
    const inRow = shower.evaluator.with('row', row, rowType);
    const href = component.link && shower.href(component.link, inRow);
    return {
      key: display(row[collection?.key ?? '']),
      cells: component.columns.map((column) =>
        column.text === undefined ? shower.field(collection?.fields[column.field ?? ''], row[column.field ?? '']) : inRow.text(column.text),
      ),
      ...(href === undefined ? {} : { href }),
    };
  });
  const beyond = rows.length === 0 && (data?.total ?? 0) > 0;
  return {
    show: 'table',
    label: shower.text(component.label),
    columns,
    rows,
    total: data?.total ?? 0,
    empty: beyond ? 'The list does not have so many pages.' : shower.text(component.empty, 'Nothing found.'),
  };
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
  const present = (shower.values[bind] ?? []) as SortKey[];
  const first = present[0]?.field === field ? present[0] : undefined;
  const next: SortKey[] = [{ field, descending: first !== undefined && !first.descending }];
  if (typeof parameter.codec.write(next) !== 'string') return undefined;
  const direction = first === undefined ? 'none' : first.descending ? 'descending' : 'ascending';
  return { ...shower.changeAnchor(label, { [bind]: next }), direction };
}
