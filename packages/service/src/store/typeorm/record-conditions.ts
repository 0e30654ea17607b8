import type { FieldDefinition, PlannedCondition, SortKey } from '@pallmist/app';
import { fold } from '../fold.ts';
import { containsCondition } from '../sqlite/statements.ts';
import type { FieldColumn, RecordTableShape } from './record-tables.ts';
import type { Bound } from './remembered-queries.ts';

/** Conditions as the database takes them: texts with placeholders, and their values. */
export interface ConditionTexts {
  texts: string[];
  values: Record<string, Bound>;
}

/** @param shape the table; a condition on a field that it does not have holds for no record */
export function conditionTexts(
  shape: RecordTableShape,
  fields: Readonly<Record<string, FieldDefinition>>,
  conditions: readonly PlannedCondition[],
): ConditionTexts {
  const values: Record<string, Bound> = {};
  const bind = (value: string | number | boolean) => {
    const name = `v${String(Object.keys(values).length)}`;
    values[name] = typeof value === 'boolean' ? Number(value) : value;
    return `:${name}`;
  };
  const texts = conditions.map((condition) => {
    const column = Object.hasOwn(fields, condition.field) ? shape.columns.get(condition.field) : undefined;
    return column === undefined ? '1 = 0' : conditionText(condition, column, bind);
  });
  return { texts, values };
}

function conditionText(
  condition: PlannedCondition,
  { value, folded }: FieldColumn,
  bind: (value: string | number | boolean) => string,
): string {
  const kept = `r.${value}`;
  const searched = `r.${folded ?? value}`;
  switch (condition.operator) {
    case 'contains':
      return containsCondition(searched, bind(fold(String(condition.value))));
    case 'startsWith': {
      // A span of the index: everything from the text on, before the text with a last character of its own.
      const start = fold(String(condition.value));
      return `${searched} >= ${bind(start)} AND ${searched} < ${bind(`${start}\u{10ffff}`)}`;
    }
    case 'oneOf': {
      const among = `${kept} IN (${condition.value.map(bind).join(', ')})`;
      // Texts have their index on the folded form.
      return folded === undefined
        ? among
        : `${searched} IN (${condition.value.map((one) => bind(fold(String(one)))).join(', ')}) AND ${among}`;
    }
    case 'within': {
      const { from, to } = condition.value;
      return [
        from === undefined ? `${kept} IS NOT NULL` : `${kept} >= ${bind(from)}`,
        ...(to === undefined ? [] : [`${kept} <= ${bind(to)}`]),
      ].join(' AND ');
    }
    case 'before':
      return `${kept} < ${bind(condition.value)}`;
    case 'after':
      return `${kept} > ${bind(condition.value)}`;
    case 'empty':
      return `${searched} IS ${condition.value ? '' : 'NOT '}NULL`;
    case 'equals':
      return folded === undefined
        ? `${kept} = ${bind(condition.value)}`
        : `${searched} = ${bind(fold(String(condition.value)))} AND ${kept} = ${bind(condition.value)}`;
  }
}

/** One column of an order. */
export interface OrderedColumn {
  column: string;
  direction: 'ASC' | 'DESC';
}

/**
 * The columns that an order goes by, such that one index can be walked: folded texts first, equal ones by the text itself,
 * the key last. What has no value stands at the end, whichever the direction.
 */
export function orderOf(
  shape: RecordTableShape,
  fields: Readonly<Record<string, FieldDefinition>>,
  sort: readonly SortKey[],
): OrderedColumn[] {
  const order: OrderedColumn[] = [];
  const add = (column: string, direction: OrderedColumn['direction']) => {
    if (!order.some((present) => present.column === column)) order.push({ column, direction });
  };
  for (const { field, descending } of sort) {
    const column = Object.hasOwn(fields, field) ? shape.columns.get(field) : undefined;
    if (column === undefined) continue;
    const direction = descending ? 'DESC' : 'ASC';
    if (column.folded !== undefined) add(column.folded, direction);
    add(column.value, direction);
  }
  const key = shape.columns.get(shape.keyField);
  add(key?.value ?? 'id', order[0]?.direction ?? 'ASC');
  return order;
}
